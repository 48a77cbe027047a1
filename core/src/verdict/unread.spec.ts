import { takeCensus } from '../census/census.js';
import { inspect } from '../inspect/inspect.js';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { tidySheet } from '../tidy/tidy-sheet.js';
import { judgeInWords } from '../testing/in-words.js';

/** Rules that walk all siblings before each of 400 for nothing: more than the bound lets matching take. */
const DEAR = Array.from({ length: 36 }, (_, i) => `.none${i} ~ i { color: red }`).join(' ');
const BODY = `<p class="note">Tides of the week</p>${'<i>x</i>'.repeat(400)}`;

describe('a site of which something is not read', () => {
  it('is not said to be proved where matching gave up', () => {
    const { site, override } = fulfil(openOnePage(DEAR, BODY), 'body', {});
    const findings = judgeInWords(site, override, 1280);
    const texts = findings.map(({ text }) => text);
    expect(texts.some((text) => /^not proved: \d+ elements not read$/.test(text)))
      .withContext(texts.join(' | '))
      .toBe(true);
    expect(findings.filter(({ standing }) => standing === 'holds')).toEqual([]);
    expect(inspect(site, 1, numberOn(site, '.note'), '', 1280).unread[0].elements).toBeGreaterThan(0);
  });

  it('is counted with the pages that are short', () => {
    const steps = takeCensus(openOnePage(DEAR, BODY), [], 1280);
    let step = steps.next();
    while (!step.done) step = steps.next();
    expect(step.value.unread.map(({ name, reasons }) => [name, reasons])).toEqual([['Home', []]]);
    expect(step.value.unread[0].elements).toBeGreaterThan(0);
  });

  it('is told of sheets that were not captured', () => {
    const { site, override } = fulfil(
      openOnePage('p { color: #444 }', '<link rel="stylesheet" href="lost.css"><p class="note">Tides</p>'),
      '.note',
      {},
    );
    const finding = judgeInWords(site, override, 1280).find(({ text }) => text === 'one sheet or rule not read');
    expect(finding?.standing).toBe('look');
    expect(finding?.basis).toContain('lost.css');
  });

  it('keeps its sheet as it was compiled', () => {
    const first = fulfil(openOnePage(DEAR, BODY), 'body', {});
    const { css, dropped, merged, unread } = tidySheet(first.site);
    expect([css, dropped, merged]).toEqual([first.site.css, [], 0]);
    expect(unread).toBeGreaterThan(0);
  });
});
