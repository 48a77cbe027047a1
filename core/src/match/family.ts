import { turns } from '../color/shade.js';
import { channelsIn } from '../values/convert-color.js';
import { colorOfValue, shadeOfValue, type PlainValue } from '../veneer/override-value.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';
import type { FoundColor } from './found-color.js';
import type { Becomes } from './proposal.js';

/** OKLCH chroma under which a colour is of no family, and degrees of hue within which it is of one (common practice). */
const GREY = 0.025;
const NEAR_HUE = 28;

type Row = Pick<FoundColor, 'id' | 'hex' | 'isExcepted' | 'isBrand'>;

/** Rows of one family: every shade near the hue of a row, whatever it is painted by; none that is an exception or ours already. */
export function familyOf(rows: readonly Row[], leadId: string): string[] {
  const lead = rows.find(({ id }) => id === leadId);
  const own = lead && oklch(lead.hex);
  if (!own || own[1] < GREY) return lead ? [leadId] : [];
  return rows.flatMap(({ id, hex, isExcepted, isBrand }) => {
    const [, chroma, hue] = oklch(hex) ?? [0, 0, 0];
    const turn = Math.abs(hue - own[2]) % 360;
    return id === leadId || (chroma >= GREY && Math.min(turn, 360 - turn) <= NEAR_HUE && !isExcepted && !isBrand)
      ? [id]
      : [];
  });
}

/**
 * What rows become by one value, each as much lighter or darker than the first as it was found: "everything violet, in any shade,
 * becomes our teal".
 */
export function shadesLike(
  rows: readonly Pick<FoundColor, 'id' | 'hex'>[],
  value: PlainValue,
  palette: Palette,
): Readonly<Record<string, Becomes>> {
  const from = oklch(rows.at(0)?.hex ?? '');
  const base = colorOfValue(value, palette);
  return Object.fromEntries(
    rows.map(({ id, hex }): [string, Becomes] => {
      const own = oklch(hex);
      const steps = from && own ? Math.round(100 * (own[0] - from[0])) : 0;
      const room = base && !turns(base, steps) ? steps : base ? within(channelsIn(base, 'oklch')[0], steps) : 0;
      const shaded = room === 0 ? value : shadeOfValue(value, room, palette);
      return [id, { kind: 'value', value: shaded ?? value }];
    }),
  );
}

/** As far as lightness goes in a direction: near white or near black rather than back again. */
function within(lightness: number, steps: number): number {
  return steps > 0 ? Math.max(0, Math.floor(98 - 100 * lightness)) : Math.min(0, -Math.floor(100 * lightness - 4));
}

function oklch(hex: string): readonly [number, number, number] | null {
  const color = colorOfCss(hex);
  return color && channelsIn(color, 'oklch');
}
