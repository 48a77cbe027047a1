import type { MediaEnvironment } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import { applicableStates } from '../grid/applicable-states.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { statesTogether } from '../reach/threshold.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { shortfallOf } from '../resolve/shortfall.js';
import { StyleShares, hangsOnViewport, isByWidth, type StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import type { StateMap } from '../selectors/match-context.js';
import { OVERRIDE_STATES, type OverrideState } from '../veneer/override.js';
import { writeRules, type CompileOptions } from '../veneer/compile-veneer.js';
import type { VeneerRule } from '../veneer/veneer-rule.js';
import type { Setting } from '../conditions/environment.js';
import { touchedOn } from '../selectors/touched.js';

/** What outcomes are compared over. */
export interface OutcomeGround extends CompileOptions {
  readonly pages: readonly Page[];
  readonly settings: readonly Setting[];
}

/** States an element can be in at once: a focused link may be hovered, a pressed one focused. */
export const STATE_PAIRS: readonly (readonly [OverrideState, OverrideState])[] = [
  ['hover', 'focus'],
  ['focus', 'active'],
  ['visited', 'hover'],
  ['visited', 'focus'],
  ['current', 'hover'],
  ['checked', 'focus'],
  ['invalid', 'focus'],
  ['filled', 'focus'],
];

/** States an element can be in, alone and at once. */
const TOGETHER: readonly (readonly OverrideState[])[] = [
  ...OVERRIDE_STATES.filter((state) => !state.startsWith('parent')).map((state) => [state]),
  ...STATE_PAIRS,
];

/** One page in one set of states in one environment: where rules are compared. */
export interface OutcomeSpot {
  readonly page: Page;
  readonly touched: readonly ElementNode[];
  readonly states: StateMap;
  readonly environment: Partial<MediaEnvironment>;
  /** What all views of the page in the environment have in common. */
  readonly share: StyleShare;
}

/** Everywhere that rules can show: every page, every state and pair of states, every width, with hover and without where that makes a difference. */
export function* outcomeSpots(
  ground: Pick<OutcomeGround, 'pages' | 'settings' | 'hoverOnly'>,
  rules: readonly VeneerRule[],
): Generator<OutcomeSpot> {
  const selectors = [...new Set(rules.map(({ selector }) => selector))];
  const devices = ground.hoverOnly ? [{}, TOUCH] : [{}];
  const asked = new Set(selectors.flatMap(statesIn));
  for (const page of ground.pages) {
    const { hits, touched } = touchedOn(page, selectors);
    if (touched.length === 0) continue;
    const shares = new StyleShares(
      isByWidth(page) ||
        rules.some(({ declarations }) => declarations.some(({ value }) => hangsOnViewport(JSON.stringify(value)))),
    );
    const places = [...hits].map((element) => ({ page, element }));
    const byState = new Map(
      OVERRIDE_STATES.map((state) => [
        state,
        places.filter(({ element }) => applicableStates(element).includes(state)),
      ]),
    );
    for (const group of TOGETHER) {
      // One state may be the theme's alone, which a rule for rest covers or not; two at once matter where the rules ask for one.
      if (group.length > 1 && !group.some((state) => asked.has(state))) continue;
      if (group.some((state) => state !== 'rest' && byState.get(state)?.length === 0)) continue;
      const states = new Map<ElementNode, Set<string>>();
      for (const state of group)
        for (const [node, names] of statesTogether(byState.get(state) ?? [], state))
          states.set(node, new Set([...(states.get(node) ?? []), ...names]));
      for (const setting of ground.settings)
        for (const device of devices)
          yield {
            page,
            touched,
            states,
            environment: { ...setting, ...device },
            share: shares.of({ ...setting, ...device }),
          };
    }
  }
}

/** A device that does not hover, where rules kept to those that do are not there. */
const TOUCH: Partial<MediaEnvironment> = { hover: false, pointer: 'coarse' };

const STATE_OF: Readonly<Record<string, OverrideState>> = {
  ':hover': 'hover',
  ':focus': 'focus',
  ':active': 'active',
  ':visited': 'visited',
  ':disabled': 'disabled',
  ':checked': 'checked',
  ':invalid': 'invalid',
  ':user-invalid': 'invalid',
  ':placeholder-shown': 'filled',
};

/** States a selector asks about. A mark of the current one is told from its class by the page alone, so it always counts. */
function statesIn(selector: string): OverrideState[] {
  return [
    'current',
    ...Object.entries(STATE_OF)
      .filter(([text]) => selector.includes(text))
      .map(([, state]) => state),
  ];
}

/** Pseudo-elements that rules are for; `''` for elements themselves. */
export function pseudosOf(rules: readonly VeneerRule[]): string[] {
  return [
    ...new Set([
      '',
      ...rules.flatMap(({ selector }) =>
        [...selector.matchAll(/::([\w-]+)(?!\w|\()/g)].map(([, name]) => name).filter((name) => name !== 'part'),
      ),
    ]),
  ];
}

/** Whether two lists of rules are shown to come to the same computed values wherever those that differ between them can show; what was not read shows nothing. */
export function sameOutcome(
  ground: OutcomeGround,
  before: readonly VeneerRule[],
  after: readonly VeneerRule[],
): boolean {
  const differing = [
    ...before.filter((rule) => !after.includes(rule)),
    ...after.filter((rule) => !before.includes(rule)),
  ];
  if (differing.length === 0) return true;
  const [cssBefore, cssAfter] = [before, after].map((rules) => writeRules(rules, ground));
  return sameSheets(ground, differing, (page) => [withVeneer(page, cssBefore), withVeneer(page, cssAfter)]);
}

/**
 * Whether two sheets are shown to come to the same computed values wherever the rules that differ between them can show.
 * @param dress a page under either sheet.
 */
export function sameSheets(
  ground: Pick<OutcomeGround, 'pages' | 'settings' | 'hoverOnly'>,
  differing: readonly VeneerRule[],
  dress: (page: Page) => readonly [Page, Page],
): boolean {
  const longhands = [
    ...new Set(
      differing.flatMap(({ declarations }) => declarations.flatMap(({ property }) => longhandsOfProperty(property))),
    ),
  ];
  const pseudos = pseudosOf(differing);
  const dressed = new Map(ground.pages.map((page) => [page, dress(page)]));
  for (const { page, touched, states, environment, share } of outcomeSpots(ground, differing)) {
    const [a, b] = (dressed.get(page) ?? []).map((variant) => new StyleView(variant, { states, environment, share }));
    for (const element of touched) {
      for (const pseudo of pseudos) {
        const [one, other] = [a.style(element, pseudo), b.style(element, pseudo)];
        if (one.identity === other.identity) continue;
        if (
          longhands.some(
            (longhand) =>
              one.resolved(longhand) !== other.resolved(longhand) ||
              String(one.color(longhand)?.channels) !== String(other.color(longhand)?.channels),
          )
        )
          return false;
      }
    }
    if (shortfallOf(page) > 0) return false;
  }
  return true;
}
