const REFERENCE = /var\(\s*(--[^\s,)]+)/gi;

/** Names of the custom properties that a value refers to, in the order they stand, fallbacks included. */
export function variablesIn(text: string): string[] {
  return [...text.matchAll(REFERENCE)].map(([, name]) => name);
}
