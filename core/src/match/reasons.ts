import { inner, message, type Message } from '../message/message.js';
import { isStandardRole, roleTold } from '../veneer/own-role.js';
import { ownRoleCost } from './own-role-cost.js';
import type { Candidate } from './candidates.js';
import type { Strategy } from './fitness.js';
import { GREY_SHADOW, ROLE_COSTS, WARNING_ROLES } from './fitness.js';
import type { FoundColor } from './found-color.js';
import { jobMessage } from './job.js';

/** Why a row becomes what it becomes, in plain words. */
export function reasonFor(
  row: FoundColor,
  { value, role, shade, figures, inverted }: Candidate,
  strategy: Strategy,
  isLocked: boolean,
): Message {
  if (isLocked) return message('match.set-hand');
  if (value === null) {
    if (row.isExcepted) return message('match.exception-left-alone');
    if (row.isBrand) return message('match.brand-colour-already');
    const isGrey = figures.oklch[1] < GREY_SHADOW;
    return message(row.job === 'shadow' && isGrey ? 'match.grey-shadow' : 'match.nothing-suits');
  }
  if (row.isWarning && role && WARNING_ROLES[row.job]?.includes(role)) return message('match.warning-stays-warning');
  const job = jobMessage(row.job);
  if (strategy === 'stand-out' && row.job === 'ground' && role === 'accent') return message('match.accent-leads');
  if (row.atRest !== null) return message('match.state-its-step-kept', { job });
  const meant =
    role !== null && (isStandardRole(role) ? (ROLE_COSTS[row.job][role] ?? 1) : ownRoleCost(role, row)) <= 0.05;
  const base =
    role === null
      ? message('match.nearest-swatch', { job })
      : message('match.by-role', { job, role: inner(roleTold(role)) });
  if (row.isBrand && shade === 0 && role !== null)
    return message('match.so-follows', { job, role: inner(roleTold(role)) });
  // Which way a shade goes can differ between two lightings.
  const way = inverted ? 'either' : shade < 0 ? 'darker' : 'lighter';
  if (shade !== 0) return message('match.be-read-or-told', { base, way });
  return meant ? base : message('match.nearest-lightness', { base });
}
