/** Prefixes of style libraries that make class names up at build time (common practice). */
const GENERATED_PREFIX = /^(?:css|sc|jss|emotion|makeStyles|svelte|styled|tw)-/i;

/**
 * Whether a class name looks made by a tool rather than given by a person: it changes at the next build,
 * so no selector should lean on it. A judgement from the letters alone (common practice).
 */
export function isGeneratedClass(name: string): boolean {
  if (/^(?:css|sc|jss|emotion|svelte)-[a-z0-9]{5,}$/i.test(name)) return true;
  return (
    name.split(/__|--|[-_]/).some((piece) => piece.length >= 5 && looksHashed(piece)) ||
    (GENERATED_PREFIX.test(name) && /\d/.test(name))
  );
}

function looksHashed(piece: string): boolean {
  const digits = (piece.match(/\d/g) ?? []).length;
  const letters = (piece.match(/[a-z]/gi) ?? []).length;
  if (digits === 0) return piece.length >= 6 && /[a-z][A-Z][a-z]*[A-Z]/.test(piece) && !/[aeiou]/i.test(piece);
  if (letters === 0) return digits >= 5;
  // Words end in a number now and then (`column12`); a hash mixes them.
  return /\d[a-z]/i.test(piece) && /[a-z]\d/i.test(piece) ? true : digits >= 2 && /\d[a-z]{1,3}\d?/i.test(piece);
}

/** Class names worth leaning on, in the order the page gives them. */
export function lastingClasses(classes: readonly string[]): string[] {
  return classes.filter((name) => !isGeneratedClass(name) && !STATE_CLASS.test(name));
}

/** Class names that say a state, which a selector for all alike should not ask for. */
const STATE_CLASS = /^(?:is|has|js)-|^(?:active|current|selected|open|disabled|hover|focus|visible|hidden)$/i;

/** Whether an id can be leant on. */
export function isLastingId(id: string): boolean {
  return !/\d{3,}|^:|[0-9a-f]{8}-/.test(id) && !isGeneratedClass(id);
}
