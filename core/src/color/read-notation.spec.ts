import { colorOfCss } from '../veneer/palette.js';
import { hexOf, readColorNotation } from './read-notation.js';

describe('readColorNotation', () => {
  // What people type and paste (common practice); notations with two readings give both.
  const rows: readonly (readonly [input: string, readings: readonly string[]])[] = [
    ['#b4582a', ['#b4582a']],
    ['b4582a', ['#b4582a']],
    ['B4582A', ['#b4582a']],
    ['#abc', ['#abc']],
    ['abc', ['#abc']],
    ['#12345678', ['#12345678']],
    ['rgb(40, 90, 160)', ['rgb(40, 90, 160)']],
    ['40, 90, 160', ['#285aa0']],
    ['40 90 160', ['#285aa0']],
    ['40;90;160', ['#285aa0']],
    ['(40, 90, 160)', ['#285aa0']],
    ['32 47 61', ['#202f3d', '#324761']],
    ['324761', ['#324761', '#202f3d']],
    ['r: 40 g: 90 b: 160', ['#285aa0']],
    ['r=40, g=90, b=160', ['#285aa0']],
    ['180-88-42', ['#b4582a']],
    ['180|88|42', ['#b4582a']],
    ['180 | 88 | 42', ['#b4582a']],
    ['180088042', ['#b4582a']],
    ['r180 g88 b42', ['#b4582a']],
    ['999088042', []],
    ['color: #b4582a;', ['#b4582a']],
    ['background-color: rgb(1 2 3) !important;', ['rgb(1 2 3)']],
    ['#b4582a;', ['#b4582a']],
    ['willow: #b4582a', ['#b4582a']],
    ['50% 20% 10%', ['#80331a']],
    ['hsl(120 50% 50%)', ['hsl(120 50% 50%)']],
    ['hwb(20 10% 10%)', ['hwb(20 10% 10%)']],
    ['oklch(0.55 0.13 45)', ['oklch(0.55 0.13 45)']],
    ['lab(50 20 30)', ['lab(50 20 30)']],
    ['RebeccaPurple', ['rebeccapurple']],
    ['transparent', ['transparent']],
    ['', []],
    ['   ', []],
    ['nonsense', []],
    ['300 20 20', []],
    ['#12345', []],
    ['currentcolor', []],
    ['40 90', []],
    ['url(x)', []],
    ['x'.repeat(300), []],
    ['</style>', []],
  ];
  for (const [input, readings] of rows) {
    it('takes a function that no standard names for no colour', () => {
      for (const text of [
        'rb(1 2 3 / 50%)',
        'colour(1 2 3)',
        'rgb:hover(1 2 3 / 50',
        'toString(1 2 3)',
        'calc(1 2 3)',
        `rgb(${'var(--x,+'.repeat(400)} 1 2)`,
      ]) {
        expect(colorOfCss(text)).withContext(text).toBeNull();
        expect(() => readColorNotation(text))
          .withContext(text)
          .not.toThrow();
      }
    });

    it(`${JSON.stringify(input.slice(0, 40))} reads as ${readings.join(' or ') || 'no colour'}`, () => {
      expect(readColorNotation(input).map(({ css }) => css)).toEqual([...readings]);
    });
  }

  it('says how it read', () => {
    expect(readColorNotation('32 47 61').map(({ as }) => as)).toEqual(['red, green, blue: 32 47 61', '6 hex digits']);
    expect(hexOf(readColorNotation('rgb(1 2 3 / 50%)')[0].color)).toBe('#01020380');
  });
});
