import { spoken } from '@upper-veneer/words';
import { wholenessProblem } from './whole-text.js';

describe('wholenessProblem', () => {
  // What the end of a text closes: CSS Syntax 3 §4.3.3 to §4.3.6 and §5.4.8.
  const open: readonly string[] = [
    '(',
    'url(abc',
    'rgb(1,2,3',
    '.x/*',
    '"a',
    "'a\\'",
    '[a',
    'a)',
    '}',
    'a\\',
    'url(a"b)',
    '"a\nb"',
    'a\u0000',
    'a\u0007',
    'calc((1px)',
    'url(a\\)',
    '/*/',
  ];
  for (const css of open) {
    it(`refuses ${JSON.stringify(css)}`, () => {
      expect(spoken(wholenessProblem(css))).not.toBeNull();
    });
  }

  const whole: readonly string[] = [
    '',
    'red',
    'url(abc)',
    '"a\\""',
    '"("',
    'a\\\\',
    '/* ( */',
    'rgb(1 2 3 / 50%)',
    '[data-x=")"]',
    "'\\\\'",
    'url("a b")',
    'a\tb\nc',
  ];
  for (const css of whole) {
    it(`takes ${JSON.stringify(css)}`, () => {
      expect(spoken(wholenessProblem(css))).toBeNull();
    });
  }
});
