import { createLocator } from './source-range.js';

describe('createLocator', () => {
  // Source: CSS Syntax 3 §3.3, the line ends that preprocessing folds into one.
  const rows: readonly (readonly [text: string, offset: number, line: number, column: number])[] = [
    ['a\nb', 0, 1, 1],
    ['a\nb', 1, 1, 2],
    ['a\nb', 2, 2, 1],
    ['a\r\nb', 3, 2, 1],
    ['a\rb', 2, 2, 1],
    ['a\fb', 2, 2, 1],
    ['a\n\nb', 3, 3, 1],
    ['', 0, 1, 1],
    ['first\nsecond line\nthird', 13, 2, 8],
  ];
  for (const [text, offset, line, column] of rows) {
    it(`puts ${offset} of ${JSON.stringify(text)} at ${line}:${column}`, () => {
      expect(createLocator(text)(offset)).toEqual({ offset, line, column });
    });
  }
});
