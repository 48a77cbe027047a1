import type { Override, Palette } from '@upper-veneer/core';
import {
  rolesFilledBy,
  toRequest,
  usesOf,
  withColors,
  withConfirmed,
  withEdit,
  withLightDerived,
  withOrder,
  withRole,
  withRoles,
  withSecond,
  withSwatch,
  withoutSwatch,
} from './palette-edits';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Colour 3', css: '#0f4a48' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: -4 },
    { role: 'link', swatchId: 2, shade: 0 },
  ],
};

describe('palette edits in two lightings', () => {
  const lit: Palette = {
    ...PALETTE,
    roles: [
      { role: 'accent', swatchId: 1, shade: -4, isAssumed: true },
      { role: 'link', swatchId: 2, shade: 0 },
    ],
    second: { told: { kind: 'scheme' }, roles: [{ role: 'link', swatchId: 1, shade: 20 }] },
  };

  it('fill, empty and inherit the roles of the one that is shown', () => {
    const inverted: Palette = { ...lit, lighting: 'inverted' };
    const filled = withRole(inverted, 'accent', 2, 10);
    expect(filled.second?.roles.map(({ role, swatch, shade }) => `${role} ${swatch} ${shade}`)).toEqual([
      'link Willow 20',
      'accent Colour 3 10',
    ]);
    expect(filled.roles).toEqual(toRequest('', lit).roles);
    expect(withRole(inverted, 'link', null).second?.roles).toEqual([]);
    expect(withRole(lit, 'link', null).second?.roles.length).toBe(1);
    expect(withoutSwatch(lit, [], 1, 2).second?.roles[0].swatch).toBe('Colour 3');
    expect(withoutSwatch(lit, [], 1, null).second?.roles).toEqual([]);
  });

  it('keep a second lighting through every other edit, and take it away', () => {
    for (const request of [
      withSwatch(lit, 'red'),
      withEdit(lit, 1, { note: 'from the sign' }),
      withColors(lit, [{ name: 'Mud', css: '#654' }]),
      withRoles(lit, {}, 'x'),
    ])
      expect(request.second).toEqual(toRequest('', lit).second);
    expect(withSecond(lit, null).second).toBeNull();
  });

  it('fill the set that is shown with suggestions and remedies, and bake no inverted colour into overrides', () => {
    const inverted: Palette = { ...lit, lighting: 'inverted' };
    const color = { space: 'legacy', channels: [0.2, 0.4, 0.6], alpha: 1 } as const;
    const remedied = withRoles(inverted, { accent: color }, 'x');
    expect(remedied.roles).toEqual(toRequest('', lit).roles);
    expect(remedied.second?.roles.map(({ role, swatch }) => `${role} ${swatch}`)).toEqual([
      'link Willow',
      'accent Accent',
    ]);
    const bound: Override = {
      id: 'o',
      partId: null,
      pageId: 1,
      element: 1,
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      property: 'color',
      value: { kind: 'role', role: 'link', shade: 0 },
      selector: 'a',
      important: false,
    };
    const [unbound] = withoutSwatch(inverted, [bound], 2, null).overrides ?? [];
    expect(unbound.value).toEqual({ kind: 'literal', css: '#0f4a48' });
  });

  it('tell the jobs of a swatch in both', () => {
    expect(rolesFilledBy(lit, 1)).toEqual(['accent', 'link, inverted']);
    expect(rolesFilledBy(lit, 2)).toEqual(['link']);
  });

  it('keep what was assumed until it is confirmed', () => {
    expect(toRequest('', lit).roles[0].isAssumed).toBeTrue();
    expect(withConfirmed(lit, ['accent']).roles[0].isAssumed).toBeFalsy();
  });

  it('derive the light set from the inverted one, which is set by hand from then on', () => {
    const request = withLightDerived({ ...lit, lighting: 'inverted' });
    const cssOf = (swatch: string | undefined): string | undefined =>
      request.swatches.find(({ name }) => name === swatch)?.css;
    expect(request.second?.roles.map(({ role }) => role).sort()).toEqual(['accent', 'link']);
    expect(request.roles.map(({ role }) => role).sort()).toEqual(['accent', 'link']);
    expect(
      [...request.roles, ...(request.second?.roles ?? [])].every(({ swatch }) => cssOf(swatch) !== undefined),
    ).toBeTrue();
  });
});

