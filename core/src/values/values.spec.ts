import { BLACK, rgb8 } from './color.js';
import { computeLengths, formatNumber } from './compute-length.js';
import { evaluateMath } from './math.js';
import { colorsInImages, readShadows, serializeImages, serializeShadows } from './serialize-paint.js';
import { serializeColor } from './serialize-color.js';
import { absoluteLengthInPx, angleInDegrees } from './units.js';

const LENGTHS = { em: () => 20, rem: () => 16, viewport: { width: 1000, height: 500 } };
const PAINT = { scheme: 'light' as const, currentColor: rgb8(1, 2, 3), lengths: LENGTHS };

describe('lengths', () => {
  // Source: CSS Values 4 §6.2, the fixed ratios of absolute units, and §6.1 for relative ones; em 20, rem 16, viewport 1000 by 500.
  const rows: readonly (readonly [text: string, expected: string])[] = [
    ['1in', '96px'],
    ['2.54cm', '96px'],
    ['25.4mm', '96px'],
    ['101.6q', '96px'],
    ['72pt', '96px'],
    ['6pc', '96px'],
    ['1.5em', '30px'],
    ['2rem', '32px'],
    ['10vw', '100px'],
    ['10vh', '50px'],
    ['10vmin', '50px'],
    ['10vmax', '100px'],
    ['-0.5em', '-10px'],
    ['0', '0px'],
    ['50%', '50%'],
    ['auto', 'auto'],
    ['1em 2px', '20px 2px'],
    ['calc(1em + 4px)', '24px'],
    ['min(1em, 5px)', '5px'],
    ['clamp(1px, 10vw, 3em)', '60px'],
    ['calc(50% - 1em)', 'calc(50% - 20px)'],
    ['2ch', '2ch'],
    ['.1in', '9.6px'],
    ['1e1px', '10px'],
    ['calc(2 * (1px + 1em))', '42px'],
  ];
  for (const [text, expected] of rows)
    it(`${text} is ${expected}`, () => expect(computeLengths(text, LENGTHS)).toBe(expected));

  it('know every absolute unit and no other', () => {
    expect(absoluteLengthInPx(1, 'px')).toBe(1);
    expect(absoluteLengthInPx(1, 'em')).toBeNull();
    expect([
      angleInDegrees(1, 'turn'),
      angleInDegrees(100, 'grad'),
      angleInDegrees(Math.PI, 'rad'),
      angleInDegrees(1, 'px'),
    ]).toEqual([360, 90, 180, null]);
  });

  it('write numbers as CSSOM does', () => {
    expect([formatNumber(13.33333333), formatNumber(0.1 + 0.2), formatNumber(-0), formatNumber(1234567)]).toEqual([
      '13.3333',
      '0.3',
      '0',
      '1.23457e+06',
    ]);
  });

  it('leave alone what cannot be known', () => {
    expect(evaluateMath('calc(1px + var(--x))')).toContain('var(--x)');
    expect(evaluateMath('plain')).toBe('plain');
  });
});

describe('images and shadows', () => {
  // Expected texts as Chromium's getComputedStyle writes them (CSS Images 4 §3, Backgrounds 3 §7.1).
  const images: readonly (readonly [text: string, expected: string])[] = [
    ['none', 'none'],
    ['linear-gradient(red,blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'linear-gradient(to right, currentcolor 10%, transparent 2em)',
      'linear-gradient(to right, rgb(1, 2, 3) 10%, rgba(0, 0, 0, 0) 40px)',
    ],
    [
      'radial-gradient(circle at top left, #fff, #000)',
      'radial-gradient(circle at 0% 0%, rgb(255, 255, 255), rgb(0, 0, 0))',
    ],
    ['radial-gradient(at center, red, blue)', 'radial-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['url(a.png), linear-gradient(red, red)', 'url("a.png"), linear-gradient(rgb(255, 0, 0), rgb(255, 0, 0))'],
    ['conic-gradient(from 90deg, red, blue)', 'conic-gradient(from 90deg, rgb(255, 0, 0), rgb(0, 0, 255))'],
  ];
  for (const [text, expected] of images) it(text, () => expect(serializeImages(text, PAINT)).toBe(expected));

  it('name the colours inside an image in order', () => {
    expect(colorsInImages('linear-gradient(red, rgb(0 0 0 / 50%)), url(red.png)', PAINT).map(serializeColor)).toEqual([
      'rgb(255, 0, 0)',
      'rgba(0, 0, 0, 0.5)',
    ]);
    expect(colorsInImages('none', PAINT)).toEqual([]);
  });

  const shadows: readonly (readonly [text: string, kind: 'box' | 'text', expected: string])[] = [
    ['none', 'box', 'none'],
    ['0 1px 2px red', 'box', 'rgb(255, 0, 0) 0px 1px 2px 0px'],
    ['inset 1em 0', 'box', 'rgb(1, 2, 3) 20px 0px 0px 0px inset'],
    ['red 1px 2px', 'text', 'rgb(255, 0, 0) 1px 2px 0px'],
    ['0 0 1px, 0 0 2px blue', 'text', 'rgb(1, 2, 3) 0px 0px 1px, rgb(0, 0, 255) 0px 0px 2px'],
  ];
  for (const [text, kind, expected] of shadows)
    it(`${kind}-shadow: ${text}`, () => expect(serializeShadows(text, PAINT, kind)).toBe(expected));

  it('read shadows as parts', () => {
    const [shadow] = readShadows('inset 0 2px 4px 1px #000', PAINT, 'box');
    expect([shadow.inset, shadow.lengths, shadow.color]).toEqual([true, ['0px', '2px', '4px', '1px'], BLACK]);
  });
});
