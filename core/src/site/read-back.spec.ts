import { compileVeneer, type CompileOptions } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';
import { readBackDifference } from './read-back.js';

const OPTIONS: CompileOptions = {
  prefix: 'brand',
  palette: { swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }], roles: [] },
  parts: [{ id: 1, name: 'Form */ x' }],
};
const override = (id: string, selector: string, css: string, more: Partial<Override> = {}): Override => ({
  id,
  partId: 1,
  pageId: 1,
  element: 1,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css },
  selector,
  important: false,
  ...more,
});

describe('readBackDifference', () => {
  it('finds nothing in sheets that say what they mean', () => {
    const overrides = [
      override('a', '.a  >  .b', 'red'),
      override('b', '.a:hover', 'blue', { state: 'hover', important: true }),
      override('c', '[title="</style>{"]', 'teal'),
      override('d', ':root', '1px', { property: '--gap' }),
      override('e', '.c', 'red', { value: { kind: 'swatch', swatchId: 1, shade: 0 }, widths: { min: null, max: 600 } }),
      override('f', '.e/* note */.f', 'red'),
      override('g', '.g::before', '"</b>"', { property: '--label' }),
    ];
    const css = compileVeneer(overrides, OPTIONS);
    expect(css).not.toContain('</');
    expect(readBackDifference(css, overrides, OPTIONS)).toBeNull();
    expect(readBackDifference('', [], OPTIONS)).toBeNull();
  });

  // What swallows its neighbours: CSS Syntax 3 §5.4.
  for (const [what, spoiled] of [
    ['a value left open', override('x', '.x', '(', { property: '--x' })],
    ['a comment left open', override('x', '.x/*', 'red')],
    ['a second declaration', override('x', '.x', 'red; fill: blue')],
    ['a selector that is none', override('x', '.x:nope', 'red')],
  ] as const) {
    it(`names the rule with ${what}`, () => {
      const overrides = [override('a', '.a', 'red'), spoiled, override('z', '.z', 'blue')];
      expect(readBackDifference(compileVeneer(overrides, OPTIONS), overrides, OPTIONS)).toBe(spoiled.selector);
    });
  }
});
