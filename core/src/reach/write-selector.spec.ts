import { parsePage } from '../resolve/page.js';
import type { ElementNode } from '../dom/tree.js';
import { compareSpecificity } from '../selectors/selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { seededRandom } from '../testing/random.js';
import { findThreshold } from './threshold.js';
import { matchesExactly, writeSelector, type WrittenSelector } from './write-selector.js';

function write(theme: string, body: string, find: (element: ElementNode) => boolean): { readonly written: WrittenSelector; readonly isExact: boolean } {
  const page = parsePage(`<!doctype html><style>${theme}</style><body>${body}`);
  const targets = page.document.elements.filter(find).map((element) => ({ page, element }));
  const written = writeSelector({ lead: targets[0], targets, pages: [page], everywhere: false, pseudo: '', state: 'rest', longhands: ['color'], isReplaced: () => false });
  return { written, isExact: written.ok && matchesExactly(written.selector, new Set(targets.map(({ element }) => element)), [page]) };
}

// Specificities by Selectors 4 §17, worked out by hand; that a name may be said again to raise it is its own note there.
describe('writeSelector over strong rules', () => {
  const rows: readonly (readonly [what: string, theme: string, body: string, tag: string, selector: string])[] = [
    ['says its own id again', '#box#box { color: red }', '<div id=box>h</div>', 'div', '#box#box'],
    ['says its own class again', '.note.note.note { color: red }', '<p class=note>n</p>', 'p', '.note.note.note'],
    ['names the ids that the rule names', '#left #right p { color: red }', '<div id=left><div id=right><p>h</p></div></div>', 'p', '#left #right p'],
    ['repeats an id for a third', '#left #right #deep p.kind { color: red }', '<div id=left><div id=right><section id=deep><p class=kind>h</p></section></div></div>', 'p', '#deep#deep#deep p.kind'],
    ['repeats a class under an id', '#left .kind.kind.kind { color: red }', '<div id=left><p class=kind>h</p></div>', 'p', '#left .kind.kind.kind'],
    ['stands one id above classes it does not have', '#box.is-on.is-on { color: red }', '<div id=box class=is-on>h</div>', 'div', '#box#box'],
    ['takes names that nothing has where it has none', 'p:not(#no) { color: red }', '<p>one</p>', 'p', 'p:not(#uv-none)'],
    ['needs no more than the tag over a rule of its strength', 'p { color: red }', '<p>one</p><div>two</div>', 'p', 'p'],
  ];
  for (const [what, theme, body, tag, expected] of rows) {
    it(what, () => {
      const { written, isExact } = write(theme, body, ({ localName }) => localName === tag);
      expect(written.ok ? written.selector : written.reason).toBe(expected);
      expect(isExact).toBeTrue();
    });
  }

  it('says the specificity its text has, matches exactly and clears the bar, whatever is drawn', () => {
    const random = seededRandom(20261125);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const some = (list: readonly string[]): string => list.filter(() => random() < 0.4).join('');
    for (let round = 0; round < 250; round += 1) {
      const body = `<div id=left class="wrap">${Array.from({ length: 4 }, () => `<${pick(['section', 'div'])} ${random() < 0.5 ? `id=${pick(['deep', 'wide'])}${Math.floor(random() * 9)}` : ''} class="${pick(['card', 'card tall', 'panel'])}"><p class="${pick(['kind', 'kind late', 'late', ''])}">a</p><em>b</em></section></div>`).join('')}</div>`;
      const theme = `#left${some(['#left', '.wrap', '.wrap', '.wrap'])} ${pick(['p', 'em', '.kind', '.card p', '.tall em'])}${some(['.kind', '.kind', ':not(#no)'])} { color: red }`;
      const tag = pick(['p', 'em']);
      const page = parsePage(`<!doctype html><style>${theme}</style><body>${body}`);
      const element = page.document.elements.filter(({ localName }) => localName === tag)[Math.floor(random() * 4)];
      const request = { lead: { page, element }, targets: [{ page, element }], pages: [page], everywhere: false, pseudo: '', state: 'rest' as const, longhands: ['color'], isReplaced: () => false };
      const written = writeSelector(request);
      if (!written.ok) continue;
      const [parsed] = parseSelectorList(written.selector);
      expect(parsed.specificity).withContext(written.selector).toEqual(written.specificity);
      expect(matchesExactly(written.selector, new Set([element]), [page])).withContext(written.selector).toBeTrue();
      const bar = findThreshold({ ...request, places: request.targets });
      expect(compareSpecificity(written.specificity, bar.specificity)).withContext(`${theme} ${written.selector}`).toBeGreaterThanOrEqual(bar.strict ? 1 : 0);
    }
  });
});
