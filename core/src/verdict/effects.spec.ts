import { say, spoken } from '@upper-veneer/words';
import { fulfil, openOnePage } from '../testing/one-page-site.js';
import type { Override } from '../veneer/override.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { longhandsFedBy } from './fed-longhands.js';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { judgeInWords } from '../testing/in-words.js';

const GAUGE = `<river-gauge class=level><template shadowrootmode=open><style>
:host { --tone: teal; --edge: #ccc } .bar { background-color: var(--tone) } .label { color: var(--tone, red) }
.frame { border: 1px solid var(--edge) } .inner { --own: var(--tone); background-color: var(--own) } .fixed { --fixed: red; background-color: var(--fixed) }
.plain { color: gray } a { color: black } a:hover { color: var(--tone) } .far { background-color: var(--nowhere, navy) }
</style><div class=bar></div><span class=label>0.6 m</span><div class=frame></div><i class=inner></i><i class=fixed></i><b class=plain>p</b><a href=x>more</a><u class=far></u></template></river-gauge>`;
const THEME = `.card .caption { color: #444 } .card:hover .caption { color: gold } .go::before { content: "+"; color: red } .note { color: #333 }`;
const BODY = `${GAUGE}<div class="card one"><p class=caption>c</p></div><div class="card two"><p class=caption>d</p></div><a class="go first" href=1>a</a><a class="go second" href=2>b</a><p class=note>n</p>`;

