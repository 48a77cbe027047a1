import { say } from '@upper-veneer/words';
import { parseHtml } from '../dom/parse-html.js';
import { textOf } from '../dom/tree.js';
import { fulfil, openOnePage } from '../testing/one-page-site.js';
import { toEnd } from '../to-end.js';
import { proveSite } from './prove-site.js';
import { reportCsv, reportHtml } from './report.js';

const HOSTILE = '<img src=x onerror=alert(1)>"&';

function told(body: string) {
  const start = openOnePage('body { background: #fff; color: #1d2b2a } .t { color: #bbb }', body);
  const { site } = fulfil(start, 'h1', { value: { kind: 'role', role: 'second', shade: 0 } });
  return { site, proof: toEnd(proveSite(site)) };
}

const FACTS = {
  site: `Osier ${HOSTILE}`,
  at: '27 November 2026',
  revision: 4,
  exceptions: [{ target: '.sale', reason: `sale red ${HOSTILE}` }],
};

describe('the report', () => {
  const { site, proof } = told('<h1>Head</h1><p class=t>=SUM(1) "pale", text</p>');

  it('is one file that runs nothing and takes nothing in, whatever the site holds', () => {
    const html = reportHtml(site, proof, FACTS, say);
    const { elements } = parseHtml(html);
    expect(
      elements.map(({ localName }) => localName).filter((name) => /^(?:script|img|link|iframe|object)$/.test(name)),
    ).toEqual([]);
    expect(
      elements.some(({ attributes }) =>
        [...attributes.keys()].some((name) => name.startsWith('on') || name === 'src' || name === 'href'),
      ),
    ).toBeFalse();
    expect(html).not.toMatch(/url\(|@import/);
  });

  it('says what was checked, what fails with its figure, what carries what, and what was left alone and why', () => {
    const { elements } = parseHtml(reportHtml(site, proof, FACTS, say));
    const words = textOf(elements[0], 20_000);
    // #bbbbbb on white is 1.92 : 1 by WCAG 2.2's formula.
    for (const expected of [
      'Text of =SUM(1) "pale", text',
      '1.92 : 1 of 4.5 : 1 asked',
      'Second (River, #104a47): text',
      'sale red <img src=x onerror=alert(1)>"&',
      '27 November 2026, revision 4',
    ])
      expect(words).toContain(expected);
  });

  it('shows parts before and after, and nothing that was not drawn', () => {
    const drawn = 'data:image/png;base64,iVBORw0KGgo=';
    const pictures = [
      { name: `Form ${HOSTILE}`, page: 'Book', before: drawn, after: drawn },
      { name: 'Other', page: 'Book', before: 'https://elsewhere.example/a.png', after: drawn },
      { name: 'Third', page: 'Book', before: `${drawn}" onload="x()`, after: drawn },
    ];
    const { elements } = parseHtml(reportHtml(site, proof, { ...FACTS, pictures, unpictured: ['Chat <b>'] }, say));
    expect(textOf(elements[0], 20_000)).toContain('Not pictured: Chat <b>.');
    const images = elements.filter(({ localName }) => localName === 'img');
    expect(images.map(({ attributes }) => [attributes.get('src'), [...attributes.keys()].sort().join()])).toEqual([
      [drawn, 'alt,src'],
      [drawn, 'alt,src'],
    ]);
    expect(images[0].attributes.get('alt')).toBe(`Form ${HOSTILE}, as it arrived`);
  });

  // Source: RFC 4180, read back by its grammar.
  it('comes as CSV that a spreadsheet reads cell by cell, none of them as a formula', () => {
    const csv = reportCsv(site, proof, say);
    const cells = [...csv.split('\r\n')[1].matchAll(/(?:^|,)(?:"((?:[^"]|"")*)"|([^,"]*))/g)].map(
      ([, quoted, plain]) => quoted?.replaceAll('""', '"') ?? plain,
    );
    expect(cells.length).toBe(12);
    expect(cells.slice(0, 3)).toEqual(['reads', 'fails', 'Text of =SUM(1) "pale", text']);
    expect(cells[5]).toBe('\'=SUM(1) "pale", text');
    expect(cells.slice(9, 11)).toEqual(['1.92', '4.5']);
  });
});
