import { contrastRatio } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import { hexOf } from '../color/read-notation.js';
import { VISIONS, seenAs } from '../color/vision.js';
import { channelsIn } from '../values/convert-color.js';
import { BLACK } from '../values/color.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';
import { notationsOf } from './notations.js';
import { pairMatrix, paletteAsSeen } from './pair-matrix.js';

const of = (css: string) => colorOfCss(css) ?? BLACK;
const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Paper', css: '#ffffff' },
    { id: 2, name: 'Grey', css: '#777777' },
    { id: 3, name: 'Ink', css: '#000000' },
    { id: 4, name: 'Reed', css: '#8a8a2a' },
    { id: 5, name: 'Rust', css: '#b0702a' },
  ],
  roles: [
    { role: 'ground', swatchId: 1, shade: 0 },
    { role: 'ink', swatchId: 3, shade: 0 },
    { role: 'soft-ink', swatchId: 2, shade: 0 },
    { role: 'line', swatchId: 2, shade: 40 },
    { role: 'panel', swatchId: 3, shade: 0 },
  ],
};

describe('nearestPassingShade', () => {
  it('reaches the ratio by the smallest move in ΔE2000, the hue held', () => {
    for (const [css, ground, wanted] of [
      ['#b4582a', '#f7f3e9', 4.5],
      ['#6d8a35', '#ffffff', 4.5],
      ['#0f4a48', '#22302f', 3],
      ['#a3262a', '#000000', 7],
    ] as const) {
      const found = nearestPassingShade(of(css), of(ground), wanted);
      expect(found && contrastRatio(found.color, of(ground))).toBeGreaterThanOrEqual(wanted);
      // Brute force over every 8-bit shade of the hue in half-point steps finds nothing nearer.
      const hue = channelsIn(of(css), 'oklch')[2];
      expect(Math.abs(((channelsIn(found?.color ?? BLACK, 'oklch')[2] - hue + 540) % 360) - 180)).toBeLessThan(4);
      expect(found?.moved).toBeCloseTo(deltaE2000(of(css), found?.color ?? BLACK), 8);
    }
  });

  it('leaves what passes, and says when nothing does', () => {
    expect(nearestPassingShade(of('#000'), of('#fff'), 7)).toEqual({ color: of('#000'), moved: 0 });
    expect(nearestPassingShade(of('#777'), of('#777'), 7)).toBeNull();
  });
});

describe('seenAs', () => {
  // Each row of Machado's matrices sums to one, so greys stay what they are (the paper, §5).
  it('leaves greys alone and turns colours', () => {
    for (const vision of VISIONS) {
      for (const css of ['#000000', '#808080', '#ffffff'])
        expect(hexOf(seenAs(of(css), vision)))
          .withContext(`${css} ${vision}`)
          .toBe(css);
    }
    // Red and green of equal luminance come together for deuteranopes, and stay apart for tritanopes.
    const apart = deltaE2000(of('#b0702a'), of('#8a8a2a'));
    expect(deltaE2000(seenAs(of('#b0702a'), 'deuteranopia'), seenAs(of('#8a8a2a'), 'deuteranopia'))).toBeLessThan(
      apart / 3,
    );
    expect(deltaE2000(seenAs(of('#b0702a'), 'tritanopia'), seenAs(of('#8a8a2a'), 'tritanopia'))).toBeGreaterThan(
      apart / 2,
    );
  });

  // Severity 1.0 on the primaries, worked out from the published rows: linear 0.152286 is 0.4278 in sRGB, and so on.
  it('gives the published matrices’ columns for the primaries', () => {
    expect(hexOf(seenAs(of('#ff0000'), 'protanopia'))).toBe('#6d5f00');
    expect(hexOf(seenAs(of('#ff0000'), 'deuteranopia'))).toBe('#a39000');
    expect(hexOf(seenAs(of('#0000ff'), 'tritanopia'))).toBe('#006b96');
  });
});

describe('pairMatrix', () => {
  it('gives ratio, level and the nearest remedy of each pair that can meet', () => {
    const pairs = pairMatrix(PALETTE);
    const find = (text: string, ground: string) => pairs.find((pair) => pair.text === text && pair.ground === ground);
    expect(find('ink', 'ground')).toEqual(
      jasmine.objectContaining({ ratio: 21, level: 'AAA', standing: 'holds', remedy: null }),
    );
    // #777777 on white is the best-known near miss: 4.48.
    const miss = find('soft-ink', 'ground');
    expect([miss?.level, miss?.standing]).toEqual(['AA large', 'look']);
    expect(miss?.remedy && contrastRatio(of(miss.remedy.hex), of('#fff'))).toBeGreaterThanOrEqual(4.5);
    expect(miss?.remedy?.moved).toBeLessThan(2);
    expect(find('ink', 'panel')?.level).toBe('same');
    expect(find('line', 'ground')?.level).toBe('fails');
    expect(find('link', 'ground')).toBeUndefined();
  });
});

describe('paletteAsSeen', () => {
  it('names swatches that come together', () => {
    const seen = paletteAsSeen(PALETTE);
    expect(seen.map(({ vision }) => vision)).toEqual([...VISIONS]);
    expect(seen[1].merging.map(({ a, b }) => `${a} ${b}`)).toEqual(['Reed Rust']);
    expect(seen[2].merging).toEqual([]);
  });
});

describe('notationsOf', () => {
  it('writes each notation so that it reads back as the same colour', () => {
    for (const css of ['#b4582a', '#0f4a48', '#ffffff', '#000000', 'rgb(180 88 42 / 40%)']) {
      for (const { name, css: written } of notationsOf(of(css))) {
        expect(deltaE2000(of(written), of(css)))
          .withContext(`${name} of ${css}: ${written}`)
          .toBeLessThan(0.5);
        expect(of(written).alpha)
          .withContext(written)
          .toBeCloseTo(of(css).alpha ?? 0, 2);
      }
    }
  });
});
