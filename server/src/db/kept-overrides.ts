import type { Override } from '@upper-veneer/core';

/** Every override in lists kept as JSON, each once. */
export function distinctOverrides(texts: readonly string[]): Override[] {
  const all = texts.flatMap((text) => JSON.parse(text) as Override[]);
  return [...new Map(all.map((override) => [JSON.stringify(override), override])).values()];
}

/** A list kept as JSON with others in place of some overrides, those by their JSON. */
export function withMoved(text: string, moved: ReadonlyMap<string, Override>): string {
  const all = JSON.parse(text) as Override[];
  return JSON.stringify(all.map((override) => moved.get(JSON.stringify(override)) ?? override));
}
