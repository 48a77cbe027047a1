import { spoken } from '@upper-veneer/words';
import { colorOfCss, type Palette } from '../../veneer/palette.js';
import { deltaE2000 } from '../../color/delta-e.js';
import { BLACK } from '../../values/color.js';
import { PALETTE_FORMATS, readPaletteFile } from './palette-file.js';
import { readDesignTokens, writeDesignTokens } from './design-tokens.js';
import { readGpl } from './gpl.js';
import { readCustomProperties, writeCustomProperties } from './custom-properties.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Reed bed', css: 'oklch(0.6 0.11 125)' },
    { id: 3, name: 'Fog', css: 'rgb(255 255 255 / 60%)' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ring', swatchId: 2, shade: -12 },
  ],
};
const apart = (a: string, b: string): number => deltaE2000(colorOfCss(a) ?? BLACK, colorOfCss(b) ?? BLACK);

describe('palette files', () => {
  for (const format of PALETTE_FORMATS) {
    it(`${format.name}: what is written reads back as the same colours under the same names`, () => {
      const text = format.write(PALETTE, { title: 'Osier & Reed', prefix: 'brand' });
      const { colors, problems } = readPaletteFile(`x${format.extension}`, text);
      expect(problems).toEqual([]);
      PALETTE.swatches.forEach(({ name, css }) => {
        const found = colors.find((color) => color.name.toLowerCase().endsWith(name.toLowerCase()));
        expect(found && apart(found.css, css))
          .withContext(`${name} in\n${text}`)
          .toBeLessThan(0.5);
      });
    });
  }

  it('are told apart by what is in them', () => {
    expect(readPaletteFile('x.txt', 'GIMP Palette\n1 2 3 a').colors).toEqual([{ name: 'a', css: '#010203' }]);
    expect(readPaletteFile('x.txt', '{"a":{"$type":"color","$value":"#fff"}}').colors.length).toBe(1);
    expect(readPaletteFile('x.txt', ':root{--a: red}').colors).toEqual([{ name: 'a', css: 'red' }]);
    expect(readPaletteFile('x.css', '').problems.length).toBe(1);
  });
});

describe('design tokens', () => {
  // Source: Design Tokens Color Module 2025.10, the examples of §4 (from memory), and Format Module: groups, inherited types, aliases.
  it('are read with groups and inherited types; aliases give jobs, not colours', () => {
    const { colors, problems } = readDesignTokens(
      JSON.stringify({
        brand: {
          $type: 'color',
          'hot-pink': { $value: { colorSpace: 'srgb', components: [1, 0, 1], alpha: 1, hex: '#ff00ff' } },
          500: { $value: { colorSpace: 'hsl', components: [330, 100, 50] } },
          alias: { $value: '{brand.hot-pink}' },
        },
        space: { $type: 'dimension', s: { $value: { value: 4, unit: 'px' } } },
        old: { $type: 'color', $value: '#0f4a48' },
        wide: { $type: 'color', $value: { colorSpace: 'display-p3', components: [1, 0, 0] } },
        bare: { $type: 'color', $value: { colorSpace: 'oklch', components: [0.7, 0, 'none'], alpha: 0.5 } },
        typeless: { $value: '{old}' },
      }),
    );
    expect(problems).toEqual([]);
    expect(colors.map(({ name }) => name)).toEqual(['brand 500', 'hot pink', 'old', 'wide', 'bare']);
    expect(colors.map(({ css }) => css)).toEqual([
      '#ff0080',
      '#ff00ff',
      '#0f4a48',
      'color(display-p3 1 0 0)',
      '#9e9e9e80',
    ]);
  });

  it('say what is wrong and where, and go on', () => {
    const { colors, problems } = readDesignTokens(
      JSON.stringify({
        a: { $type: 'color', $value: '{b}' },
        b: { $type: 'color', $value: '{a}' },
        c: { $type: 'color', $value: '{nowhere}' },
        d: { $type: 'color', $value: { colorSpace: 'srgb', components: [1, 2] } },
        e: { $type: 'color', $value: 'teal' },
      }),
    );
    expect(colors).toEqual([{ name: 'e', css: 'teal' }]);
    expect(spoken(problems.map(({ where }) => where))).toEqual(['a', 'b', 'c', 'd']);
    expect(spoken(readDesignTokens('{').problems[0].reason)).toContain('not JSON');
    expect(readDesignTokens('[1]').problems.length).toBe(1);
    expect(readDesignTokens('null').problems.length).toBe(1);
    expect(readDesignTokens(`${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}`).colors).toEqual([]);
    expect(
      readDesignTokens('{"__proto__":{"$type":"color","$value":"red"},"constructor":{"$value":1}}').colors.map(
        ({ css }) => css,
      ),
    ).toEqual(['red']);
  });

  it('name a role by its swatch, and a shade by its own value', () => {
    const written = JSON.parse(writeDesignTokens(PALETTE)) as {
      role: Record<string, { $value: unknown; $description?: string }>;
    };
    expect(written.role['accent'].$value).toBe('{swatch.willow}');
    expect(written.role['ring'].$description).toBe('Reed bed, 12 darker');
  });
});

describe('GIMP palettes', () => {
  // The head line, Name, Columns and rows as GIMP 2.10 writes them (from memory).
  it('are read with comments, columns and names of several words', () => {
    const { colors, problems } = readGpl(
      'GIMP Palette\r\nName: River\r\nColumns: 4\r\n# note\r\n180  88  42\tWillow brown\r\n  0   0   0\r\n  0   0   0\tUntitled\r\n300 0 0\tno\r\nteal\r\n',
    );
    expect(colors).toEqual([
      { name: 'Willow brown', css: '#b4582a' },
      { name: '#000000', css: '#000000' },
      { name: '#000000 2', css: '#000000' },
    ]);
    expect(spoken(problems.map(({ where }) => where))).toEqual(['line 8', 'line 9']);
    expect(spoken(readGpl('JASC').problems[0].where)).toBe('line 1');
  });
});

describe('custom properties', () => {
  it('are read, those that only point to another left out, circles named', () => {
    const { colors, problems } = readCustomProperties(
      ':root { --brand-willow: #b4582a; --gap: 4px; --accent: var(--brand-willow); --x: var(--y); --y: var(--x); --z: var(--none, teal) } .a { --in: rgb(1 2 3) } @media print { :root { --p: red } }',
    );
    expect(colors).toEqual([
      { name: 'brand willow', css: '#b4582a' },
      { name: 'z', css: 'teal' },
      { name: 'in', css: 'rgb(1 2 3)' },
      { name: 'p', css: 'red' },
    ]);
    expect(spoken(problems.map(({ where }) => where))).toEqual(['--x', '--y']);
    expect(spoken(readCustomProperties('a { color: red }').problems[0].reason)).toContain('no custom property');
  });

  it('are written with roles leaning on swatches', () => {
    expect(writeCustomProperties({ ...PALETTE, swatches: PALETTE.swatches.slice(0, 2) }, 'brand')).toMatch(
      /^:root \{\n {2}--brand-willow: #b4582a;\n {2}--brand-reed-bed: #[0-9a-f]{6};\n\n {2}\/\* roles \*\/\n {2}--brand-accent: var\(--brand-willow\);\n {2}--brand-ring: #[0-9a-f]{6};\n\}\n$/,
    );
  });
});
