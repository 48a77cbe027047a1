import { say, spoken } from '@upper-veneer/words';
import { dressSite, type SiteModel } from '../site/site-model.js';
import { SELECTORS, drawVeneer, openDrawn, outcome, stateOf } from '../testing/drawn-veneers.js';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import { toEnd } from '../to-end.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Override, OverrideState } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { afterEdit, paletteLines, readSheetSteps, sheetToEdit, type SheetReading } from './read-sheet.js';
import { sheetItems } from './sheet-items.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
  ],
};

function read(site: SiteModel, text: string): SheetReading {
  let next = 0;
  return toEnd(readSheetSteps(site, text, () => `new-${(next += 1)}`));
}

function dressed(overrides: readonly Override[], ownCss: readonly OwnCss[] = []): SiteModel {
  return dressSite(openDrawn(), overrides, PALETTE, { ownCss });
}

function edited(site: SiteModel, text: string): { reading: SheetReading; after: SiteModel } {
  const reading = read(site, text);
  const { overrides, ownCss } = afterEdit(site, reading);
  return { reading, after: dressSite(site, overrides, PALETTE, { ownCss }) };
}

const override = (selector: string, property: string, css: string, some: Partial<Override> = {}): Override => ({
  id: `${selector} ${property}`,
  partId: 1,
  pageId: 1,
  element: 5,
  pseudo: '',
  reach: 'alike',
  state: stateOf(selector),
  property,
  value: { kind: 'literal', css },
  selector,
  important: false,
  ...some,
});

