import { diff3Merge } from 'node-diff3';

/** A text with the changes of two sides. */
export interface MergedText {
  readonly text: string;
  /** Places that both sides changed; what stands there is `mine`. */
  readonly conflicts: number;
}

/** Brings together what two sides made of a text, line by line. */
export function mergeText(base: string, mine: string, theirs: string): MergedText {
  if (mine === base) return { text: theirs, conflicts: 0 };
  if (theirs === base) return { text: mine, conflicts: 0 };
  const lines: string[] = [];
  let conflicts = 0;
  for (const { ok, conflict } of diff3Merge(mine.split('\n'), base.split('\n'), theirs.split('\n'))) {
    lines.push(...(ok ?? conflict?.a ?? []));
    if (conflict) conflicts += 1;
  }
  return { text: lines.join('\n'), conflicts };
}
