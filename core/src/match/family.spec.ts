import Color from 'colorjs.io';
import { colorOfValue } from '../veneer/override-value.js';
import { serializeColor } from '../values/serialize-color.js';
import { familyOf, shadesLike } from './family.js';

const row = (hex: string, some: { readonly isExcepted?: boolean; readonly isBrand?: boolean } = {}) => ({
  id: `fill ${hex}`,
  hex,
  isExcepted: false,
  isBrand: false,
  ...some,
});
const PALETTE = {
  swatches: [{ id: 1, name: 'River', css: '#0f4a48' }],
  roles: [{ role: 'second' as const, swatchId: 1, shade: 0 }],
};

describe('a family of found colours', () => {
  // Hues in OKLCH by colorjs.io: #7a2bd6 299, #a44bf0 307, #f4eefd 303, #d6216b 2, #333333 none.
  const rows = [
    row('#7a2bd6'),
    row('#a44bf0'),
    row('#d6216b'),
    row('#333333'),
    row('#5d15b4'),
    row('#e2dcf2', { isExcepted: true }),
  ];

  it('holds every shade near a hue, pale and dark, but no exception and no grey', () => {
    expect(familyOf(rows, 'fill #7a2bd6')).toEqual(['fill #7a2bd6', 'fill #a44bf0', 'fill #5d15b4']);
  });

  it('is a grey by itself where a grey is asked about, and nothing for a row that is gone', () => {
    expect(familyOf(rows, 'fill #333333')).toEqual(['fill #333333']);
    expect(familyOf(rows, 'fill #000000')).toEqual([]);
  });

  it('keeps how light each is beside the first, within a point of OKLCH lightness by colorjs.io', () => {
    const family = [row('#5d15b4'), row('#7a2bd6'), row('#a44bf0')];
    const becomes = shadesLike(family, { kind: 'role', role: 'second', shade: 0 }, PALETTE);
    const lightness = family.map(({ id }) => {
      const entry = becomes[id];
      const color = entry.kind === 'value' ? colorOfValue(entry.value, PALETTE) : null;
      return color ? (new Color(serializeColor(color)).oklch[0] ?? 0) : 0;
    });
    const found = family.map(({ hex }) => new Color(hex).oklch[0] ?? 0);
    lightness.forEach((own, i) => expect(own - lightness[0]).toBeCloseTo(found[i] - found[0], 1.7));
  });

  it('stays on its side where there is no more room', () => {
    const becomes = shadesLike([row('#5d15b4'), row('#fdf8ff')], { kind: 'role', role: 'second', shade: 0 }, PALETTE);
    const pale = becomes['fill #fdf8ff'];
    const color = pale.kind === 'value' ? colorOfValue(pale.value, PALETTE) : null;
    expect(color ? (new Color(serializeColor(color)).oklch[0] ?? 0) : 0).toBeGreaterThan(0.85);
  });
});
