import { say } from '@upper-veneer/words';
import { parse } from 'parse5';
import { openOnePage, fulfil } from '../testing/one-page-site.js';
import { handOverHtml, handOverMarkdown, type HandOverFacts } from './hand-over.js';

describe('the hand-over note', () => {
  const { site } = fulfil(openOnePage('p { color: red }', '<p>One</p>'), 'p', {
    value: { kind: 'role', role: 'accent', shade: 0 },
  });
  const facts: HandOverFacts = {
    site: 'Osier <b> & *Reed*',
    at: '4 May 2026, 10:00',
    revision: 3,
    published: null,
    exceptions: [{ target: '.seal | x', reason: 'the maker’s </td> own\nseal' }],
  };

  it('tells what was done, the roles, what was left alone and why, in both forms', () => {
    for (const note of [handOverMarkdown(site, facts, say), handOverHtml(site, facts, say)]) {
      expect(note).toContain('1 override in one stylesheet');
      expect(note).toContain('revision 3; nothing is published yet');
      expect(note).toContain('text');
      for (const title of ['What was done', 'Palette and roles', 'How to undo it', 'After an update of the theme'])
        expect(note).withContext(title).toContain(title);
    }
  });

  it('lets no foreign word be markup', () => {
    const html = handOverHtml(site, facts, say);
    expect(html).not.toContain('<b>');
    expect(html.split('</td>').length).toBe(html.split('<td>').length);
    expect(parse(html).childNodes.length).toBe(2);
    const note = handOverMarkdown(site, facts, say);
    expect(note).toContain('\\*Reed\\*');
    expect(note).toContain('\\.seal \\| x: the maker’s \\</td\\> own seal'.replace('\\.', '.'));
    // Every row of a table has as many cells as its head.
    const bars = (line: string): number => line.replaceAll('\\|', '').split('|').length;
    const tables = note.split('\n').filter((line) => line.startsWith('| '));
    expect(new Set(tables.map(bars)).size).toBeLessThanOrEqual(2);
  });
});