describe('reading an edited sheet', () => {
  const site = dressed([
    override('.a', 'color', 'red', { value: { kind: 'role', role: 'accent', shade: 0 } }),
    override('.a', 'background-color', 'silver'),
    override('.a:hover', 'background-color', '#102030'),
    override('.b', 'color', 'navy', { partId: null, widths: { min: 600, max: null } }),
  ]);
  const text = sheetToEdit(site);
  const change = (from: string, to: string): ReturnType<typeof edited> => {
    expect(text).withContext(from).toContain(from);
    return edited(site, text.replace(from, to));
  };

  it('comes to nothing where nothing was edited', () => {
    expect(read(site, text)).toEqual({ put: [], drop: [], ownCss: null, kept: [], isProved: true });
  });

  it('changes a value alone, and binds it where it is named by the palette', () => {
    const { reading } = change('background-color: silver', 'background-color: var(--brand-accent-d12)');
    expect(reading.put).toEqual([
      override('.a', 'background-color', '', { value: { kind: 'role', role: 'accent', shade: -12 } }),
    ]);
    const sheer = change('#102030', 'color-mix(in srgb, var(--brand-ground) 40%, transparent)').reading.put;
    expect(sheer.map(({ value }) => value)).toEqual([{ kind: 'role', role: 'ground', shade: 0, alpha: 0.4 }]);
    expect(change('color: navy;', 'color: navy !important;').reading.put.map(({ important }) => important)).toEqual([
      true,
    ]);
  });

  it('follows a selector, its state, and widths, and drops what is gone', () => {
    const [rest, hovered] = [...change('.a {', 'a.a {').reading.put].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect([rest, hovered].map(({ id, selector, isByHand }) => [id, selector, isByHand])).toEqual([
      ['.a background-color', 'a.a', true],
      ['.a color', 'a.a', true],
    ]);
    expect(change('.a:hover', '.a:active').reading.put.map(({ state }): OverrideState => state)).toEqual(['active']);
    expect(change('(min-width: 600px)', '(width <= 480px)').reading.put[0].widths).toEqual({ min: null, max: 480 });
    expect(change('  background-color: silver;\n', '').reading.drop).toEqual(['.a background-color']);
  });

  it('makes overrides of new rules: where, in which state, as a group of what they match', () => {
    const { reading } = change('/* Everywhere */', '.b:focus-visible, .d { opacity: 0.5 }\n\n/* Everywhere */');
    expect(
      reading.put.map(({ selector, state, reach, group, partId }) => [selector, state, reach, group, partId]),
    ).toEqual([
      ['.b:focus-visible', 'focus', 'group', '.b', 1],
      ['.d', 'rest', 'group', '.d', 1],
    ]);
    expect(reading.kept).toEqual([]);
  });

  it('keeps what no override can say, with the reason, and every character of it', () => {
    const own =
      '/* slow */\n@keyframes slow { from { opacity: 0 }   to { opacity: 1 } }\n\n.a { color: red; color: oklch(60% .1 40) }';
    const { reading, after } = change('/* Everywhere */', `${own}\n\n/* Everywhere */`);
    expect(reading.ownCss).toEqual([{ partId: 1, css: own }]);
    expect(spoken(reading.kept.map(({ reason }) => reason))).toEqual(['is an @keyframes', 'says color twice']);
    expect(reading.put).toEqual([]);
    expect(after.css).toContain(own);
    const again = edited(after, after.css.replace('silver', 'gold'));
    expect(again.reading.ownCss).toBeNull();
    expect(again.after.css).toContain(own);
    expect(edited(again.after, again.after.css.replace(`\n${own}`, '')).after.css).not.toContain('slow');
  });

  it('parts a rule into what overrides can say and what stays as it is written', () => {
    const { reading, after } = change(
      'background-color: silver;',
      'background-color: gold; padding-block: 2px;  border: 0',
    );
    expect(reading.put.map(({ id }) => id)).toEqual(['.a background-color']);
    expect(reading.ownCss).toEqual([{ partId: 1, css: '.a {\n  padding-block: 2px;\n  border: 0;\n}' }]);
    expect(reading.kept.map(({ selector }) => selector)).toEqual(['padding-block, border of .a']);
    expect(edited(after, after.css.replace('padding-block: 2px', 'padding-block: 3px')).reading.put).toEqual([]);
  });

  // CSS Cascading 5 §6.1: of equal rules the last wins, so that a shorthand before an override must not come to stand after it.
  it('keeps rules as they are written where the order of overrides would mean something else', () => {
    const edged = dressed([override('.a', 'border-color', 'black')]);
    const { reading, after } = edited(edged, sheetToEdit(edged).replace('.a {', '.a { border: 2px solid red }\n.a {'));
    expect(reading.drop).toEqual(['.a border-color']);
    expect(spoken(reading.kept.map(({ reason }) => reason))).toEqual([
      'stands among rules in an order of its own',
      'stands among rules in an order of its own',
    ]);
    expect(after.css.indexOf('border-color')).toBeGreaterThan(after.css.indexOf('2px solid'));
  });

  it('declares what own CSS names of the palette', () => {
    const { after } = change(
      '/* Everywhere */',
      '.a > .b { border: 1px solid var(--brand-ground) }\n\n/* Everywhere */',
    );
    expect(after.ownCss.length).toBe(1);
    expect(after.css).toContain('--brand-ground: #ffffff;');
  });

  it('says what matches nothing, hangs on another, or stands under what no override has', () => {
    const reasonOf = (rule: string): string[] =>
      change('/* Everywhere */', `${rule}\n/* Everywhere */`).reading.kept.map(({ reason }) => say(reason));
    expect(reasonOf('.nowhere { color: red }')).toEqual(['matches nothing on the pages that are here']);
    expect(reasonOf('.box:hover .b { color: red }')[0]).toContain('state of another element');
    expect(reasonOf('@media print { .b { color: red } }')).toEqual(['stands under @media print']);
    expect(reasonOf('.b { background: red }')).toEqual(['says background, which no override can']);
    expect(reasonOf('.b { /* here */ color: red }')).toEqual(['has a comment']);
  });
});

/** Drawn veneers with a drawn edit each; `npm run prove` goes through 500. */
const RUNS = runsAsked('SHEET_RUNS', 24, 10);

