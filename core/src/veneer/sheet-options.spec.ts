import { compileVeneer, type CompileOptions } from './compile-veneer.js';
import { customPropertyOf, valueOfCustomProperty } from './custom-property.js';
import { compareProperties } from './property-order.js';
import { dressSite } from '../site/site-model.js';
import { openOnePage } from '../testing/one-page-site.js';
import { readBackDifference } from '../site/read-back.js';
import { readSheetSteps, sheetToEdit } from '../sheet-text/read-sheet.js';
import { toEnd } from '../to-end.js';
import type { Override } from './override.js';
import type { OverrideValue } from './override-value.js';

const OPTIONS: CompileOptions = {
  prefix: 'brand',
  parts: [],
  palette: {
    swatches: [
      { id: 1, name: 'Willow', css: '#b4582a' },
      { id: 2, name: 'Reed a40', css: '#6d8a35' },
    ],
    roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
  },
};
const override = (property: string, value: OverrideValue): Override => ({
  id: property,
  partId: null,
  pageId: 1,
  element: 3,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property,
  value,
  selector: 'p',
  important: false,
});
const SHEER = { kind: 'role', role: 'accent', shade: -12, alpha: 0.125 } as const;
const OVERRIDES = [
  override('color', { kind: 'role', role: 'accent', shade: 0 }),
  override('border-top-color', { kind: 'literal', css: 'red' }),
  override('border-color', SHEER),
  override('background-image', {
    kind: 'composite',
    css: 'linear-gradient({0}, {1})',
    colors: [SHEER, { kind: 'literal', css: '#fff' }],
  }),
];

describe('how a sheet is written', () => {
  it('has flat properties for sheer colours where an older engine is named, and no mixing', () => {
    const flat = { ...OPTIONS, flatFor: 'an engine of 2021' };
    const css = compileVeneer(OVERRIDES, flat);
    expect(compileVeneer(OVERRIDES, OPTIONS)).toContain(
      'color-mix(in srgb, var(--brand-accent-d12) 12.5%, transparent)',
    );
    expect(css).not.toContain('color-mix');
    expect(css).toMatch(/--brand-accent-d12-a12_5: #[0-9a-f]{6}20;/);
    expect(css).toContain('linear-gradient(var(--brand-accent-d12-a12_5), #fff)');
    expect(readBackDifference(css, OVERRIDES, flat)).toBeNull();
    const name = customPropertyOf(SHEER, flat.palette, flat)?.name ?? '';
    expect(valueOfCustomProperty(name, flat.palette, flat)).toEqual(SHEER);
    // A swatch whose name reads like a sheer shade is none.
    const reed = { kind: 'swatch', swatchId: 2, shade: 0 } as const;
    expect(customPropertyOf(reed, flat.palette, flat)?.name).toBe('--brand-reed-a-40');
    expect(valueOfCustomProperty('--brand-reed-a-40', flat.palette, flat)).toEqual(reed);
  });

  it('is read back as it is when typed in', () => {
    const page = openOnePage('p { color: red }', '<p>x</p>', OPTIONS.palette);
    const site = dressSite({ ...page, source: { ...page.source, flatFor: 'old' } }, OVERRIDES, OPTIONS.palette);
    const text = sheetToEdit(site);
    const edited = text.replace('  color: var(--brand-accent);', '  color: var(--brand-accent-d12-a12_5);');
    expect(edited).not.toBe(text);
    expect(toEnd(readSheetSteps(site, edited, () => 'n')).put.map(({ value }) => value)).toEqual([SHEER]);
  });

  // CSS Cascade 5 §4.1: a shorthand sets all its longhands, so that sides are written after it.
  it('has its lines by what is seen first or by their letters, sides after their group in either', () => {
    const lines = (isByLetters: boolean): string[] =>
      [...compileVeneer(OVERRIDES, { ...OPTIONS, isByLetters }).matchAll(/^ {2}([a-z][\w-]+):/gm)].map(
        ([, name]) => name,
      );
    expect(lines(false)).toEqual(['color', 'background-image', 'border-color', 'border-top-color']);
    expect(lines(true)).toEqual(['background-image', 'border-color', 'border-top-color', 'color']);
    for (const isByLetters of [true, false])
      for (const side of [
        'border-bottom-color',
        'border-left-width',
        'border-top-left-radius',
        'border-bottom-right-radius',
      ])
        expect(compareProperties(side.replace(/^border-.*-/, 'border-'), side, isByLetters))
          .withContext(side)
          .toBeLessThan(0);
  });
});
