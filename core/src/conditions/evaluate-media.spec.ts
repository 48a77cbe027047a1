import { browserMedia } from '../testing/browser-reference.js';
import { DESKTOP } from './environment.js';
import { evaluateMedia } from './evaluate-media.js';

const AT_600 = { ...DESKTOP, width: 600, height: 800 };

describe('evaluateMedia', () => {
  // Source: Media Queries 4 §2.4 to §3 and its examples; viewport 600 by 800.
  const rows: readonly (readonly [query: string, holds: boolean])[] = [
    ['', true],
    ['all', true],
    ['screen', true],
    ['print', false],
    ['not print', true],
    ['not all', false],
    ['only screen', true],
    ['screen, print', true],
    ['print, (min-width: 100px)', true],
    ['(min-width: 600px)', true],
    ['(min-width: 601px)', false],
    ['(max-width: 600px)', true],
    ['(max-width: 599.98px)', false],
    ['(width: 600px)', true],
    ['(width >= 600px)', true],
    ['(width > 600px)', false],
    ['(600px <= width)', true],
    ['(500px < width < 700px)', true],
    ['(500px < width <= 599px)', false],
    ['(700px > width > 500px)', true],
    ['(min-width: 30em)', true],
    ['(min-width: 38em)', false],
    ['(min-width: 37.5rem)', true],
    ['screen and (min-width: 500px) and (max-width: 700px)', true],
    ['screen and (min-width: 500px) and (max-width: 550px)', false],
    ['not screen and (min-width: 700px)', true],
    ['not (min-width: 700px)', true],
    ['(min-width: 700px) or (orientation: portrait)', true],
    ['(orientation: landscape)', false],
    ['(orientation)', true],
    ['((min-width: 500px) and (not (max-width: 550px)))', true],
    ['(min-width: 500px) and (max-width: 700px) or (color)', false],
    ['(prefers-color-scheme: dark)', false],
    ['(prefers-color-scheme: light)', true],
    ['(prefers-reduced-motion: reduce)', false],
    ['(prefers-reduced-motion)', false],
    ['(prefers-reduced-motion: no-preference)', true],
    ['(hover: hover)', true],
    ['(hover)', true],
    ['(hover: none)', false],
    ['(pointer: fine)', true],
    ['(any-pointer: coarse)', false],
    ['(min-resolution: 1dppx)', true],
    ['(min-resolution: 2dppx)', false],
    ['(min-resolution: 96dpi)', true],
    ['(-webkit-min-device-pixel-ratio: 2)', false],
    ['(aspect-ratio: 3/4)', true],
    ['(min-aspect-ratio: 1/1)', false],
    ['(color)', true],
    ['(monochrome)', false],
    ['(unknown-feature)', false],
    ['not (unknown-feature: 1)', false],
    ['(min-width: nonsense)', false],
    ['(width: 10)', false],
    ['(min-width: 0)', true],
    ['&', false],
    ['screen and', false],
    ['and (min-width: 1px)', false],
    ['(forced-colors: active)', false],
    ['(min-width: calc(500px + 50px))', true],
    ['(scripting: enabled)', true],
    ['(grid: 0)', true],
    ['(min-height: 50.1em)', false],
    ['SCREEN AND (MIN-WIDTH: 1PX)', true],
    ['not', false],
    ['or', false],
    ['not (not (color))', true],
    ['((color) or (width)) and (grid: 0)', true],
    ['(color) or not (width)', false],
    ['(color) and(width)', false],
    ['screen and(color)', false],
    ['screen or (color)', false],
    ['(width:10px', false],
    ['(400px < width > 300px)', false],
    ['(600px = width)', true],
    ['(min-width: max(100px, 5em))', true],
    ['(width: -1px)', false],
    ['(width > -1px)', true],
    ['(color),,(width)', true],
    ['screen and (color), &', true],
    [`${'('.repeat(50)}color${')'.repeat(50)}`, true],
  ];
  for (const [query, holds] of rows) {
    it(`${query || 'nothing'} ${holds ? 'holds' : 'does not hold'}`, () => {
      expect(evaluateMedia(query, AT_600)).toBe(holds);
      const reference = browserMedia(query);
      // Headless Chromium has its own viewport, pointer and hover; where those decide, only the rows count.
      if (reference && !/hover|pointer|resolution|ratio: 2/.test(query)) {
        expect(evaluateMedia(query, { ...DESKTOP, width: reference.width, height: reference.height })).toBe(
          reference.matches,
        );
      }
    });
  }
});
