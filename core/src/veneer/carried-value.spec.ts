import { carriedValue } from './carried-value.js';
import type { OverrideValue } from './override-value.js';
import type { Palette } from './palette.js';

describe('carriedValue', () => {
  const then: Palette = {
    swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }],
    roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
    shape: { corner: '3px' },
  };
  const now: Palette = { swatches: [{ id: 2, name: 'Reed', css: '#6d8a35' }], roles: [] };
  const accent = { kind: 'role', role: 'accent', shade: 0 } as const;

  it('keeps what the other palette has, and makes the rest what it stood for', () => {
    expect(carriedValue(accent, then, then)).toEqual(accent);
    expect(carriedValue(accent, then, now)).toEqual({ kind: 'literal', css: '#b4582a' });
    expect(carriedValue({ kind: 'swatch', swatchId: 1, shade: 0 }, then, now)).toEqual({
      kind: 'literal',
      css: '#b4582a',
    });
    const gradient: OverrideValue = {
      kind: 'composite',
      css: 'linear-gradient({0}, {1})',
      colors: [accent, { kind: 'swatch', swatchId: 2, shade: 0 }],
    };
    expect(carriedValue(gradient, then, now)).toEqual({
      ...gradient,
      colors: [{ kind: 'literal', css: '#b4582a' }, gradient.colors[1]],
    });
    expect(carriedValue({ kind: 'house', part: 'corner' }, then, now)).toEqual({ kind: 'literal', css: '3px' });
  });

  it('says where nobody can tell', () => {
    expect(carriedValue(accent, null, now)).toBeNull();
    expect(carriedValue({ kind: 'house', part: 'edge' }, then, now)).toBeNull();
    expect(carriedValue({ kind: 'literal', css: 'red' }, null, now)).toEqual({ kind: 'literal', css: 'red' });
  });
});
