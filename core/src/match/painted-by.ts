import type { Color } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import type { PaintedInstead } from './prominence.js';
import type { MatchProposal, ProposedRow } from './proposal.js';

/** What the elements of one page paint at rest, each row in the colour that a function gives it. */
export function paintedBy(proposal: MatchProposal, on: number, cssOf: (row: ProposedRow) => string): PaintedInstead {
  const colors = new Map<string, Color>();
  for (const row of proposal.rows) {
    const color = colorOfCss(cssOf(row));
    if (!color) continue;
    for (const { pageId, element, pseudo, property, state } of row.found.places)
      if (pageId === on && state === 'rest' && pseudo === '') colors.set(`${pageId}:${element}:${property}`, color);
  }
  return (pageId, element, property) => colors.get(`${pageId}:${element}:${property}`) ?? null;
}

/** What the elements of one page paint at rest as they arrived. */
export function paintedAsFound(proposal: MatchProposal, on: number): PaintedInstead {
  return paintedBy(proposal, on, ({ found }) => found.hex);
}

/** What the elements of one page paint at rest as a proposal has them. */
export function paintedAsMatched(proposal: MatchProposal, on: number): PaintedInstead {
  return paintedBy(proposal, on, ({ css }) => css);
}
