import { openOnePage, fulfil } from '../testing/one-page-site.js';
import { dressSite, pageOf } from '../site/site-model.js';
import { StyleView } from '../resolve/style-view.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { tidySheet } from '../tidy/tidy-sheet.js';
import { hiddenBy, hides, lostWords } from './hidden.js';
import { outOfSight, softened } from './out-of-sight.js';

// What display: none and visibility: hidden take away is CSS Display 4 §2.5 and §4.
describe('what a sheet hides', () => {
  const site = openOnePage(
    '.pop { color: red }',
    '<div class=pop><h2>News</h2><p>Text <a href=x>more</a></p><input><button>Go</button><img alt="a canoe"><img alt=""></div><hr class=line>',
  );
  const { site: hidden, override } = fulfil(site, '.pop', {
    property: 'display',
    value: { kind: 'literal', css: 'none' },
  });

  it('is told with what is lost to those who listen or type', () => {
    const [found] = hiddenBy(hidden);
    expect([found.override?.id, found.lost]).toEqual([
      override.id,
      { elements: 1, links: 1, controls: 2, headings: 1, pictures: 1, hasText: true },
    ]);
    expect(lostWords(found.lost)).toBe('1 link, 2 controls, 1 heading, 1 picture and its text');
    const line = fulfil(site, '.line', { property: 'visibility', value: { kind: 'literal', css: 'hidden' } }).site;
    expect(lostWords(hiddenBy(line)[0].lost)).toBe('nothing that is read out or used');
    expect([hides('display', ' NONE '), hides('display', 'block'), hides('opacity', '0')]).toEqual([
      true,
      false,
      false,
    ]);
    expect(hiddenBy(site)).toEqual([]);
  });

  it('is noted in the sheet that leaves the product', () => {
    expect(tidySheet(hidden).css).toContain(
      '/* hides 1 link, 2 controls, 1 heading, 1 picture and its text, for screen readers and the keyboard too */\ndiv {\n  display: none;\n}',
    );
  });

  it('can be taken out of sight alone instead', () => {
    const milder = dressSite(site, [], site.palette, { ownCss: [{ partId: null, css: outOfSight('.pop', null) }] });
    const page = pageOf(milder, 1);
    const [pop] = matchedInAnyState(page, '.pop');
    const style = new StyleView(page).style(pop);
    expect([style.resolved('display'), style.resolved('position'), style.resolved('overflow-x')]).toEqual([
      'block',
      'absolute',
      'hidden',
    ]);
  });

  // Selectors 4 §4.2: of a list each selector stands for itself, so that what is added to the last tells on the last alone.
  it('is taken out of sight where and when it was hidden, all that was, and told of own CSS too', () => {
    const css = outOfSight('.pop, .line', '(max-width: 600px)');
    const milder = dressSite(site, [], site.palette, { ownCss: [{ partId: null, css }] });
    const page = pageOf(milder, 1);
    const shown = (selector: string, width: number): string =>
      new StyleView(page, { environment: { width } }).style(matchedInAnyState(page, selector)[0]).resolved('position');
    expect(['.pop', '.line'].map((name) => [shown(name, 390), shown(name, 1280)])).toEqual([
      ['absolute', 'static'],
      ['absolute', 'static'],
    ]);
    const byHand = dressSite(site, [], site.palette, {
      ownCss: [{ partId: null, css: '@media print { .pop { display: none } } .gone { display: none }' }],
    });
    expect(hiddenBy(byHand).map(({ selector, media, override: own }) => [selector, media, own])).toEqual([
      ['.pop', 'print', null],
    ]);
  });

  // CSS Cascade 5 §6.1: what beats the rule is beaten by importance alone, and a style attribute that is important by nothing.
  it('wins over what the theme says, and says where nothing wins', () => {
    const theme = openOnePage(
      '#a.pop { position: static; padding: 9px } .pop:hover { height: 9px !important } @media (max-width: 500px) { #a.pop { overflow: auto } }',
      '<div class=pop id=a>x</div><div class=pop style="clip-path: none !important">y</div>',
    );
    const { site: gone, override: own } = fulfil(theme, '.pop', {
      reach: 'alike',
      property: 'display',
      value: { kind: 'literal', css: 'none' },
    });
    const [{ media }] = hiddenBy(gone);
    const { ownCss, missed } = softened(gone, { selector: '.pop', media }, own);
    expect(ownCss[0].css.match(/^ {2}[a-z-]+(?=: .* !important;$)/gm)?.map((name) => name.trim())).toEqual([
      'position',
      'height',
      'padding',
      'overflow',
      'clip-path',
    ]);
    // Of two the second is held by its own attribute; Chromium gives the first as the core does, by `cascade.spec`'s rules.
    expect(missed).toBe(1);
    const page = pageOf(dressSite(theme, [], theme.palette, { ownCss }), 1);
    const [first] = matchedInAnyState(page, '.pop');
    const narrow = new StyleView(page, { environment: { width: 400 } }).style(first);
    expect([narrow.resolved('position'), narrow.resolved('padding-top'), narrow.resolved('overflow-x')]).toEqual([
      'absolute',
      '0px',
      'hidden',
    ]);
  });
});
