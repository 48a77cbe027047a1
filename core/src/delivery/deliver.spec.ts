import { veneerRules } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';
import { contentHash } from './content-hash.js';
import { DELIVERY_WAYS, deliver, type DeliveryFacts, type DeliveryWay } from './deliver.js';
import { betweenMarkers } from './markers.js';

const override = (own: Partial<Override>): Override => ({
  id: 'a',
  partId: 1,
  pageId: 1,
  element: 3,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'role', role: 'accent', shade: 0 },
  selector: '.x',
  important: false,
  ...own,
});
const parts = [
  { id: 1, name: 'Form' },
  { id: 2, name: 'Bar' },
];
const options = {
  prefix: 'b',
  parts,
  palette: {
    swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }],
    roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
  },
} as const;
const rules = veneerRules(
  [
    override({}),
    override({
      id: 'b',
      partId: 2,
      selector: '.bar',
      property: 'background-image',
      value: { kind: 'literal', css: 'url("img/a b.png")' },
    }),
    override({ id: 'c', partId: 2, selector: '.bar', important: true }),
  ],
  { parts },
);
const facts: DeliveryFacts = {
  rules,
  options,
  site: 'Osier */ </style> & Reed',
  revision: 3,
  date: '2026-05-04',
  target: 'theme 2.1',
  root: '/shop/',
  partId: 1,
  isPlain: false,
  existing: '',
};
const text = (way: DeliveryWay, own: Partial<DeliveryFacts> = {}): string => deliver(way, { ...facts, ...own }).text;

describe('deliver', () => {
  it('heads the sheet with what it is, in words that end neither comment nor element', () => {
    for (const way of DELIVERY_WAYS) {
      const delivered = text(way);
      expect(delivered)
        .withContext(way)
        .toContain('/* Osier * / < /style> & Reed, revision 3, 2026-05-04, for theme 2.1 */');
      expect(delivered.split('</style').length - 1)
        .withContext(way)
        .toBe(way === 'head' ? 1 : 0);
    }
    expect(text('file', { revision: null, target: '' })).toContain('& Reed, draft, 2026-05-04 */');
  });

  it('names a file by its bytes, and links it', () => {
    const { fileName, link, bytes, important } = deliver('file', facts);
    expect(fileName).toBe(`veneer.${contentHash(text('file'))}.css`);
    expect(link).toBe(`<link rel="stylesheet" href="/shop/${fileName}">`);
    expect(deliver('file', { ...facts, rules: rules.slice(1) }).fileName).not.toBe(fileName);
    expect([bytes, important]).toEqual([new TextEncoder().encode(text('file')).length, 1]);
  });

  it('leads to files from the sheet where it is a file, from the root where it stands in a page', () => {
    expect(text('file')).toContain('url("img/a b.png")');
    expect(text('head')).toMatch(/url\("?\/shop\/img\/a\\? b\.png"?\)/);
    expect(text('box', { root: 'https://river.example/' })).toContain('https://river.example/img/');
  });

  it('writes plain colours where properties do not reach', () => {
    expect(text('box')).toContain('var(--b-accent)');
    expect(text('box', { isPlain: true })).not.toContain('--');
    expect(text('embed')).toContain('color: #b4582a');
    expect(text('embed')).not.toContain('.bar');
    expect(text('embed', { partId: null })).toBe('');
  });

  it('counts what own CSS shows in the first lighting alone, where colours are written as values', () => {
    const inverted = {
      ...options.palette,
      swatches: [...options.palette.swatches, { id: 2, name: 'Chalk', css: '#f4efe4' }],
      second: { roles: [{ role: 'accent' as const, swatchId: 2, shade: 0 }], told: { kind: 'scheme' as const } },
    };
    const ownCss = [{ partId: 1, css: '.x::after { color: var(--b-accent); border-color: var(--b-accent, red) }' }];
    const count = (way: DeliveryWay, isPlain: boolean, palette: DeliveryFacts['options']['palette']): number =>
      deliver(way, { ...facts, isPlain, partId: 1, options: { ...options, palette, ownCss } }).inOneLighting;
    expect([count('box', true, inverted), count('embed', false, inverted)]).toEqual([2, 2]);
    expect([count('box', false, inverted), count('box', true, options.palette)]).toEqual([0, 0]);
  });

  it('stands at the end of a file between markers, and is replaced there', () => {
    const own = '.mine { top: 0 }';
    const once = text('end', { existing: own });
    expect(once.startsWith(`${own}\n\n/* begin`)).toBeTrue();
    expect(text('end', { existing: once })).toBe(once);
    const after = `${once}.later { left: 0 }\n`;
    const fewer = text('end', { existing: after, rules: rules.slice(0, 1) });
    expect(fewer.startsWith(own) && fewer.endsWith('.later { left: 0 }\n') && !fewer.includes('.bar')).toBeTrue();
    expect(betweenMarkers(once, '').trim()).toBe(own);
    expect(betweenMarkers('', '')).toBe('');
  });
});

// Values of 32-bit FNV-1a as its authors' test suite has them (from memory).
describe('contentHash', () => {
  it('is FNV-1a', () => {
    expect(['', 'a', 'foobar'].map(contentHash)).toEqual(['811c9dc5', 'e40c292c', 'bf9cf968']);
  });
});
