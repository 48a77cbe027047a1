import { spoken } from '@upper-veneer/words';
import { discardedDeclarations } from './discarded-declarations.js';
import { parsePage } from './page.js';

describe('discardedDeclarations', () => {
  it('lists what a browser throws away, with code, reason and place', () => {
    const page = parsePage(
      '<!doctype html><style>p {\n  color: red;\n  colour: red;\n  width: -1px;\n}\n@media print { b { font: 1px } }</style><p>',
    );
    expect(spoken(discardedDeclarations(page).map(({ code, reason, loc }) => [code, reason, loc?.start.line]))).toEqual(
      [
        ['unknown-property', 'Unknown property "colour"', 3],
        ['invalid-declaration', '"-1px" is no value of "width"', 4],
        ['invalid-declaration', '"1px" is no value of "font"', 6],
      ],
    );
  });
});
