import type { ProofCell, ProofFinding, ProofKind } from './proof-finding.js';

/** Looks at things of one part in one group. */
export interface CountedLooks {
  readonly partId: number | null;
  readonly kind: ProofKind;
  readonly count: number;
}

/** Cells with more looks, and what all findings there are come to in each. */
export function cellsWith(
  before: readonly ProofCell[],
  looked: readonly CountedLooks[],
  findings: readonly ProofFinding[],
): ProofCell[] {
  const cells = new Map<
    string,
    { partId: number | null; kind: ProofKind; looks: number; fails: number; toLookAt: number }
  >();
  const cellOf = (partId: number | null, kind: ProofKind): { looks: number; fails: number; toLookAt: number } => {
    const key = `${partId ?? ''}|${kind}`;
    let cell = cells.get(key);
    if (!cell) cells.set(key, (cell = { partId, kind, looks: 0, fails: 0, toLookAt: 0 }));
    return cell;
  };
  for (const { partId, kind, looks } of before) cellOf(partId, kind).looks += looks;
  for (const { partId, kind, count } of looked) cellOf(partId, kind).looks += count;
  for (const { kind, level, places } of findings)
    for (const partId of new Set(places.map((place) => place.partId))) {
      const cell = cellOf(partId, kind);
      if (level === 'fails') cell.fails += 1;
      else cell.toLookAt += 1;
    }
  return [...cells.values()];
}