describe('palette edits', () => {
  it('name roles by their swatch', () => {
    expect(toRequest('x', PALETTE).roles).toEqual([
      { role: 'accent', swatch: 'Willow', shade: -4 },
      { role: 'link', swatch: 'Colour 3', shade: 0 },
    ]);
  });

  it('add under a name nobody has', () => {
    expect(withSwatch(PALETTE, 'red').swatches[2]).toEqual({ id: 0, name: 'Colour 4', css: 'red' });
  });

  it('rename with the roles following, and recolour', () => {
    const renamed = withEdit(PALETTE, 1, { name: 'Osier' });
    expect([renamed.label, renamed.roles[0].swatch]).toEqual(['Rename Willow to Osier', 'Osier']);
    expect(withEdit(PALETTE, 1, { css: 'teal' }).label).toBe('Willow becomes teal');
  });

  it('order by place, within the bounds only', () => {
    expect(withOrder(PALETTE, 1, 0)?.swatches.map(({ id }) => id)).toEqual([2, 1]);
    expect(withOrder(PALETTE, 1, 2)).toBeNull();
    expect(withOrder(PALETTE, 0, 0)).toBeNull();
  });

  it('add several under names nobody has', () => {
    const added = withColors(PALETTE, [
      { name: 'willow', css: 'red' },
      { name: 'Moss', css: 'green' },
      { name: 'Moss', css: 'lime' },
    ]).swatches.slice(2);
    expect(added.map(({ id, name }) => [id, name])).toEqual([
      [0, 'willow 2'],
      [0, 'Moss'],
      [0, 'Moss 2'],
    ]);
  });

  const overrides = [
    { id: 'a', value: { kind: 'swatch', swatchId: 1, shade: -6 } },
    { id: 'b', value: { kind: 'role', role: 'accent', shade: 0 } },
    { id: 'c', value: { kind: 'role', role: 'link', shade: 0 } },
  ] as Override[];

  it('delete with an heir who takes places and roles over', () => {
    const request = withoutSwatch(PALETTE, overrides, 1, 2);
    expect(request.swatches.map(({ id }) => id)).toEqual([2]);
    expect(request.roles.find(({ role }) => role === 'accent')).toEqual({
      role: 'accent',
      swatch: 'Colour 3',
      shade: -4,
    });
    expect(request.overrides?.map(({ id, value }) => [id, value])).toEqual([
      ['a', { kind: 'swatch', swatchId: 2, shade: -6 }],
    ]);
  });

  it('delete without an heir leaves the colours as plain values and the roles empty', () => {
    const request = withoutSwatch(PALETTE, overrides, 1, null);
    expect(request.roles.map(({ role }) => role)).toEqual(['link']);
    expect(request.overrides?.map(({ id, value }) => [id, value.kind])).toEqual([
      ['a', 'literal'],
      ['b', 'literal'],
    ]);
    expect(request.overrides?.[0].value).toEqual({
      kind: 'literal',
      css: jasmine.stringMatching(/^#[0-9a-f]{6}$/) as unknown as string,
    });
  });

  it('fill and empty roles, with a shade in the label', () => {
    expect(withRole(PALETTE, 'accent', 2).roles).toContain({ role: 'accent', swatch: 'Colour 3', shade: 0 });
    expect(withRole(PALETTE, 'ring', 1, -12).label).toBe('Willow, 12 darker fills ring');
    expect(withRole(PALETTE, 'accent', null).roles.map(({ role }) => role)).toEqual(['link']);
  });

  it('give roles to colours: swatches that have them are used, others come in under the role’s name', () => {
    const color = (r: number, g: number, b: number) =>
      ({ space: 'legacy', channels: [r / 255, g / 255, b / 255], alpha: 1 }) as const;
    const request = withRoles(
      PALETTE,
      { 'on-accent': color(255, 255, 255), accent: color(15, 74, 72), panel: color(255, 255, 255) },
      'x',
    );
    expect(request.swatches.map(({ name }) => name)).toEqual(['Willow', 'Colour 3', 'On accent']);
    expect(request.roles.map(({ role, swatch }) => `${role} ${swatch}`)).toEqual([
      'link Colour 3',
      'on-accent On accent',
      'accent Colour 3',
      'panel On accent',
    ]);
  });

  it('count uses by swatch and through roles', () => {
    const overrides = [
      { value: { kind: 'swatch', swatchId: 1, shade: 0 } },
      { value: { kind: 'role', role: 'accent', shade: 0 } },
      { value: { kind: 'role', role: 'link', shade: 0 } },
      { value: { kind: 'literal', css: 'red' } },
    ] as Override[];
    expect(usesOf(PALETTE, overrides, 1).length).toBe(2);
    expect(usesOf(PALETTE, overrides, 2).length).toBe(1);
  });
});
