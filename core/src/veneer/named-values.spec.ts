import { spoken } from '@upper-veneer/words';
import type { Override } from './override.js';
import type { OverrideValue } from './override-value.js';
import { compileVeneer } from './compile-veneer.js';
import { namedValues, rolePropertyNames } from './named-values.js';
import type { Palette } from './palette.js';

describe('values of ours', () => {
  const palette: Palette = {
    swatches: [
      { id: 1, name: 'Willow', css: '#b4582a' },
      { id: 2, name: '川', css: '#123456' },
    ],
    roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
  };
  const override = (id: string, value: OverrideValue): Override => ({
    id,
    partId: null,
    pageId: 1,
    element: 3,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value,
    selector: `.${id}`,
    important: false,
  });
  const overrides = [
    override('a', { kind: 'role', role: 'accent', shade: 0 }),
    override('b', { kind: 'swatch', swatchId: 2, shade: 0 }),
    override('c', { kind: 'role', role: 'accent', shade: 0, alpha: 0.5 }),
    override('d', { kind: 'literal', css: 'red' }),
  ];

  for (const asValues of [false, true]) {
    // Held against the sheet that is published, which they are looked up in.
    it(`are found under what the sheet says, ${asValues ? 'as plain values' : 'as custom properties'}`, () => {
      const naming = { prefix: 'brand', asValues };
      const css = compileVeneer(overrides, { palette, parts: [], ...naming });
      const named = namedValues(overrides, palette, naming);
      expect(named.size).toBe(3);
      for (const [written, { hex }] of named) {
        expect(spoken(css)).withContext(written).toContain(`color: ${written};`);
        expect(hex).toMatch(/^#[0-9a-f]{6}/);
      }
      expect(spoken([...named.values()].map(({ words }) => words))).toEqual(['Accent', '川', 'Accent, 50 % strong']);
    });
  }

  it('roles have the custom property they are published under', () => {
    expect([...rolePropertyNames(palette, { prefix: 'brand', names: { accent: 'action' } })]).toEqual([
      ['accent', '--brand-action'],
    ]);
  });
});