// Reference: the edited text itself, every element in every state resolved afresh, nothing shared with the check inside.
describe('a drawn edit of a drawn veneer', () => {
  const NEW = [
    '.b { color: #405060 }',
    'p:hover { color: teal; opacity: 0.7 }',
    '@media (max-width: 500px) { .a { background-color: #eee } .d { color: red } }',
    '.box .a:focus { outline-color: red !important }',
    '/* mine */ .d { color: maroon }',
    '@layer veneer { .a { color: black } }',
    '.a { border: 2px solid red }',
    '.box:hover .d { color: gold }',
    ':root { color: var(--brand-accent) }',
    '.a { color: teal; color: #123456 }',
    '.a, .b, .d { background: pink }',
    'p { border: 1px solid teal; outline: 2px solid red }',
    '.a { color: navy; & .d { color: teal } }',
  ];

  function draw(seed: number): { site: SiteModel; text: string; act: string } {
    const random = seededRandom(seed * 7919);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const overrides = drawVeneer(seed).map((own): Override =>
      random() < 0.3 && own.property.endsWith('color')
        ? { ...own, value: { kind: 'role', role: 'accent', shade: pick([0, -12, 8]), alpha: pick([1, 0.5]) } }
        : own,
    );
    const ownCss = random() < 0.4 ? [{ partId: pick([1, null]), css: pick(NEW) }] : [];
    const site = dressed(overrides, ownCss);
    const before = sheetToEdit(site);
    const head = paletteLines(site).length;
    const { items } = sheetItems(before.slice(head), [
      { id: 1, name: 'One' },
      { id: null, name: 'Everywhere' },
    ]);
    const place = pick(items);
    const [start, end] = [place.start + head, place.end + head];
    const source = before.slice(start, end);
    const put = (css: string, from = start, to = end): string => before.slice(0, from) + css + before.slice(to);
    const declaration = place.declarations.length > 0 ? pick(place.declarations) : null;
    const [from, to] = [(declaration?.start ?? 0) + head, (declaration?.end ?? 0) + head];
    const acts: Readonly<Record<string, () => string>> = {
      'puts a rule before': () => put(`${pick(NEW)}\n${source}`),
      'puts a rule after': () => put(`${source}\n${pick(NEW)}`),
      'takes a rule out': () => put(''),
      'gives another selector': () => put(source.replace(place.selector, pick(SELECTORS))),
      'says it for phones': () => put(`@media (max-width: 600px) {\n${source}\n}`),
      'puts a rule first': () =>
        put(
          `${pick(NEW)}\n${before.slice(items[0].start + head, items[0].end + head)}`,
          items[0].start + head,
          items[0].end + head,
        ),
      'moves it to the front': () => {
        const first = items[0].start + head;
        return place.within.length > 0 ? before : `${before.slice(0, first)}${source}\n${put('').slice(first)}`;
      },
      'moves it to the end': () => `${put('').trimEnd()}\n${place.within.length > 0 ? '' : source}\n`,
      'gives another value': () => (declaration ? put(`${declaration.name}: inherit`, from, to) : put(source)),
      'takes a declaration out': () => (declaration ? put('', from, to) : put(source)),
      'adds a declaration': () => put(source.replace('{', '{ opacity: 0.25; ')),
    };
    const act = pick(Object.keys(acts));
    return { site, text: acts[act](), act };
  }

  it('is compiled to what it says, in every state and width', () => {
    for (let seed = 1; seed <= RUNS; seed += 1) {
      const { site, text, act } = draw(seed);
      const { reading, after } = edited(site, text);
      const said = `:root { --brand-accent: #b4582a; --brand-ground: #fff }\n${text}`;
      expect(outcome(site, after.css) === outcome(site, said))
        .withContext(`seed ${seed} ${act}\n${text}\nbecame\n${after.css}\n${JSON.stringify(reading.kept)}`)
        .toBeTrue();
      expect(edited(after, sheetToEdit(after)).after.css)
        .withContext(`seed ${seed}`)
        .toBe(after.css);
    }
  });
});
