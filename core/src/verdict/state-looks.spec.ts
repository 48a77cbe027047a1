import type { Spoken } from '@upper-veneer/words';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { elementOf, pageOf } from '../site/site-model.js';
import { oneOfEachKind } from './state-looks.js';
import { planAll, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { judgeInWords } from '../testing/in-words.js';
import type { Finding } from './finding.js';

const THEME = `.go { background: #ddd } .go:hover { background: #bbb } .side .go:hover { background: #5b50ee } .card .title { color: #333 } .card:hover .title { color: #c48f00 }
@media (max-width: 600px) { .go:focus { background: #0a0 } } .tab { color: #444 } .tab:hover { color: #222 } #top .tab { color: #555 }`;
const BODY = `<main id=top><button class=go>a</button><button class=go>b</button><a class=tab href=t>t</a></main><aside class=side><button class=go>c</button></aside><div class=card><h3 class=title>Mill</h3></div>`;

function judged(selector: string, some: Partial<OverrideWish>, width = 1280) {
  const made = fulfil(openOnePage(THEME, BODY), selector, some);
  const looks = (site = made.site): Spoken<Finding>[] =>
    judgeInWords(site, made.override, width).filter(({ text }) => / still | ?hides /.test(text));
  return { ...made, looks };
}

// What each state shows is worked out by hand from CSS Cascading 5 §6 and Selectors 4 §9.
describe('states that an override covers or leaves behind', () => {
  it('are looked for on all alike, each kind of place once', () => {
    const { site, looks } = judged('.go', { property: 'background-color' });
    const found = looks().filter(({ text }) => text.startsWith('hover'));
    expect(found.map(({ text }) => text)).toEqual(['hover still #bbbbbb and 1 more']);
    expect(found[0].basis).toContain('#bbbbbb, #5b50ee');
    expect(found[0].spots).toEqual([
      { pageId: 1, element: numberOn(site, '.go') },
      { pageId: 1, element: numberOn(site, '.side .go') },
    ]);
  });

  it('are looked for at every width, and mended by one press for all', () => {
    const { site, looks } = judged('.go', { property: 'background-color' });
    const focus = looks().filter(({ text }) => text.startsWith('focus'));
    expect(focus.map(({ text }) => text)).toEqual(['focus still #00aa00']);
    const hover = looks().find(({ text }) => text.startsWith('hover still'));
    const mended = withOverrides(site, planAll(site, hover?.repair?.wishes ?? []));
    expect(looks(mended).some(({ text }) => text.startsWith('hover'))).toBeFalse();
  });

  it('are not looked for at widths the override is not for', () => {
    expect(
      judged('.go', { property: 'background-color', widths: { min: 800, max: null } })
        .looks()
        .some(({ text }) => text.startsWith('focus')),
    ).toBeFalse();
  });

  it('are looked for in the hover of the parent that tells on it', () => {
    const { site, looks } = judged('.title', {});
    const found = looks().filter(({ text }) => text.startsWith('parent hovered'));
    expect(found.map(({ text }) => text)).toEqual(['parent hovered still #c48f00']);
    expect(found[0].repair?.wishes[0].parent).toBe(numberOn(site, '.card'));
    const mended = withOverrides(site, planAll(site, found[0].repair?.wishes ?? []));
    expect(mended.css).toMatch(/\.card:hover \.title \{\n {2}color: /);
    expect(looks(mended).some(({ text }) => text.startsWith('parent hovered'))).toBeFalse();
  });

  it('are named where a stronger rule for rest covers what the page showed', () => {
    const { looks } = judged('.tab', { value: { kind: 'literal', css: '#104a47' } });
    expect(looks().map(({ text }) => text)).not.toContain('hides hover');
    const site = openOnePage(
      '.tab.tab { color: #444 } .tab:hover { text-decoration: underline; color: #222 } .tab.x:hover { color: #a00 } p .tab { color: #555 }',
      '<p><a class="tab x" href=t>t</a></p>',
    );
    const made = fulfil(site, '.tab', { important: true } as Partial<OverrideWish>);
    const strong = { ...made.override, selector: '.tab.x.tab.tab.tab' };
    const covered = judgeInWords(withOverrides(made.site, { put: [strong], drop: [made.override.id] }), strong, 1280);
    const hidden = covered.find(({ text }) => text === 'hides hover');
    expect(hidden?.basis).toContain('rgb(170, 0, 0)');
    expect(hidden?.repair?.wishes[0].state).toBe('hover');
  });

  it('are let be once they are said to be meant, also when the value changes', () => {
    const { site, override, looks } = judged('.go', { property: 'background-color' });
    const settled = withOverrides(site, { put: [{ ...override, meant: ['hover' as const] }], drop: [] });
    const texts = judgeInWords(settled, settled.overrides[0], 1280).map(({ text }) => text);
    expect(looks().some(({ text }) => text.startsWith('hover'))).toBeTrue();
    expect(texts.some((text) => text.startsWith('hover'))).toBeFalse();
    const again = fulfil(settled, '.go', { property: 'background-color', value: { kind: 'literal', css: '#123456' } });
    expect(again.override.meant).toEqual(['hover']);
  });

  it('are named where they come in through another property', () => {
    const made = fulfil(
      openOnePage(
        '.go { background: #ddd } .go:hover { background-image: linear-gradient(#fff, #888) } .go:active { opacity: .4 } .go:focus { box-shadow: inset 0 0 4px red }',
        BODY,
      ),
      '.go',
      { property: 'background-color' },
    );
    const texts = judgeInWords(made.site, made.override, 1280).map(({ text }) => text);
    expect(texts).toEqual(
      jasmine.arrayContaining([
        'hover lays a gradient or picture over it',
        'pressed dims it',
        'focus lays a shadow over it',
      ]),
    );
    const repair = judgeInWords(made.site, made.override, 1280).find(({ text }) =>
      text.startsWith('hover lays'),
    )?.repair;
    const mended = withOverrides(made.site, planAll(made.site, repair?.wishes ?? []));
    expect(judgeInWords(mended, made.override, 1280).some(({ text }) => text.startsWith('hover lays'))).toBeFalse();
  });
});

describe('oneOfEachKind', () => {
  it('takes one of those with the same names in the same surroundings', () => {
    const site = openOnePage('', BODY);
    const { elements } = pageOf(site, 1).document;
    const buttons = elements.filter(({ localName }) => localName === 'button');
    expect(oneOfEachKind(buttons)).toEqual([buttons[0], buttons[2]]);
    expect(oneOfEachKind([])).toEqual([]);
    expect(oneOfEachKind([elementOf(pageOf(site, 1), numberOn(site, '.title'))]).length).toBe(1);
  });
});
