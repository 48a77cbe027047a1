import { EDGE_SIDES } from '../../properties/edges.js';
import type { MatchProposal } from '../proposal.js';
import type { ProposedShape } from './propose-shapes.js';

/** Whether a colour of an element is no longer its own: that of a shadow which the house's replaces, or of an edge that goes. */
export function shapedPlaces(
  shapes: readonly ProposedShape[],
): (pageId: number, element: number, property: string) => boolean {
  const taken = new Set<string>();
  for (const { found, value, css } of shapes) {
    if (!value) continue;
    for (const { pageId, element, properties } of found.places) {
      if (found.part === 'shadow') taken.add(`${pageId}:${element}:box-shadow`);
      if (found.part !== 'edge' || Number.parseFloat(css) !== 0) continue;
      for (const property of properties)
        for (const { color, width } of EDGE_SIDES)
          if (property === 'border-width' || property === width) taken.add(`${pageId}:${element}:${color}`);
    }
  }
  return (pageId, element, property) => taken.has(`${pageId}:${element}:${property}`);
}

/** A proposal without the colours at rest that shapes replace. */
export function colorsBeside(proposal: MatchProposal, shapes: readonly ProposedShape[]): MatchProposal {
  if (shapes.every(({ value }) => value === null)) return proposal;
  const isShaped = shapedPlaces(shapes);
  return {
    ...proposal,
    rows: proposal.rows.map((row) => ({
      ...row,
      found: {
        ...row.found,
        places: row.found.places.filter(
          ({ pageId, element, pseudo, property, state }) =>
            pseudo !== '' || state !== 'rest' || !isShaped(pageId, element, property),
        ),
      },
    })),
  };
}
