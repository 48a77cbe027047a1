import { message, type Message } from '../message/message.js';
import { compositeOver, contrastRatio } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import { hexOf } from '../color/read-notation.js';
import { ROLE_COSTS, UNUSUAL } from '../match/fitness.js';
import type { Job } from '../match/job.js';
import type { SiteModel } from '../site/site-model.js';
import type { Color } from '../values/color.js';
import { rolesInOrder } from '../veneer/own-role.js';
import { colorOfValue, shadeOfValue, valueTold, type PlainValue } from '../veneer/override-value.js';
import { colorOfCss, type StandardRole } from '../veneer/palette.js';
import type { MendIdea } from './proof-finding.js';

/** A value that may mend a finding. */
export interface Candidate {
  readonly value: PlainValue;
  readonly color: Color;
  readonly label: Message;
  /** By which they are ranked. */
  readonly cost: number;
}

/** Most values that are tried for one finding; each is a look at the site. */
const MOST_TRIED = 4;
/** Points of lightness between the shades of a role that are tried. */
const SHADES = [-48, -36, -24, -18, -12, -6, 0, 6, 12, 18, 24, 36, 48];

/** Colours that reach what is asked on every ground, the nearest to what is there first; those of the palette before others. */
export function passingColors(
  site: SiteModel,
  { ink, grounds, job }: Extract<MendIdea, { kind: 'recolour' }>,
  needed: number,
): Candidate[] {
  const from = colorOfCss(ink);
  const under = grounds.flatMap((ground) => colorOfCss(ground) ?? []);
  if (!from || under.length === 0) return [];
  const ratioOf = (color: Color): number =>
    Math.min(...under.map((ground) => contrastRatio(compositeOver(color, ground), ground)));
  const passing = brandValues(site)
    .map((value) => ({ value, color: colorOfValue(value, site.palette) }))
    .flatMap(({ value, color }) => (color && ratioOf(color) >= needed ? [{ value, color }] : []));
  const known = asCandidates(site, from, job, passing, (color) => `${ratioOf(color).toFixed(1)} : 1`);
  if (known.length > 0) return known.slice(0, MOST_TRIED);
  const nearest = nearestPassingShade(from, under, needed);
  if (!nearest) return [];
  const css = hexOf(nearest.color);
  return [
    {
      value: { kind: 'literal', css },
      color: nearest.color,
      label: message('proof.candidate', {
        value: css,
        moved: nearest.moved.toFixed(1),
        ratio: `${ratioOf(nearest.color).toFixed(1)} : 1`,
        hasRatio: 'yes',
      }),
      cost: nearest.moved,
    },
  ];
}

/** Colours of the brand, the nearest first. */
export function nearestBrand(site: SiteModel, { hex, job }: Extract<MendIdea, { kind: 'nearest' }>): Candidate[] {
  const from = colorOfCss(hex);
  if (!from) return [];
  const all = brandValues(site, [0]).flatMap((value) => {
    const color = colorOfValue(value, site.palette);
    return color ? [{ value, color }] : [];
  });
  return asCandidates(site, from, job, all, () => '').slice(0, MOST_TRIED);
}

/** What a role that is not there for the job costs beside ΔE2000, and each point of shade. */
const ROLE_WEIGHT = 60;
const SHADE_WEIGHT = 0.25;

/** What each value costs: how far it is, and how little its role is there for the job. */
function costOf(value: PlainValue, job: Job, moved: number): number {
  const shade = value.kind === 'literal' ? 0 : Math.abs(value.shade);
  const role = value.kind === 'role' ? (ROLE_COSTS[job][value.role as StandardRole] ?? UNUSUAL) : UNUSUAL / 2;
  return moved + ROLE_WEIGHT * role + SHADE_WEIGHT * shade;
}

function asCandidates(
  site: SiteModel,
  from: Color,
  job: Job,
  values: readonly { readonly value: PlainValue; readonly color: Color }[],
  figureOf: (color: Color) => string,
): Candidate[] {
  const byColor = new Map<string, Candidate>();
  for (const { value, color } of values) {
    const hex = hexOf(color);
    const moved = deltaE2000(from, color);
    const cost = costOf(value, job, moved);
    if ((byColor.get(hex)?.cost ?? Number.POSITIVE_INFINITY) <= cost) continue;
    const figure = figureOf(color);
    byColor.set(hex, {
      value,
      color,
      cost,
      label: message('proof.candidate', {
        value: valueTold(site, value),
        moved: moved.toFixed(1),
        ratio: figure,
        hasRatio: figure === '' ? 'no' : 'yes',
      }),
    });
  }
  return [...byColor.values()].sort((a, b) => a.cost - b.cost);
}

/** Roles with their shades, then swatches. */
function brandValues({ palette }: SiteModel, shades: readonly number[] = SHADES): PlainValue[] {
  const roles = rolesInOrder(palette).filter((role) => palette.roles.some((fill) => fill.role === role));
  const plain: PlainValue[] = [
    ...roles.map((role): PlainValue => ({ kind: 'role', role, shade: 0 })),
    ...palette.swatches.map(({ id }): PlainValue => ({ kind: 'swatch', swatchId: id, shade: 0 })),
  ];
  return [
    ...plain,
    ...roles.flatMap((role) =>
      shades.flatMap((steps) =>
        steps === 0 ? [] : (shadeOfValue({ kind: 'role', role, shade: 0 }, steps, palette) ?? []),
      ),
    ),
  ];
}
