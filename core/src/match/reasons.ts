import { isStandardRole, roleWords } from '../veneer/own-role.js';
import { ownRoleCost } from './own-role-cost.js';
import type { Candidate } from './candidates.js';
import type { Strategy } from './fitness.js';
import { GREY_SHADOW, ROLE_COSTS, WARNING_ROLES } from './fitness.js';
import type { FoundColor } from './found-color.js';
import { JOB_WORDS } from './job.js';

/** Why a row becomes what it becomes, in plain words. */
export function reasonFor(
  row: FoundColor,
  { value, role, shade, figures, inverted }: Candidate,
  strategy: Strategy,
  isLocked: boolean,
): string {
  if (isLocked) return 'set by hand';
  if (value === null) {
    if (row.isExcepted) return 'an exception: left alone';
    if (row.isBrand) return 'a brand colour already';
    const isGrey = figures.oklch[1] < GREY_SHADOW;
    return row.job === 'shadow' && isGrey ? 'a shadow without colour stays' : 'nothing of the palette suits it';
  }
  if (row.isWarning && role && WARNING_ROLES[row.job]?.includes(role)) return 'a warning stays a warning';
  const words = JOB_WORDS[row.job];
  if (strategy === 'stand-out' && row.job === 'ground' && role === 'accent') return 'the accent leads';
  if (row.atRest !== null) return `${words} in a state: its step is kept`;
  const meant =
    role !== null && (isStandardRole(role) ? (ROLE_COSTS[row.job][role] ?? 1) : ownRoleCost(role, row)) <= 0.05;
  const base = role === null ? `${words}: nearest swatch` : `${words}: ${roleWords(role)}`;
  if (row.isBrand && shade === 0 && role !== null) return `${words}: ${roleWords(role)}, so that it follows`;
  // Which way a shade goes can differ between two lightings.
  const way = inverted ? 'a shade' : shade < 0 ? 'darker' : 'lighter';
  if (shade !== 0) return `${base}, ${way} to be read or told apart`;
  return meant ? base : `${base}, nearest in lightness`;
}
