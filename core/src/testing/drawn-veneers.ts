import { seededRandom } from './random.js';
import { pointerStates, type StateName } from '../elsewhere/pointer-states.js';
import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { openSite, type SiteModel } from '../site/site-model.js';
import type { Override, OverrideState } from '../veneer/override.js';

const THEME = `.a { color: red; background-color: silver } .b { color: blue } #c .a { color: green } .a:hover { color: orange; background-color: gold } a:focus { outline-color: teal }
.box .b:hover { background-color: pink } .off { opacity: .5 !important } @media (max-width: 600px) { .b { color: navy } } @layer low { .d { color: brown } } a:visited { color: purple }`;
const HTML = `<!doctype html><link rel=stylesheet href=t.css><body><div class="box" id=c><a class="a" href=x>1</a><p class="b">2 <i class="d">3</i></p><button class="a b">4</button></div>
<section class="box"><p class="a">5</p><a class="b" href=y style="color: maroon">6</a><span class="d off">7</span></section></body>`;
export const SELECTORS = [
  '.a',
  '.b',
  '.d',
  '.box .a',
  '#c .b',
  'a',
  '.a:hover',
  '.b:hover',
  'a:focus',
  'a:visited',
  'p',
  '.box p:hover',
  '.off',
  '.a.b',
  '.box',
  'i',
  ':root',
  'a:active',
];
export const DECLARATIONS: readonly (readonly [property: string, values: readonly string[]])[] = [
  ['color', ['red', 'blue', 'inherit', '#102030']],
  ['background-color', ['silver', 'transparent', 'gold']],
  ['border-color', ['red', 'black']],
  ['opacity', ['1', '0.5']],
  ['outline-color', ['teal', 'red']],
];
const STATES: readonly StateName[] = ['rest', 'hover', 'focus', 'active', 'visited'];

/** A page whose theme has a say in every state, without a veneer. */
export function openDrawn(): SiteModel {
  return openSite({
    pages: [{ id: 1, name: 'x', path: 'x.html', html: HTML }],
    stylesheets: { 't.css': THEME },
    parts: [{ id: 1, name: 'One', kind: 'theme', selector: '#c', openers: [] }],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
}

/** State a drawn selector is for. */
export function stateOf(selector: string): OverrideState {
  return (['hover', 'focus', 'active', 'visited'] as const).find((name) => selector.includes(`:${name}`)) ?? 'rest';
}

/** Everything a page comes to, resolved afresh: every element in every state of every element, at two widths. */
export function outcome(site: SiteModel, css: string): string {
  const page = withVeneer([...site.closed.values()][0], css);
  const lines: string[] = [];
  for (const width of [1280, 390]) {
    for (const state of STATES) {
      for (const lead of state === 'rest' ? page.document.elements.slice(0, 1) : page.document.elements) {
        if (['html', 'head', 'link', 'meta'].includes(lead.localName)) continue;
        const view = new StyleView(page, { states: pointerStates(page.document, lead, state), environment: { width } });
        for (const element of page.document.elements)
          lines.push(
            ['color', 'background-color', 'border-top-color', 'border-left-color', 'opacity', 'outline-color']
              .map((name) => view.style(element).resolved(name) + String(view.style(element).color(name)?.channels))
              .join(),
          );
      }
    }
  }
  return lines.join('\n');
}

/** A veneer drawn by a seed: rules that cover one another, repeat one another and say what the page says anyway. */
export function drawVeneer(seed: number): Override[] {
  const random = seededRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const byKey = new Map<string, Override>();
  const count = 2 + Math.floor(random() * 7);
  for (let i = 0; i < count; i += 1) {
    const selector = pick(SELECTORS);
    const [property, values] = pick(DECLARATIONS);
    const override: Override = {
      id: `${seed}-${i}`,
      partId: pick([1, null]),
      pageId: 1,
      element: 1 + Math.floor(random() * 12),
      pseudo: '',
      reach: 'alike',
      state: stateOf(selector),
      property,
      value: { kind: 'literal', css: pick(values) },
      selector,
      important: random() < 0.1,
      ...(random() < 0.15 ? { widths: { min: null, max: 700 } } : {}),
    };
    byKey.set(`${override.partId}${selector}${property}${override.widths ? 'w' : ''}`, override);
  }
  return [...byKey.values()];
}
