import type { Lighting } from '../veneer/lighting.js';
import type { MatchProposal } from './proposal.js';

/** A proposal as its rows come out in a lighting; of a site of one, itself. */
export function proposalIn(proposal: MatchProposal, lighting: Lighting): MatchProposal {
  return lighting === 'light'
    ? proposal
    : { ...proposal, rows: proposal.rows.map((row) => ({ ...row, ...row.inverted })) };
}
