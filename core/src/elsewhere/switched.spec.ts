import { say, spoken } from '@upper-veneer/words';
import { inspect } from '../inspect/inspect.js';
import { planOverride } from '../plan/plan-override.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { judgeInWords } from '../testing/in-words.js';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import type { OverrideState } from '../veneer/override.js';
import { placesOf } from '../site/places.js';

const RIVER = 'rgb(16, 74, 71)';

/** Cases in which the look of one element hangs on another: what stands in the page, and the same page once it is switched, written by hand. */
const CASES: readonly {
  readonly what: string;
  readonly theme: string;
  readonly body: string;
  readonly switched: string;
  readonly target: string;
  readonly head: string;
  readonly selector: RegExp;
}[] = [
  {
    what: 'a tick before it',
    theme: '.knob { background: #ccc } .sw input:checked + .knob { background: lime }',
    body: '<label class=sw><input type=checkbox><i class=knob></i></label><label class=sw><input type=checkbox><i class=knob></i></label>',
    switched:
      '<label class=sw><input type=checkbox checked><i class=knob></i></label><label class=sw><input type=checkbox checked><i class=knob></i></label>',
    target: '.knob',
    head: 'checked',
    selector: /input\[type="checkbox"\]:checked \+ \.knob/,
  },
  {
    what: 'a tick before what it stands in',
    theme: '.tick:checked ~ .row b { background: lime }',
    body: '<div><input class=tick type=checkbox><p></p><div class=row><b>x</b></div></div>',
    switched: '<div><input class=tick type=checkbox checked><p></p><div class=row><b>x</b></div></div>',
    target: 'b',
    head: 'checked',
    selector: /\.tick:checked ~ .*b/,
  },
  {
    what: 'an attribute of its parent',
    theme: '.drop { background: #ccc } .menu[aria-expanded=true] .drop { background: lime }',
    body: '<div class=menu aria-expanded=false><p class=drop>x</p></div>',
    switched: '<div class=menu aria-expanded=true><p class=drop>x</p></div>',
    target: '.drop',
    head: 'expanded',
    selector: /\[aria-expanded="true"\] \.drop/,
  },
  {
    what: 'two attributes that say the same',
    theme: '.item { background: #ccc } [data-state=open] .item { background: lime }',
    body: '<div class=box aria-expanded=false data-state=closed><p class=item>x</p></div>',
    switched: '<div class=box aria-expanded=true data-state=open><p class=item>x</p></div>',
    target: '.item',
    head: 'expanded',
    selector: /^\.box\[aria-expanded="true"\] (?:p|\.item)/,
  },
  {
    what: 'details that open',
    theme: 'summary { background: #ccc } details[open] > summary { background: lime }',
    body: '<details><summary>x</summary></details>',
    switched: '<details open><summary>x</summary></details>',
    target: 'summary',
    head: 'open',
    selector: /details\[open\] summary/,
  },
  {
    what: 'details that stand open',
    theme: 'summary { background: lime } details:not([open]) > summary { background: #ccc }',
    body: '<details open><summary>x</summary></details>',
    switched: '<details><summary>x</summary></details>',
    target: 'summary',
    head: 'closed',
    selector: /details:not\(\[open\]\) summary/,
  },
  {
    what: 'a class of its parent',
    theme: '.nav .entry { background: #ccc } .nav.is-open .entry { background: lime }',
    body: '<div class=nav><a class=entry href=1>x</a></div>',
    switched: '<div class="nav is-open"><a class=entry href=1>x</a></div>',
    target: '.entry',
    head: '.is-open',
    selector: /\.nav\.is-open \.entry/,
  },
  {
    what: 'a class that its parent has',
    theme: '.nav .entry { background: #ccc } .nav.is-open .entry { background: lime }',
    body: '<div class="nav is-open"><a class=entry href=1>x</a></div>',
    switched: '<div class=nav><a class=entry href=1>x</a></div>',
    target: '.entry',
    head: 'not .is-open',
    selector: /^\.nav:not\(\.is-open\) (?:a|\.entry)/,
  },
  {
    what: 'its own attribute',
    theme: '.tab { background: #ccc } .tab[aria-selected=true] { background: lime }',
    body: '<b class=tab aria-selected=false>x</b>',
    switched: '<b class=tab aria-selected=true>x</b>',
    target: '.tab',
    head: 'selected',
    selector: /\.tab\[aria-selected="true"\]/,
  },
  {
    what: 'a tick inside it',
    theme: '.card { background: #ccc } .card:has(:checked) { background: lime }',
    body: '<div class=card><input type=checkbox></div>',
    switched: '<div class=card><input type=checkbox checked></div>',
    target: '.card',
    head: 'checked',
    selector: /\.card:has\(> input:checked\)/,
  },
];

