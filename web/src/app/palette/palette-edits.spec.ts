import type { Override, Palette } from '@upper-veneer/core';
import { toRequest, usesOf, withEdit, withMove, withRole, withSwatch, withoutSwatch } from './palette-edits';

const PALETTE: Palette = { swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }, { id: 2, name: 'Colour 3', css: '#0f4a48' }], roles: [{ role: 'accent', swatchId: 1, shade: -4 }, { role: 'link', swatchId: 2, shade: 0 }] };

describe('palette edits', () => {
  it('name roles by their swatch', () => {
    expect(toRequest('x', PALETTE).roles).toEqual([{ role: 'accent', swatch: 'Willow', shade: -4 }, { role: 'link', swatch: 'Colour 3', shade: 0 }]);
  });

  it('add under a name nobody has', () => {
    expect(withSwatch(PALETTE, 'red').swatches[2]).toEqual({ id: 0, name: 'Colour 4', css: 'red' });
  });

  it('rename with the roles following, and recolour', () => {
    const renamed = withEdit(PALETTE, 1, { name: 'Osier' });
    expect([renamed.label, renamed.roles[0].swatch]).toEqual(['Rename Willow to Osier', 'Osier']);
    expect(withEdit(PALETTE, 1, { css: 'teal' }).label).toBe('Willow becomes teal');
  });

  it('move within the bounds only', () => {
    expect(withMove(PALETTE, 2, -1)?.swatches.map(({ id }) => id)).toEqual([2, 1]);
    expect(withMove(PALETTE, 2, 1)).toBeNull();
    expect(withMove(PALETTE, 9, 1)).toBeNull();
  });

  it('delete with the roles it fills, and fill or empty roles', () => {
    expect(withoutSwatch(PALETTE, 1).roles.map(({ role }) => role)).toEqual(['link']);
    expect(withRole(PALETTE, 'accent', 2).roles).toContain({ role: 'accent', swatch: 'Colour 3', shade: 0 });
    expect(withRole(PALETTE, 'accent', null).roles.map(({ role }) => role)).toEqual(['link']);
  });

  it('count uses by swatch and through roles', () => {
    const overrides = [{ value: { kind: 'swatch', swatchId: 1, shade: 0 } }, { value: { kind: 'role', role: 'accent', shade: 0 } }, { value: { kind: 'role', role: 'link', shade: 0 } }, { value: { kind: 'literal', css: 'red' } }] as Override[];
    expect(usesOf(PALETTE, overrides, 1).length).toBe(2);
    expect(usesOf(PALETTE, overrides, 2).length).toBe(1);
  });
});
