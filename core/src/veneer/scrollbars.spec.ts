import { compileVeneer } from './compile-veneer.js';
import type { Override } from './override.js';
import { engineGuardOf, isForOtherEngines } from './scrollbars.js';

const PALETTE = { swatches: [], roles: [] };

function override(some: Partial<Override>): Override {
  return {
    id: some.id ?? `${some.property}-${some.pseudo}`,
    partId: null,
    pageId: 1,
    element: 4,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'background-color',
    value: { kind: 'literal', css: '#123456' },
    selector: '.box',
    important: false,
    ...some,
  };
}

const THUMB = override({ pseudo: '-webkit-scrollbar-thumb', selector: '.box::-webkit-scrollbar-thumb' });
const TRACK = override({
  pseudo: '-webkit-scrollbar-track',
  selector: '.box::-webkit-scrollbar-track',
  value: { kind: 'literal', css: '#fedcba' },
});
const STANDARD = override({ property: 'scrollbar-color', value: { kind: 'literal', css: 'red blue' } });
const AUTO = override({ property: 'scrollbar-color', value: { kind: 'literal', css: ' AUTO ' } });
const HAS = 'selector(::-webkit-scrollbar)';

// Which engine takes what: CSS Scrollbars 1 §2 for the standard properties; that the parts give way to them is common practice.
describe('scrollbars in the sheet', () => {
  const compile = (overrides: readonly Override[]): string =>
    compileVeneer(overrides, { palette: PALETTE, parts: [], prefix: 'brand' });

  const guards: readonly (readonly [
    what: string,
    override: Override,
    among: readonly Override[],
    guard: string | null,
  ])[] = [
    ['a part is for engines that have parts', THUMB, [THUMB], HAS],
    ['the standard property is for all where it stands alone', STANDARD, [STANDARD], null],
    ['it is for the others where parts of the same box are overridden', STANDARD, [STANDARD, THUMB], `not ${HAS}`],
    ['it is for all where the parts are those of another box', STANDARD, [STANDARD, { ...THUMB, element: 9 }], null],
    ['auto gives the parts back to engines that have them', AUTO, [AUTO], HAS],
    ['any other property is for all', override({ property: 'color' }), [THUMB], null],
  ];
  for (const [what, own, among, guard] of guards) {
    it(what, () => {
      expect(engineGuardOf(own, among)).toBe(guard);
      expect(isForOtherEngines(own, among)).toBe(guard?.startsWith('not') ?? false);
    });
  }

  it('puts thumb and track side by side for the other engines, a track that nobody has said see-through', () => {
    expect(compile([THUMB])).toContain(
      '@supports not selector(::-webkit-scrollbar) {\n  .box {\n    scrollbar-color: #123456 transparent;\n  }\n}',
    );
    expect(compile([TRACK])).not.toContain('@supports not');
    expect(compile([TRACK, THUMB])).toContain(
      '@supports not selector(::-webkit-scrollbar) {\n  .box {\n    scrollbar-color: #123456 #fedcba;\n  }\n}',
    );
  });

  it('does not where the designer has said it otherwise, or for other widths', () => {
    const css = compile([THUMB, TRACK, STANDARD]);
    expect(css.match(/scrollbar-color/g)?.length).toBe(1);
    expect(css).toContain('scrollbar-color: red blue');
    expect(compile([THUMB, { ...TRACK, widths: { min: null, max: 600 } }])).toContain(
      'scrollbar-color: #123456 transparent',
    );
  });

  it('keeps the widths of the parts', () => {
    const widths = { min: null, max: 600 };
    const css = compile([
      { ...THUMB, widths },
      { ...TRACK, widths },
    ]);
    expect(css).toContain(
      '@supports selector(::-webkit-scrollbar) {\n  @media (max-width: 600px) {\n    .box::-webkit-scrollbar-thumb {\n      background-color: #123456;\n    }',
    );
    expect(css).toContain(
      '@supports not selector(::-webkit-scrollbar) {\n  @media (max-width: 600px) {\n    .box {\n      scrollbar-color: #123456 #fedcba;',
    );
    expect((css.match(/\{/g) ?? []).length).toBe((css.match(/\}/g) ?? []).length);
  });
});