describe('a state that lives elsewhere', () => {
  const stateOf = (site: SiteModel, target: string): { state: OverrideState; carrier: number } => {
    const found = inspect(site, 1, numberOn(site, target), '', 1280);
    return { state: 'switched', carrier: found.carrier?.element ?? -1 };
  };

  for (const { what, theme, body, switched, target, head, selector } of CASES) {
    // Reference: the page as its script would leave it, resolved at rest.
    it(`is a column: ${what}`, () => {
      const site = openOnePage(theme, body);
      const number = numberOn(site, target);
      const found = inspect(site, 1, number, '', 1280);
      expect(found.states).toContain('switched');
      expect(say(found.carrier?.heads.switched ?? '')).toBe(head);
      const page = pageOf(site, 1);
      const after = pageOf(openOnePage(theme, switched), 1);
      const asked = viewIn(
        page,
        elementOf(page, number),
        'switched',
        1280,
        elementOf(page, found.carrier?.element ?? -1),
      );
      expect(asked.style(elementOf(page, number)).resolved('background-color')).toBe(
        new StyleView(after).style(elementOf(after, number)).resolved('background-color'),
      );
    });

    it(`is overridden, for all alike and for nothing else: ${what}`, () => {
      const site = openOnePage(theme, body);
      const { state, carrier } = stateOf(site, target);
      const made = fulfil(site, target, { property: 'background-color', state, parent: carrier });
      expect(made.override.selector).toMatch(selector);
      const css = made.site.css;
      const paint = (text: string): string[] => {
        const page = parsePage(`<!doctype html><html><head><style>${theme}</style></head><body>${text}</body></html>`, {
          veneer: css,
        });
        return page.document.elements.map((element) => new StyleView(page).style(element).resolved('background-color'));
      };
      const bare = (text: string): string[] => {
        const page = pageOf(openOnePage(theme, text), 1);
        return page.document.elements.map((element) => new StyleView(page).style(element).resolved('background-color'));
      };
      const reached = new Set(placesOf(site, made.override).map(({ element }) => element.number));
      expect(paint(body)).toEqual(bare(body));
      expect(paint(switched)).toEqual(bare(switched).map((color, number) => (reached.has(number) ? RIVER : color)));
      expect(
        judgeInWords(made.site, made.override, 1280).filter(
          ({ standing, text }) => standing === 'fails' && !text.includes(': 1'),
        ),
      ).toEqual([]);
    });
  }

  it('is told apart off, on, locked, and both', () => {
    const site = openOnePage(
      '.k { background: #ccc } input:checked + .k { background: lime } input:disabled + .k { background: #eee } input:checked:disabled + .k { background: olive }',
      '<label><input type=checkbox><i class=k></i></label>',
    );
    const { grid, states, carrier } = inspect(site, 1, numberOn(site, '.k'), '', 1280);
    const fill = grid.find(({ row }) => row === 'fill');
    expect(states).toEqual(
      ['rest', 'hover', 'focus', 'active', 'switched', 'locked', 'switched-locked'].filter((state) =>
        states.includes(state as OverrideState),
      ) as OverrideState[],
    );
    expect(Object.fromEntries(fill?.cells.map(({ state, hex }) => [state, hex]) ?? [])).toEqual(
      jasmine.objectContaining({
        rest: '#cccccc',
        switched: '#00ff00',
        locked: '#eeeeee',
        'switched-locked': '#808000',
      }),
    );
    expect(spoken(carrier?.words)).toEqual({
      switched: 'input is checked',
      locked: 'input is disabled',
      'switched-locked': 'input is checked and disabled',
    });
  });

  // HTML §6.6: a label or a drawn track never holds the focus; its control does.
  it('is the focus of the control, where what is drawn cannot hold it', () => {
    const site = openOnePage(
      '.k { background: #ccc } input:focus-visible + .k { outline: 2px solid navy } .f:focus-within .l { color: navy }',
      '<label><input type=checkbox><i class=k></i></label><p class=f><b class=l>Name</b><input></p>',
    );
    for (const [target, row, hex] of [
      ['.k', 'ring', '#000080'],
      ['.l', 'text', '#000080'],
    ] as const) {
      const found = inspect(site, 1, numberOn(site, target), '', 1280);
      expect(found.states).not.toContain('focus');
      expect(found.grid.find((line) => line.row === row)?.cells.find(({ state }) => state === 'focused')?.hex)
        .withContext(target)
        .toBe(hex);
    }
    const { carrier } = inspect(site, 1, numberOn(site, '.k'), '', 1280);
    const made = fulfil(site, '.k', { property: 'outline-color', state: 'focused', parent: carrier?.element ?? -1 });
    expect(made.override.selector).toMatch(/input(?:\[type="checkbox"\])?:focus-visible \+ (?:i|\.k)$/);
    expect(judgeInWords(made.site, made.override, 1280).map(({ text }) => text)).toContain(
      jasmine.stringMatching(/^\d+\.\d : 1, focus ring$/),
    );
  });

  it('is named where an override for rest hides it, with what gives it back', () => {
    const made = fulfil(
      openOnePage(
        '.k { background: #ccc } :where(input:checked) + .k { background: lime }',
        '<label><input type=checkbox><i class=k></i></label>',
      ),
      '.k',
      { property: 'background-color' },
    );
    const found = judgeInWords(made.site, made.override, 1280).find(
      ({ text }) => text === 'hides that input is checked',
    );
    expect(found?.repair?.wishes[0]).toEqual(
      jasmine.objectContaining({
        state: 'switched',
        parent: numberOn(made.site, 'input'),
        value: { kind: 'literal', css: 'rgb(0, 255, 0)' },
      }),
    );
    const plan = planOverride(made.site, { ...made.override, ...found?.repair?.wishes[0], width: 1280 } as Parameters<
      typeof planOverride
    >[1]);
    expect(plan.ok && plan.put[0].selector).toMatch(/input:checked \+ (?:i|\.k)$/);
  });
});
