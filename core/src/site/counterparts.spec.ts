import { say, spoken } from '@upper-veneer/words';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { inspect } from '../inspect/inspect.js';
import { judgeInWords } from '../testing/in-words.js';
import { counterpartsOf } from './counterparts.js';
import { openSite, type SiteModel } from './site-model.js';

/** Pages with the same header, each with a body of its own. */
const site = (bodies: readonly string[], classOf: (page: number) => string = () => ''): SiteModel =>
  openSite({
    pages: bodies.map((body, i) => ({
      id: i + 1,
      name: `Page ${i + 1}`,
      path: `p${i}.html`,
      html: `<!doctype html><body class="${classOf(i)}"><header><a href="a.html">Tides</a><a href="b.html">Boats</a><a href="c.html">Shop</a></header><main>${body}</main>`,
    })),
    stylesheets: {},
    parts: [],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
const numberOf = (model: SiteModel, text: string): number =>
  model.pages.get(1)?.document.elements.find(({ ownText }) => ownText === text)?.number ?? -1;
const wish = (element: number): OverrideWish => ({
  pageId: 1,
  element,
  pseudo: '',
  reach: 'one',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css: '#0a5c46' },
  width: 1280,
});

describe('an element that equal pages repeat', () => {
  const equal = site(['<p>one</p>', '<p>two</p><p>more</p>', '']);
  const boats = numberOf(equal, 'Boats');

  it('is written for all of them, and says so before and after', () => {
    const plan = planOverride(equal, wish(boats));
    if (!plan.ok) throw new Error(say(plan.reason));
    expect(plan.put[0].reach).toBe('group');
    const one = inspect(equal, 1, boats, '', 1280).reach.find(({ reach }) => reach === 'one');
    expect([one?.elements, one?.pages]).toEqual([3, 3]);
    const made = withOverrides(equal, plan);
    const [reached, spill] = judgeInWords(made, plan.put[0], 1280).map(({ text }) => text);
    expect([reached, spill]).toEqual(['reaches 3 of 3', 'no spill']);
    // Changed again, it is the same override, not a second one.
    const again = planOverride(made, { ...wish(boats), value: { kind: 'literal', css: '#7a1f1f' } });
    if (!again.ok) throw new Error(say(again.reason));
    expect(withOverrides(made, again).overrides.length).toBe(1);
  });

  it('stays alone where its page has a name, or where it is not repeated', () => {
    const named = site(['<p>one</p>', '<p>two</p>'], (page) => `p-${page === 0 ? 'home' : 'trips'}`);
    expect(counterpartsOf(named, 1, numberOf(named, 'Boats')).length).toBe(1);
    const plan = planOverride(named, wish(numberOf(named, 'Boats')));
    expect(plan.ok && plan.put[0].reach).toBe('one');
    const apart = site(['<p>one</p><p>two</p>', '<h2>two</h2>']);
    expect(counterpartsOf(apart, 1, numberOf(apart, 'two')).length).toBe(1);
  });

  it('is refused for one page alone', () => {
    const plan = planOverride(equal, { ...wish(boats), pages: [1] });
    expect(spoken(plan.ok ? '' : plan.reason)).toContain('these pages give no class or id');
  });
});
