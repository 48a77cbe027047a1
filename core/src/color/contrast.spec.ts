import { rgb8 } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { RATIOS, compositeOver, contrastRatio, relativeLuminance } from './contrast.js';
import { hexOf } from './read-notation.js';

const of = (css: string) => colorOfCss(css) ?? rgb8(0, 0, 0);

describe('contrastRatio', () => {
  // WCAG 2.2, definition of relative luminance and contrast ratio: the ends of the scale follow from the formula.
  it('runs from 1 to 21', () => {
    expect(contrastRatio(of('black'), of('white'))).toBe(21);
    expect(contrastRatio(of('#777'), of('#777'))).toBe(1);
    expect(relativeLuminance(of('white'))).toBeCloseTo(1, 10);
    expect(relativeLuminance(of('red'))).toBeCloseTo(0.2126, 10);
    expect(relativeLuminance(of('lime'))).toBeCloseTo(0.7152, 10);
    expect(relativeLuminance(of('blue'))).toBeCloseTo(0.0722, 10);
  });

  // Well-known border cases on white (common practice): the last grey that passes and the first that fails.
  const borders: readonly (readonly [css: string, wanted: number, passes: boolean, ratio: number])[] = [
    ['#767676', RATIOS.text, true, 4.54],
    ['#777777', RATIOS.text, false, 4.48],
    ['#949494', RATIOS.largeText, true, 3.03],
    ['#959595', RATIOS.largeText, false, 2.99],
    ['#595959', RATIOS.enhanced, true, 7.0],
    ['#5a5a5a', RATIOS.enhanced, false, 6.9],
    ['#0000ee', RATIOS.text, true, 9.4],
    ['#ff0000', RATIOS.text, false, 4.0],
  ];
  for (const [css, wanted, passes, ratio] of borders) {
    it(`${css} on white is ${ratio} and ${passes ? 'reaches' : 'misses'} ${wanted}`, () => {
      const found = contrastRatio(of(css), of('white'));
      expect(Math.floor(found * 100) / 100).toBeCloseTo(ratio, 1);
      expect(found >= wanted).toBe(passes);
    });
  }

  it('does not round a ratio up to the bar', () => {
    expect(contrastRatio(of('#777777'), of('white')).toFixed(1)).toBe('4.5');
    expect(contrastRatio(of('#777777'), of('white')) >= 4.5).toBe(false);
  });
});

describe('compositeOver', () => {
  // Source: CSS Compositing 1 §5.1, co = cs·αs + cb·αb·(1 − αs).
  const rows: readonly (readonly [above: string, below: string, opacity: number, hex: string])[] = [
    ['rgb(0 0 0 / 50%)', 'white', 1, '#808080'],
    ['white', 'black', 0.25, '#404040'],
    ['rgb(255 0 0 / 0)', 'lime', 1, '#00ff00'],
    ['red', 'lime', 1, '#ff0000'],
    ['rgb(255 0 0 / 50%)', 'rgb(0 0 255 / 100%)', 1, '#800080'],
  ];
  for (const [above, below, opacity, hex] of rows) {
    it(`${above} at ${opacity} over ${below} is ${hex}`, () => {
      expect(hexOf(compositeOver(of(above), of(below), opacity))).toBe(hex);
    });
  }
});
