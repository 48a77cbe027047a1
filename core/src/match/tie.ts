import { message, type Message } from '../message/message.js';
import { compositeOver, relativeLuminance } from '../color/contrast.js';
import { deltaE2000OfLab, labOf } from '../color/delta-e.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import { hexOf } from '../color/read-notation.js';
import { WHITE, type Color } from '../values/color.js';
import type { Lighting } from '../veneer/lighting.js';
import { colorOfCss } from '../veneer/palette.js';
import type { ColorFigures } from './candidates.js';
import { BROKEN_COST, MERGED_COST, OTHER_ROLE_COST, STEP_COST, WEAK_COST } from './fitness.js';
import type { Meeting } from './found-color.js';
import { jobMessage, type Job } from './job.js';
import type { Unmet } from './proposal.js';
import { optionFigures, shownOf, type Variable } from './variable.js';
import { veiledContrast } from './veil.js';

/** OKLCH lightness by which a state must differ for its direction to count. */
const DIRECTION = 0.015;

/** A condition or wish between two choices, or one and a colour that stays. */
export interface Tie {
  readonly kind: Meeting['kind'] | 'step' | 'differ';
  readonly a: Variable;
  readonly b: Variable | null;
  readonly fixed: ColorFigures | null;
  readonly wanted: number;
  readonly meeting: Meeting | null;
  /** What lies behind both, where opacity lets it through. */
  readonly behind?: Variable | null;
  /** A thin fill between the two: a row's, or one outside the scope. */
  readonly film?: Variable | Color | null;
}

/** What a tie costs as things stand, in every lighting in which both sides are matched. */
export function tieCost(tie: Tie): number {
  const { a, b, kind } = tie;
  const isInBoth = b !== null && kind !== 'differ' && kind !== 'step' && a.options[a.at].inverted !== null;
  return costIn(tie, 'light') + (isInBoth ? costIn(tie, 'inverted') : 0);
}

function costIn(tie: Tie, lighting: Lighting): number {
  const { kind, a, b, wanted } = tie;
  switch (kind) {
    case 'read':
    case 'seen': {
      const ratio = ratioOf(tie, lighting);
      if (ratio < wanted) return BROKEN_COST + 10 * (wanted - ratio);
      // What could not be read before is mended where that costs little.
      const asked = tie.meeting?.wanted ?? wanted;
      return ratio < asked ? WEAK_COST * (1.3 - ratio / asked) : 0;
    }
    case 'apart': {
      const apart = apartOf(tie, lighting);
      return apart >= wanted ? 0 : BROKEN_COST / 5 + (wanted - apart);
    }
    case 'differ':
      return b && deltaE2000OfLab(optionFigures(a).lab, optionFigures(b).lab) < wanted ? MERGED_COST : 0;
    case 'step':
      return b ? stepCost(a, b, wanted) : 0;
  }
}

/** A state keeps its direction and a step that is noticed; the nearer its size to the one found, the better. */
function stepCost(state: Variable, rest: Variable, wanted: number): number {
  const [now, then] = [optionFigures(state), optionFigures(rest)];
  const step = now.oklch[0] - then.oklch[0];
  const was = state.found.oklch[0] - rest.found.oklch[0];
  const isLost =
    deltaE2000OfLab(now.lab, then.lab) < wanted && deltaE2000OfLab(state.found.lab, rest.found.lab) >= wanted;
  const isOther =
    state.options[state.at].role !== rest.options[rest.at].role && isOneHue(state.found, rest.found)
      ? OTHER_ROLE_COST
      : 0;
  // What stands on a fill that answers itself may keep still.
  if (CARRIED_JOBS.has(state.lead.job)) return STEP_COST * CARRIED * Math.abs(step - was) + isOther;
  const isTurned = Math.abs(was) > DIRECTION && step * was < 0;
  return STEP_COST * Math.abs(step - was) + isOther + (isLost ? BROKEN_COST : 0) + (isTurned ? BROKEN_COST / 10 : 0);
}

/** Jobs of what stands on a fill, and how much less their own steps count. */
export const CARRIED_JOBS: ReadonlySet<Job> = new Set<Job>(['label', 'icon', 'entry']);
const CARRIED = 0.3;