function open(): SiteModel {
  return dressSite(
    openSite({
      pages: [
        { id: 1, name: 'Home', path: '1.html', html: `<!doctype html><link rel=stylesheet href=t.css><body>${BODY}` },
      ],
      stylesheets: { 't.css': THEME },
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    { swatches: [], roles: [] },
  );
}

function numberOf(site: SiteModel, name: string): number {
  const found = pageOf(site, 1).document.elements.find(
    ({ classes, localName }) => classes.includes(name) || localName === name,
  );
  if (!found) throw new Error(`No ${name}`);
  return found.number;
}

function wish(site: SiteModel, on: string, some: Partial<OverrideWish>): OverrideWish {
  return {
    pageId: 1,
    element: numberOf(site, on),
    pseudo: '',
    reach: 'one',
    state: 'rest',
    property: 'background-color',
    value: { kind: 'literal', css: 'rgb(1, 2, 3)' },
    width: 1280,
    ...some,
  };
}

function planned(site: SiteModel, wanted: OverrideWish): { readonly site: SiteModel; readonly override: Override } {
  const plan = planOverride(site, wanted);
  if (!plan.ok) throw new Error(say(plan.reason));
  return { site: withOverrides(site, plan), override: plan.put[0] };
}

function verdict(site: SiteModel, override: Override): string[] {
  return judgeInWords(site, override, 1280).map(({ text }) => text);
}

// Custom properties inherit through shadow roots, and the outer tree's declarations beat those of `:host`: CSS Variables 1 §2, CSS Scoping 1 §3.3, worked out by hand.
describe('an override through a custom property of a shadow host', () => {
  it('is set on the host, for what it was asked for', () => {
    const site = open();
    const { override } = planned(site, wish(site, 'bar', {}));
    expect([override.selector, override.property, override.element]).toEqual([
      'river-gauge',
      '--tone',
      numberOf(site, 'river-gauge'),
    ]);
    expect(override.through).toEqual({
      element: numberOf(site, 'bar'),
      pseudo: '',
      state: 'rest',
      property: 'background-color',
    });
  });

  it('spills to everything else that the property feeds, in its own states', () => {
    const site = open();
    const made = planned(site, wish(site, 'bar', {}));
    const findings = judgeInWords(made.site, made.override, 1280);
    expect(findings[0].text).toBe('reaches 1 of 1');
    expect(findings[1].text).toBe('spills to 3');
    const spilt = findings[1].spots?.map(({ element }) => element);
    expect(spilt).toEqual(
      jasmine.arrayWithExactContents([numberOf(site, 'label'), numberOf(site, 'inner'), spiltLink(site)]),
    );
    expect(findings[1].basis).toContain('background-color of i.inner');
  });

  it('is judged by itself where it is not known what it was set for, as in drafts of before', () => {
    const site = open();
    const { override } = planned(site, wish(site, 'bar', {}));
    const { through, ...old } = override;
    expect(through).toBeDefined();
    expect(verdict(dressSite(site, [old], site.palette), old).slice(0, 2)).toEqual(['reaches 1 of 1', 'no spill']);
  });

  it('spills nowhere where it feeds one thing alone, a shorthand among others', () => {
    const site = open();
    const made = planned(site, wish(site, 'frame', { property: 'border-color' }));
    expect(made.override.property).toBe('--edge');
    expect(verdict(made.site, made.override).slice(0, 2)).toEqual(['reaches 1 of 1', 'no spill']);
  });

  it('goes by what an inner property takes its value from, and not where the maker fixed it inside', () => {
    const site = open();
    expect(planned(site, wish(site, 'inner', {})).override.property).toBe('--tone');
    expect(planned(site, wish(site, 'far', {})).override.property).toBe('--nowhere');
    for (const name of ['fixed', 'plain']) {
      const plan = planOverride(site, wish(site, name, { property: name === 'plain' ? 'color' : 'background-color' }));
      expect(spoken(plan.ok ? '' : plan.reason)).toContain('no custom property of the host carries this value');
    }
  });

  it('names the longhands a property feeds, through others too', () => {
    const page = pageOf(open(), 1);
    expect(longhandsFedBy(page, '--tone')).toEqual(['background-color', 'color']);
    expect(longhandsFedBy(page, '--edge')).toEqual(jasmine.arrayContaining(['border-top-color', 'border-left-width']));
    expect(longhandsFedBy(page, '--none')).toEqual([]);
  });
});

function spiltLink(site: SiteModel): number {
  return (
    pageOf(site, 1).document.elements.find(({ localName, root }) => localName === 'a' && root.host !== null)?.number ??
    -1
  );
}

// What a selector matches: Selectors 4 §4.2 and §9, worked out by hand.
describe('the effects of an override', () => {
  it('of a parent’s state, its selector written by hand, reach all it matches', () => {
    const site = open();
    const parent = numberOf(site, 'one');
    const made = planned(
      site,
      wish(site, 'caption', { property: 'color', state: 'parent-hover', parent, reach: 'alike' }),
    );
    const override: Override = { ...made.override, selector: '.card:hover > .caption', isByHand: true };
    expect(verdict(dressSite(made.site, [override], made.site.palette), override).slice(0, 2)).toEqual([
      'reaches 2 of 2',
      'no spill',
    ]);
    const weak: Override = { ...override, selector: ':hover > .caption' };
    expect(verdict(dressSite(made.site, [weak], made.site.palette), weak)[0]).toBe('reaches 0 of 2');
  });

  it('of a pseudo-element spill to the same one of others, not to the elements', () => {
    const site = open();
    const made = planned(site, wish(site, 'first', { property: 'color', pseudo: 'before' }));
    expect(verdict(made.site, made.override).slice(0, 2)).toEqual(['reaches 1 of 1', 'no spill']);
    const wide: Override = { ...made.override, selector: 'body .go::before' };
    const findings = judgeInWords(dressSite(made.site, [wide], made.site.palette), wide, 1280);
    expect(findings[1].text).toBe('spills to 1');
    expect(findings[1].spots).toEqual([{ pageId: 1, element: numberOf(site, 'second') }]);
    const both: Override = { ...wide, selector: 'body .go::before, .note' };
    expect(verdict(dressSite(made.site, [both], made.site.palette), both)[1]).toBe('spills to 2');
  });

  it('on a text over a picture give no contrast that was not read from it', () => {
    const site = openOnePage(
      '.hero { background: url(a.png) } .hero p { color: #888 } .hero .solid { background: #fff }',
      '<div class=hero><p class=over>o</p><p class=solid>s</p></div>',
    );
    const texts = (name: string): string[] => {
      const made = fulfil(site, `.${name}`, { reach: 'one', value: { kind: 'literal', css: '#777777' } });
      return judgeInWords(made.site, made.override, 1280).map(({ text }) => text);
    };
    expect(texts('over')).toContain('1 text over a picture');
    expect(texts('solid')).not.toContain('1 text over a picture');
    // Reference: #777 on white is 4.48 : 1, a border case named in many accessibility guides; common practice.
    expect(texts('solid')).toContain('text cannot be read, 4.4 : 1');
  });
});
