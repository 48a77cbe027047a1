import { compileVeneer } from './compile-veneer.js';
import type { Override } from './override.js';
import { colorOfValue } from './override-value.js';
import { customPropertyOf } from './custom-property.js';
import { slug } from './palette-names.js';
import type { Palette } from './palette.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Pale Réed', css: '#eef4dd' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ring', swatchId: 1, shade: -12 },
  ],
};
const PARTS = [
  { id: 1, name: 'Booking form' },
  { id: 2, name: 'Footer */ a{}' },
];

function override(some: Partial<Override>): Override {
  return {
    id: 'o',
    partId: 1,
    pageId: 1,
    element: 1,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'role', role: 'accent', shade: 0 },
    selector: '.a',
    important: false,
    ...some,
  };
}

describe('compileVeneer', () => {
  const compile = (overrides: readonly Override[]): string =>
    compileVeneer(overrides, { palette: PALETTE, parts: PARTS, prefix: 'brand' });

  it('is empty without overrides', () => {
    expect(compile([])).toBe('');
  });

  it('writes the palette first, then a section a part, one rule a selector, states in order', () => {
    const css = compile([
      override({
        id: '1',
        state: 'active',
        selector: '.a:active',
        value: { kind: 'role', role: 'accent', shade: -12 },
      }),
      override({ id: '2', state: 'hover', selector: '.a:hover', value: { kind: 'swatch', swatchId: 1, shade: -12 } }),
      override({ id: '3', property: 'background-color', value: { kind: 'literal', css: 'red' }, important: true }),
      override({ id: '4' }),
      override({ id: '5', state: 'visited', selector: '.a:visited' }),
      override({ id: '6', partId: 2, selector: '.f', element: 9 }),
      override({ id: '7', partId: null, selector: 'a[href]' }),
    ]);
    expect(css).toBe(
      [
        '/* Palette */',
        ':root {',
        '  --brand-accent: #b4582a;',
        '  --brand-accent-d12: #8a3600;',
        '  --brand-willow-d12: #8a3600;',
        '}',
        '',
        '/* Booking form */',
        '.a {',
        '  color: var(--brand-accent);',
        '  background-color: red !important;',
        '}',
        '.a:visited {',
        '  color: var(--brand-accent);',
        '}',
        '.a:hover {',
        '  color: var(--brand-willow-d12);',
        '}',
        '.a:active {',
        '  color: var(--brand-accent-d12);',
        '}',
        '',
        '/* Footer * / a{} */',
        '.f {',
        '  color: var(--brand-accent);',
        '}',
        '',
        '/* Everywhere */',
        'a[href] {',
        '  color: var(--brand-accent);',
        '}',
        '',
      ].join('\n'),
    );
  });

  // Source: Media Queries 4 §7.2, `hover`; the order of states stays that of CSS 2.2 §5.11.3.
  it('keeps what is for hover to devices that hover where it is asked to, in its place', () => {
    const wide = { min: 600, max: null };
    const overrides = [
      override({ id: '1', selector: '.a' }),
      override({ id: '2', selector: '.a:hover', state: 'hover' }),
      override({ id: '3', selector: '.b:hover .a', state: 'parent-hover' }),
      override({ id: '4', selector: '.a:active', state: 'active' }),
      override({ id: '5', selector: '.a:hover', state: 'hover', widths: wide }),
      override({ id: '6', selector: '.a', widths: wide }),
    ];
    const css = compileVeneer(overrides, {
      palette: PALETTE,
      parts: PARTS,
      prefix: 'brand',
      asValues: true,
      hoverOnly: true,
    });
    const color = '  color: #b4582a;';
    expect(css).toBe(
      [
        '/* Booking form */',
        '.a {',
        color,
        '}',
        '@media (hover: hover) {',
        '  .b:hover .a {',
        `  ${color}`,
        '  }',
        '  .a:hover {',
        `  ${color}`,
        '  }',
        '}',
        '.a:active {',
        color,
        '}',
        '@media (min-width: 600px) {',
        '  .a {',
        `  ${color}`,
        '  }',
        '}',
        '@media (hover: hover) and (min-width: 600px) {',
        '  .a:hover {',
        `  ${color}`,
        '  }',
        '}',
        '',
      ].join('\n'),
    );
    expect(compileVeneer(overrides, { palette: PALETTE, parts: PARTS, prefix: 'brand' })).not.toContain('(hover');
  });

  it('gives the same bytes whatever the order it is given', () => {
    const overrides = Array.from({ length: 40 }, (_, i) =>
      override({
        id: String(i),
        element: i % 7,
        selector: `.c${i % 9}`,
        property: i % 2 ? 'color' : 'background-color',
        pageId: 1 + (i % 3),
      }),
    );
    const unique = overrides.filter(
      (entry, i) =>
        overrides.findIndex((other) => other.selector === entry.selector && other.property === entry.property) === i,
    );
    expect(compile([...unique].reverse())).toBe(compile(unique));
  });
});

describe('the palette', () => {
  it('names custom properties by role or swatch and shade', () => {
    expect(customPropertyOf({ kind: 'swatch', swatchId: 2, shade: 8 }, PALETTE, { prefix: 'or' })?.name).toBe(
      '--or-pale-reed-l8',
    );
    expect(customPropertyOf({ kind: 'role', role: 'accent', shade: -12 }, PALETTE, { prefix: 'or' })).toEqual({
      name: '--or-accent-d12',
      css: '#8a3600',
    });
    expect(customPropertyOf({ kind: 'literal', css: 'red' }, PALETTE, { prefix: 'or' })).toBeNull();
    expect(slug('  Élan & Co. ')).toBe('elan-co');
  });

  it('adds a shade to that of the role', () => {
    expect(colorOfValue({ kind: 'role', role: 'ring', shade: 0 }, PALETTE)).toEqual(
      colorOfValue({ kind: 'swatch', swatchId: 1, shade: -12 }, PALETTE),
    );
    expect(colorOfValue({ kind: 'role', role: 'link', shade: 0 }, PALETTE)).toBeNull();
    expect(colorOfValue({ kind: 'literal', css: 'nonsense' }, PALETTE)).toBeNull();
  });
});
