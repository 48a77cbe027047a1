import { hexOf } from '../color/read-notation.js';
import { writeCustomProperties } from '../palette/files/custom-properties.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import { serializeColor } from '../values/serialize-color.js';
import { compileVeneer } from './compile-veneer.js';
import type { Override } from './override.js';
import { colorOfValue, type PlainValue } from './override-value.js';
import { nameKey } from './name-key.js';
import { namesOf, slug } from './palette-names.js';
import { colorOfCss, ROLE_NAMES, type Palette, type RoleName } from './palette.js';

describe('names of a palette', () => {
  const palette = (names: readonly string[], roles: Palette['roles'] = []): Palette => ({
    swatches: names.map((name, i) => ({ id: i + 1, name, css: `#0000${String(i + 10)}` })),
    roles,
  });

  // Romanizations: ISO 233, 9 and Hepburn agree with these for the letters that matter here (from memory).
  const slugs: readonly (readonly [name: string, slug: string])[] = [
    ['Willow Brown', 'willow-brown'],
    ['  Élan & Co. ', 'elan-co'],
    ['Straße', 'strasse'],
    ['Зелёный', 'zelenyy'],
    ['川', 'chuan'],
    ['--', ''],
    ["Fox's den", 'foxs-den'],
  ];
  for (const [name, expected] of slugs)
    it(`${name} is ${expected || 'empty'}`, () => expect(slug(name)).toBe(expected));

  const rows: readonly (readonly [what: string, palette: Palette, names: readonly string[]])[] = [
    ['a swatch does not take the name of a role', palette(['Accent', 'Ink']), ['accent-2', 'ink-2']],
    ['nor of a role that nobody fills yet', palette(['Ring'], [{ role: 'accent', swatchId: 1, shade: 0 }]), ['ring-2']],
    ['alike in Latin letters', palette(['Élan', 'Elan', 'ELAN!']), ['elan', 'elan-2', 'elan-3']],
    ['nothing to read', palette(['☂', '—', 'Swatch']), ['umbrella2', 'swatch', 'swatch-2']],
    ['like a shade of another', palette(['Reed', 'Reed D2', 'Reed l12']), ['reed', 'reed-d-2', 'reed-l-12']],
  ];
  for (const [what, drawn, names] of rows) it(what, () => expect(namesOf(drawn).swatches).toEqual([...names]));

  it('keep what has been published, whatever comes before it later', () => {
    const drawn: Palette = {
      swatches: [
        { id: 9, name: 'Accent', css: 'red' },
        { id: 4, name: 'Moss', css: 'green', token: 'reed' },
        { id: 5, name: 'Reed', css: 'blue' },
        { id: 0, name: 'Moss 2', css: 'gray' },
      ],
      roles: [],
    };
    expect(namesOf(drawn).swatches).toEqual(['accent-2', 'reed', 'reed-2', 'moss-2']);
    expect(namesOf(drawn, { accent: 'reed', ink: 'lead' }).roles.get('accent')).toBe('reed-2');
    expect(namesOf(drawn, { accent: 'reed', ink: 'lead' }).roles.get('ink')).toBe('lead');
  });

  it('are told apart by letters in any script', () => {
    expect(nameKey(' Accent')).toBe(nameKey('ACCENT'));
    expect(nameKey('川')).not.toBe(nameKey('山'));
  });
});

const WORDS = [
  'Accent',
  'accent',
  'Ink',
  'Reed',
  'reed',
  'Reed-d8',
  'Reed l8',
  'Öl',
  'Ol',
  '川',
  '山',
  'שלום',
  'Зелёный',
  '☂',
  '☂☂',
  'Line',
  'On accent',
  'On-Accent',
  'Second',
  'initial',
  'inherit',
  '1',
  '2',
  'Swatch',
  'swatch 2',
  'Accent 2',
  '🟢',
  'a'.repeat(60),
];
const COLORS = [
  '#b4582a',
  'oklch(60% 0.1 140)',
  'rgb(16 74 71 / 0.6)',
  'hsl(200 40% 30%)',
  '#fff',
  'black',
  'color(display-p3 0.2 0.8 0.4)',
];

describe('published values', () => {
  const draws = runsAsked('NAME_RUNS', 200);

  // Resolved by the core as a visitor's browser would, against the palette's own colours.
  it(`resolve to the palette's colours on ${draws} drawn palettes`, () => {
    const random = seededRandom(20261126);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    for (let draw = 0; draw < draws; draw += 1) {
      const words = [...WORDS].sort(() => random() - 0.5).slice(0, 1 + Math.floor(random() * 12));
      const swatches = words
        .map((name, i) => ({
          id: random() < 0.2 ? 0 : i + 1,
          name,
          css: pick(COLORS),
          ...(random() < 0.2 ? { token: `t${i}` } : {}),
        }))
        .filter(({ id }) => id !== 0);
      if (swatches.length === 0) continue;
      const roles = ROLE_NAMES.filter(() => random() < 0.5).map((role) => ({
        role,
        swatchId: pick(swatches).id,
        shade: pick([0, 0, -8, 12]),
      }));
      const names: Partial<Record<RoleName, string>> = random() < 0.3 ? { accent: 'reed', ink: 'swatch' } : {};
      const palette: Palette = { swatches, roles };
      const values: PlainValue[] = [
        ...swatches.map(({ id }): PlainValue => ({ kind: 'swatch', swatchId: id, shade: pick([0, 8, -8, 2, -2]) })),
        ...swatches.map(({ id }): PlainValue => ({ kind: 'swatch', swatchId: id, shade: 0 })),
        ...roles.map(({ role }): PlainValue => ({ kind: 'role', role, shade: pick([0, -8, 8]) })),
      ];
      const overrides = values.map((value, i): Override => ({
        id: `${i}`,
        partId: null,
        pageId: 1,
        element: i,
        pseudo: '',
        reach: 'one',
        state: 'rest',
        property: 'color',
        value,
        selector: `.v${i}`,
        important: false,
      }));
      const css = compileVeneer(overrides, { palette, parts: [], prefix: 'brand', names });
      const page = parsePage(`<!doctype html><body>${values.map((_, i) => `<i class=v${i}></i>`).join('')}`, {
        veneer: css,
      });
      const view = new StyleView(page);
      for (const element of page.document.elements.filter(({ localName }) => localName === 'i')) {
        const value = values[Number(element.classes[0].slice(1))];
        expect(view.style(element).resolved('color'))
          .withContext(`${JSON.stringify(value)}\n${css}`)
          .toBe(asPublished(value, palette));
      }
      const rules = roles
        .map(({ role }) => `.${role} { color: var(--brand-${namesOf(palette, names).roles.get(role) ?? ''}) }`)
        .join('\n');
      const file = new StyleView(
        parsePage(`<!doctype html><body>${roles.map(({ role }) => `<i class=${role}></i>`).join('')}`, {
          veneer: `${writeCustomProperties(palette, 'brand', names)}\n${rules}`,
        }),
      );
      for (const { role } of roles) {
        const element = file.page.document.elements.find(({ classes }) => classes[0] === role);
        expect(element && file.style(element).resolved('color'))
          .withContext(role)
          .toBe(asPublished({ kind: 'role', role, shade: 0 }, palette));
      }
    }
  });
});

/** The palette's colour, to the hexadecimal digits in which it goes out. */
function asPublished(value: PlainValue, palette: Palette): string {
  const color = colorOfValue(value, palette);
  const published = color && colorOfCss(hexOf(color));
  if (!published) throw new Error(`${JSON.stringify(value)} has no colour`);
  return serializeColor(published);
}
