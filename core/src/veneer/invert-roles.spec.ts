import Reference from 'colorjs.io';
import { hexOf } from '../color/read-notation.js';
import { MEANT_PAIRS } from '../palette/meant-pairs.js';
import { proposeRoles } from '../palette/propose-roles.js';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import { rgb8, type Color } from '../values/color.js';
import { invertRoles } from './invert-roles.js';
import { colorOfValue } from './override-value.js';
import { roleEntries } from './own-role.js';
import { ROLE_NAMES, colorOfCss, paletteIn, type Palette, type RoleName } from './palette.js';

const RUNS = runsAsked('ROLE_RUNS', 16);

/** WCAG 2.2 contrast of two colours as they are written, by a second library. */
function ratioOf(a: Color, b: Color): number {
  return new Reference(hexOf(a)).contrastWCAG21(new Reference(hexOf(b)));
}

function paletteOf(hexes: Readonly<Partial<Record<RoleName, string>>>, second: Palette['second'] = null): Palette {
  const filled = roleEntries(hexes);
  return {
    swatches: filled.map(([name, css], i) => ({ id: i + 1, name, css })),
    roles: filled.map(([role], i) => ({ role, swatchId: i + 1, shade: 0 })),
    second,
  };
}

describe('invertRoles', () => {
  // Ratios asked: WCAG 2.2, 1.4.3 and 1.4.11; reckoned by colorjs.io.
  it('lets every pair that is meant to meet pass, from light to dark and from dark to light, over seeded palettes', () => {
    const random = seededRandom(29);
    const any = (least: number, most: number): Color =>
      rgb8(...([0, 0, 0].map(() => Math.round(least + random() * (most - least))) as [number, number, number]));
    for (let i = 0; i < RUNS; i += 1) {
      const start = { ground: any(205, 255), ink: any(0, 90), accent: any(0, 255) };
      const light = proposeRoles(start, i % 3 === 2 ? 'inverted' : 'light');
      // Palettes by hand do not pass themselves: their other lighting is to all the same.
      const given =
        i % 2 === 0 ? light : { ...light, second: any(0, 255), link: any(0, 255), 'on-accent': any(0, 255) };
      const inverted = invertRoles(given);
      expect(Object.keys(inverted).sort()).toEqual([...ROLE_NAMES].sort());
      for (const { above, below, wanted } of MEANT_PAIRS) {
        const [over, under] = [inverted[above], inverted[below]];
        if (!over || !under) throw new Error(`${above} or ${below} is missing`);
        expect(ratioOf(over, under))
          .withContext(`${i}: ${above} ${hexOf(over)} on ${below} ${hexOf(under)}`)
          .toBeGreaterThanOrEqual(wanted);
      }
    }
  });

  it('turns ground and ink about and fills what was filled, no more', () => {
    const inverted = invertRoles({ ground: rgb8(247, 243, 233), ink: rgb8(29, 43, 42), accent: rgb8(163, 74, 30) });
    expect(Object.keys(inverted).sort()).toEqual(['accent', 'ground', 'ink']);
    const lightness = (role: RoleName): number =>
      new Reference(hexOf(inverted[role] ?? rgb8(0, 0, 0))).to('oklch').l ?? 0;
    expect(lightness('ground')).toBeLessThan(0.25);
    expect(lightness('ink')).toBeGreaterThan(0.85);
  });
});

describe('a role in the second lighting', () => {
  const PALETTE = paletteOf({
    ground: '#f7f3e9',
    ink: '#1d2b2a',
    accent: '#a34a1e',
    'on-accent': '#ffffff',
    second: '#234522',
  });
  const lit: Palette = {
    ...PALETTE,
    second: { told: { kind: 'scheme' }, roles: [{ role: 'second', swatchId: 1, shade: -8 }] },
  };
  const hex = (palette: Palette, role: RoleName, shade = 0): string => {
    const color = colorOfValue({ kind: 'role', role, shade }, palette);
    return color ? hexOf(color) : 'none';
  };

  it('is the one set by hand, else derived; a swatch and a site of one lighting stay as they are', () => {
    const inverted = paletteIn(lit, 'inverted');
    expect(hex(inverted, 'second')).toBe(hex(lit, 'ground', -8));
    expect(hex(inverted, 'ground')).not.toBe('#f7f3e9');
    expect(hex(paletteIn(PALETTE, 'inverted'), 'ground')).toBe('#f7f3e9');
    expect(hex(inverted, 'link')).toBe('none');
    expect(colorOfValue({ kind: 'swatch', swatchId: 1, shade: 0 }, inverted)).toEqual(colorOfCss('#f7f3e9'));
  });

  it('is stepped towards what it meets, or away from it, as in the first', () => {
    const inverted = paletteIn(lit, 'inverted');
    // The ground's darker shade is nearer the ink; inverted, that is a lighter one.
    const lightness = (css: string): number => new Reference(css).to('oklch').l ?? 0;
    expect(lightness(hex(lit, 'ground', -8))).toBeLessThan(lightness(hex(lit, 'ground')));
    expect(lightness(hex(inverted, 'ground', -8))).toBeGreaterThan(lightness(hex(inverted, 'ground')));
  });
});