/** Whether two colours are of one hue, or one of them of none. */
function isOneHue({ oklch: [, c1, h1] }: ColorFigures, { oklch: [, c2, h2] }: ColorFigures): boolean {
  if (c1 < GREY || c2 < GREY) return true;
  const turn = Math.abs(h1 - h2) % 360;
  return Math.min(turn, 360 - turn) <= ONE_HUE;
}

/** OKLCH chroma under which a colour has no hue to speak of, and degrees within which two are of one (common practice). */
const GREY = 0.03;
const ONE_HUE = 35;

/** Contrast of what a tie holds together, at the worst of its near-duplicates. */
export function ratioOf({ a, b, fixed, meeting, behind, film }: Tie, lighting: Lighting = 'light'): number {
  const ground = b ? optionFigures(b, lighting) : fixed;
  if (!ground) return 21;
  // Near-duplicates that are left alone stay as they are, each by itself.
  const grounds = b && b.options[b.at].value === null && b.asFound.length > 1 ? b.asFound : [ground];
  let worst = 21;
  for (const own of grounds) {
    const under = film ? throughFilm(film, own.color, lighting) : own;
    let ratio: number;
    if (meeting?.veil) {
      const back = behind ? optionFigures(behind, lighting).color : colorOfCss(meeting.veil.outside);
      ratio = veiledContrast(shownOf(a, lighting), under.color, meeting.veil, back);
    } else if (a.alpha < 1) ratio = veiledContrast(shownOf(a, lighting), under.color, null, null);
    else {
      const over = optionFigures(a, lighting).luminance;
      ratio = (Math.max(over, under.luminance) + 0.05) / (Math.min(over, under.luminance) + 0.05);
    }
    if (ratio < worst) worst = ratio;
  }
  return worst;
}

/** A ground as it is seen through a thin fill. */
function throughFilm(
  film: Variable | Color,
  ground: Color,
  lighting: Lighting,
): Pick<ColorFigures, 'color' | 'luminance'> {
  const color = compositeOver('rows' in film ? shownOf(film, lighting) : film, opaque(ground));
  return { color, luminance: relativeLuminance(color) };
}

function apartOf({ a, b, fixed }: Tie, lighting: Lighting = 'light'): number {
  const ground = b ? optionFigures(b, lighting) : fixed;
  if (!ground) return 100;
  const lab =
    a.alpha < 1 ? labOf(compositeOver(shownOf(a, lighting), opaque(ground.color))) : optionFigures(a, lighting).lab;
  return deltaE2000OfLab(lab, ground.lab);
}

function opaque(color: Color): Color {
  return { ...color, alpha: 1 };
}

/** What a condition comes to: ΔE2000 where things are told apart, else contrast. */
function figureOf(tie: Tie, lighting: Lighting): number {
  return tie.kind === 'apart' || tie.kind === 'step' ? apartOf(tie, lighting) : ratioOf(tie, lighting);
}

/** The condition of a tie, where it is not met in a lighting. */
export function unmetIn(tie: Tie, lighting: Lighting): Unmet[] {
  const { meeting, a, b, fixed, wanted, film } = tie;
  const figure = figureOf(tie, lighting);
  if (!meeting || figure >= wanted - 1e-9) return [];
  const bare = b ? opaque(shownOf(b, lighting)) : (fixed?.color ?? WHITE);
  const ground = film ? throughFilm(film, bare, lighting).color : bare;
  const isApart = tie.kind === 'apart' || tie.kind === 'step';
  const nearest = isApart ? null : nearestPassingShade(opaque(shownOf(a, lighting)), ground, meeting.wanted);
  const words = isApart ? apartWords(tie, figure) : contrastWords(tie, meeting, ground, figure);
  return [
    {
      meeting,
      after: figure,
      nearest: nearest && hexOf(nearest.color),
      words: lighting === 'light' ? words : message('match.in-lighting', { lighting, told: words }),
    },
  ];
}

function apartWords({ kind, a }: Tie, figure: number): Message {
  return message('match.can-hardly-be-told', { paints: a.lead.paints, kind, figure: figure.toFixed(1) });
}

function contrastWords({ a, b }: Tie, { wanted }: Meeting, ground: Color, figure: number): Message {
  // Rounded down: 4.49 must not read as 4.5.
  const ratio = (Math.floor(figure * 10) / 10).toFixed(1);
  return message('match.comes-to', {
    job: jobMessage(a.lead.job),
    ratio,
    ground: hexOf(ground),
    of: b ? 'scope' : 'outside',
    wanted,
  });
}
