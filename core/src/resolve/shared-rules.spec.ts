import { explain } from './explain.js';
import { parsePage } from './page.js';
import { StyleView } from './style-view.js';

const FILES = new Map([
  ['a.css', '.note { color: rgb(1, 1, 1) } @media (min-width: 10px) { .note { background-color: rgb(2, 2, 2) } }'],
  ['b.css', '.note { color: rgb(3, 3, 3) }'],
]);
const loadSheet = (path: string): string | null => FILES.get(path) ?? null;
const link = (path: string): string => `<link rel="stylesheet" href="${path}">`;
const color = (html: string, veneer = ''): string => {
  const page = parsePage(`<!doctype html>${html}`, { loadSheet, veneer });
  const view = new StyleView(page);
  return view.styleAt(page.document.elements.findIndex(({ classes }) => classes.includes('note'))).resolved('color');
};

describe('rules that pages have in common', () => {
  it('are the same objects on pages that link the same sheets, each page with its own documents', () => {
    const pages = ['one', 'two'].map((text) =>
      parsePage(`<!doctype html><head>${link('a.css')}</head><p class="note">${text}</p>`, {
        path: `${text}.html`,
        loadSheet,
      }),
    );
    expect(pages[0].base.rules).toBe(pages[1].base.rules);
    for (const page of pages) {
      const view = new StyleView(page);
      const note = page.document.elements[page.document.elements.length - 1];
      expect(view.style(note).resolved('color')).toBe('rgb(1, 1, 1)');
      expect(explain(view, note, 'background-color').plies[0].value).toBe('rgb(2, 2, 2)');
    }
  });

  it('keep the order, media and place in which each page links them', () => {
    expect(color(`<head>${link('a.css')}${link('b.css')}</head><p class="note">`)).toBe('rgb(3, 3, 3)');
    expect(color(`<head>${link('b.css')}${link('a.css')}</head><p class="note">`)).toBe('rgb(1, 1, 1)');
    expect(
      color(`<head>${link('a.css')}<link rel="stylesheet" href="b.css" media="print"></head><p class="note">`),
    ).toBe('rgb(1, 1, 1)');
    // A veneer at the end of the head comes before sheets of the body, and after those of the head.
    expect(color(`<head>${link('a.css')}</head><p class="note">`, '.note { color: rgb(9, 9, 9) }')).toBe(
      'rgb(9, 9, 9)',
    );
    expect(color(`<head></head><body>${link('a.css')}<p class="note">`, '.note { color: rgb(9, 9, 9) }')).toBe(
      'rgb(1, 1, 1)',
    );
  });

  it('are read otherwise in quirks mode, and scopes hang on their own page', () => {
    FILES.set('q.css', '.NOTE { color: 123456 }');
    const quirky = parsePage(`${link('q.css')}<p class="note">`, { loadSheet });
    expect(new StyleView(quirky).styleAt(quirky.document.elements.length - 1).resolved('color')).toBe(
      'rgb(18, 52, 86)',
    );
    expect(color(`<head>${link('q.css')}</head><p class="note">`)).toBe('rgb(0, 0, 0)');
    const scoped = (first: string): string =>
      color(`<body>${first}<div><style>@scope { .note { color: rgb(5, 5, 5) } }</style><p class="note"></p></div>`);
    expect([scoped(''), scoped('<p>before</p>')]).toEqual(['rgb(5, 5, 5)', 'rgb(5, 5, 5)']);
  });
});
