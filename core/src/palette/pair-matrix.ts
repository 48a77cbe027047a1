import { compositeOver, contrastRatio, RATIOS } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import { hexOf } from '../color/read-notation.js';
import { VISIONS, seenAs, type Vision } from '../color/vision.js';
import type { Standing } from '../color/standing.js';
import { WHITE } from '../values/color.js';
import { MEANT_PAIRS } from './meant-pairs.js';
import { ownRolesOf } from '../veneer/own-role.js';
import { colorOfValue } from '../veneer/override-value.js';
import type { Palette, RoleName } from '../veneer/palette.js';

/** Roles that are read, and roles that lie under them. */
export const TEXT_ROLES: readonly RoleName[] = [
  'ink',
  'soft-ink',
  'link',
  'visited',
  'accent',
  'signal',
  'on-accent',
  'on-second',
  'on-signal',
];
export const GROUND_ROLES: readonly RoleName[] = ['ground', 'panel', 'accent', 'second', 'signal'];
/** Roles that draw edges, icons and rings, for which 3 : 1 is asked. */
const LINE_ROLES: ReadonlySet<RoleName> = new Set(['line', 'ring']);

/** One pair of roles that can meet. */
export interface Pair {
  readonly text: RoleName;
  readonly ground: RoleName;
  readonly textHex: string;
  readonly groundHex: string;
  /** WCAG 2.2 contrast ratio, 1–21. */
  readonly ratio: number;
  /** `AAA`, `AA`, `AA large` or `fails`; for edges and rings `holds` or `fails`; `same` for one colour on itself. */
  /** Whether the roles are there to meet like this. */
  readonly isMeant: boolean;
  readonly level: 'AAA' | 'AA' | 'AA large' | 'holds' | 'fails' | 'same';
  readonly standing: Standing;
  /** Nearest shade of the text that reaches the ratio asked, with its move in ΔE2000; `null` when it passes or none does. */
  readonly remedy: { readonly hex: string; readonly moved: number } | null;
}

/** Every text-like role on every ground-like role, and edges and rings on them; roles nobody fills are left out. */
export function pairMatrix(palette: Palette): Pair[] {
  const filled = (role: RoleName) => colorOfValue({ kind: 'role', role, shade: 0 }, palette);
  return [...TEXT_ROLES, ...ownRolesOf(palette), 'line' as const, 'ring' as const].flatMap((text) =>
    GROUND_ROLES.flatMap((ground): Pair[] => {
      const above = filled(text);
      const below = filled(ground);
      if (!above || !below) return [];
      const under = compositeOver(below, WHITE);
      const over = compositeOver(above, under);
      const ratio = contrastRatio(over, under);
      const wanted = LINE_ROLES.has(text) ? RATIOS.nonText : RATIOS.text;
      const level = levelOf(ratio, LINE_ROLES.has(text), deltaE2000(over, under) < 0.5);
      const remedy = level === 'fails' || level === 'AA large' ? nearestPassingShade(over, under, wanted) : null;
      return [
        {
          text,
          ground,
          textHex: hexOf(over),
          groundHex: hexOf(under),
          ratio,
          level,
          isMeant: MEANT_PAIRS.some((pair) => pair.above === text && pair.below === ground),
          standing: level === 'fails' ? 'fails' : level === 'AA large' || level === 'same' ? 'look' : 'holds',
          remedy: remedy ? { hex: hexOf(remedy.color), moved: remedy.moved } : null,
        },
      ];
    }),
  );
}

function levelOf(ratio: number, isLine: boolean, isSame: boolean): Pair['level'] {
  if (isSame) return 'same';
  if (isLine) return ratio >= RATIOS.nonText ? 'holds' : 'fails';
  if (ratio >= RATIOS.enhanced) return 'AAA';
  if (ratio >= RATIOS.text) return 'AA';
  return ratio >= RATIOS.largeText ? 'AA large' : 'fails';
}

/** Below this, two swatches seen with a deficiency are too close to tell apart at a glance (common practice). */
export const INDISTINCT = 6;

/** The palette in one way of seeing, and the pairs of swatches that come too close in it but are apart otherwise. */
export interface SeenPalette {
  readonly vision: Vision;
  readonly hexes: readonly string[];
  readonly merging: readonly { readonly a: string; readonly b: string; readonly deltaE: number }[];
}

/** @param severity of the deficiency, 0–1. */
export function paletteAsSeen(palette: Palette, severity = 1): SeenPalette[] {
  const swatches = palette.swatches.flatMap(({ id, name }) => {
    const color = colorOfValue({ kind: 'swatch', swatchId: id, shade: 0 }, palette);
    return color ? [{ name, color }] : [];
  });
  return VISIONS.map((vision) => {
    const seen = swatches.map(({ color }) => seenAs(color, vision, severity));
    const merging = swatches.flatMap((first, i) =>
      swatches.slice(i + 1).flatMap((second, k) => {
        const deltaE = deltaE2000(seen[i], seen[i + 1 + k]);
        return deltaE < INDISTINCT && deltaE2000(first.color, second.color) >= INDISTINCT
          ? [{ a: first.name, b: second.name, deltaE }]
          : [];
      }),
    );
    return { vision, hexes: seen.map(hexOf), merging };
  });
}
