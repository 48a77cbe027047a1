import { deltaE2000OfLab } from '../color/delta-e.js';
import type { Candidate, ColorFigures } from './candidates.js';
import {
  CHROMA_WEIGHT,
  FAR_SHADE_COST,
  GREY_SHADOW,
  JUST_NOTICED,
  LEADING_COST,
  LIGHTNESS_WEIGHT,
  ROLE_COSTS,
  SHADED_COST,
  SHADE_COST,
  UNUSUAL,
  VIVID,
  WARNING_ROLES,
  type Strategy,
} from './fitness.js';
import type { FoundColor } from './found-color.js';
import { FILL_JOBS, type Job } from './job.js';
import { isStandardRole } from '../veneer/own-role.js';
import { ownRoleCost } from './own-role-cost.js';
import type { MatchScope } from './scope.js';

/** Whether a row fills the main action, another beside it, or there is none to tell it from. */
export type ActionStanding = 'main' | 'other' | 'alone';

/** How much a row counts beside the others: by its area where it was measured, and its places. */
export function weightOf(row: FoundColor, all: readonly FoundColor[]): number {
  const most = Math.max(1, ...all.map(({ area }) => area));
  const many = Math.max(1, ...all.map(({ elements }) => elements));
  return 0.4 + 0.4 * Math.sqrt(row.area / most) + 0.2 * Math.sqrt(row.elements / many);
}

/** What it costs a row by itself to become something. */
export function aloneCost(
  { value, role, shade, figures }: Candidate,
  row: FoundColor,
  found: ColorFigures,
  strategy: Strategy,
  scope: MatchScope,
  standing: ActionStanding,
  isLargest: boolean,
  isTwice: boolean,
): number {
  // A fill that comes with a state alone lies like a ground under what is there already.
  const job = row.job === 'action' && !row.states.includes('rest') && row.atRest === null ? 'ground' : row.job;
  if (value === null) return isTwice && row.isBrand ? staysCost(job, found) : leaveCost(row, found);
  const kept = row.isBrand ? (isTwice ? keptTwice(job, role, figures, found) : keptCost(job)) : 0;
  const warning = row.isWarning ? WARNING_ROLES[job] : undefined;
  const use = warning
    ? role && warning.includes(role)
      ? 0
      : UNUSUAL
    : role === null
      ? SWATCH_COST
      : isStandardRole(role)
        ? (ROLE_COSTS[job][role] ?? UNUSUAL)
        : ownRoleCost(role, row);
  // Blending a part in takes the page's own light and dark for its ground; what stands on it stays as dark as it is beside it.
  const isBlended = strategy === 'blend' && scope.kind === 'parts' && (isLargest || job === 'field');
  const lightness = Math.abs(figures.oklch[0] - found.oklch[0]) * LIGHTNESS_WEIGHT[job] * (isBlended ? 0.4 : 1);
  const chroma =
    (Math.min(1, Math.abs(figures.oklch[1] - found.oklch[1]) / VIVID) * CHROMA_WEIGHT[job]) / (isBlended ? 2 : 1);
  const isLeading = standing === 'main' ? role === 'accent' && shade === 0 : role !== 'accent';
  const rank =
    job === 'action' && row.atRest === null && !row.isWarning && standing !== 'alone'
      ? isLeading
        ? 0
        : LEADING_COST
      : 0;
  // Far off, a shade is hardly its role's any more.
  const shaded = shade === 0 ? 0 : SHADED_COST + Math.abs(shade) * SHADE_COST + shade ** 2 * FAR_SHADE_COST;
  return use + lightness + chroma + shaded + rank + kept;
}

/** What it costs to change what is a colour of the brand already: a fill for nothing, an ink only to be read. */
const BRAND_FILL = 400;
const BRAND_INK = 3;
function keptCost(job: Job): number {
  return FILL_JOBS.has(job) ? BRAND_FILL : BRAND_INK;
}

/** The same in a site of two lightings: to bind it to a role of its colour changes nothing; a colourless ground is to follow, even by a role that is only near. */
function keptTwice(job: Job, role: Candidate['role'], figures: ColorFigures, found: ColorFigures): number {
  const isGround = isColorlessFill(job, found);
  if (isGround && role === null) return STANDS_STILL;
  if (deltaE2000OfLab(figures.lab, found.lab) < JUST_NOTICED) return 0;
  return isGround ? NEAR_GROUND : keptCost(job);
}

/** What it costs that a colourless ground does not follow into the second lighting, and that it becomes another one to follow. */
const STANDS_STILL = 2;
const NEAR_GROUND = 1;

function isColorlessFill(job: Job, { oklch }: ColorFigures): boolean {
  return FILL_JOBS.has(job) && oklch[1] < COLORED;
}

/** What a swatch costs that has no role. */
const SWATCH_COST = 0.5;
/** Shadows stay as they are where they have no colour; a brand colour stays; anything else is there to be changed. */
function leaveCost({ job, isBrand }: FoundColor, { oklch }: ColorFigures): number {
  if (isBrand) return 0;
  if (job === 'shadow') return oklch[1] < GREY_SHADOW ? 0 : 0.5;
  return 2;
}

/** OKLCH chroma from which a brand fill may stay as it is in both lightings (common practice). */
const COLORED = 0.04;

/** What it costs in a site of two lightings to leave a brand colour alone, which then does not follow: grounds without colour are to, the others may. */
function staysCost(job: Job, found: ColorFigures): number {
  return isColorlessFill(job, found) ? STANDS_STILL : STAYS;
}
const STAYS = 0.6;
