import { CENSUS_STATES, type CensusState } from '../census/census-states.js';
import type { ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { isOpenToVisited } from '../grid/visited.js';
import { LONGHANDS } from '../properties/longhands.js';
import { explain, type PlySource } from '../resolve/explain.js';
import { StyleView } from '../resolve/style-view.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';
import { kindOf } from '../selectors/alike.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { passedOverOn } from '../site/exceptions.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { ArrivedViews } from './arrived-views.js';
import { layTasks, type LaidMatch, type LayProgress } from './lay-match.js';
import type { Task } from './lay-tasks.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';
import { isSeen } from './shape/painted-box.js';
import type { Told } from './tally.js';
import { verifyMatch } from './verify-match.js';

/** What leaving a part to its theme comes to. */
export interface Neutralised extends LaidMatch {
  readonly after: SiteModel;
  /** Texts that take their colour from the theme already. */
  readonly themes: number;
  /** Texts that could be read before and cannot any more. */
  readonly hardToRead: number;
  /** What changed outside the scope. */
  readonly spilt: Told;
}

const SIDES = ['top', 'right', 'bottom', 'left'].map((side) => `border-${side}-color`);
/** What paints colours; rings stay, so that the focus is seen. */
const COLORED = [
  'color',
  'background-color',
  'background-image',
  ...SIDES,
  'box-shadow',
  'text-shadow',
  'fill',
  'stroke',
];
/** What a property without any declaration is given, where it is not inherited. */
const INITIAL: Readonly<Record<string, string>> = {
  'background-color': 'transparent',
  'background-image': 'none',
  'box-shadow': 'none',
};

/** Where a declaration of the part's own decides a colour, and what it is to give way to. */
interface Cleared {
  readonly spot: Spot;
  readonly pseudo: string;
  readonly property: string;
  readonly state: CensusState;
  readonly css: string;
}

/**
 * The colours that a part's own rules give it, taken back: each place is given what the next ply says that is not the part's own:
 * the theme's declaration, else the browser's, else nothing but what is inherited. A rule is the part's own where it matches nothing
 * outside the scope. Source for the order of plies: CSS Cascading and Inheritance 5, §6.
 */
export function neutralTasks(
  site: SiteModel,
  scope: MatchScope,
  width: number,
): { readonly tasks: readonly Task[]; readonly themes: number } {
  const reading = new Reading(site, scope, width);
  const cleared = new Map<string, Cleared>();
  let themes = 0;
  for (const pageId of pagesOf(site, scope)) {
    const found = reading.read(pageId);
    themes += found.themes;
    for (const own of found.cleared) cleared.set(keyOf(own), own);
  }
  const tasks = new Map<string, Task>();
  for (const own of cleared.values()) {
    const { css, state, pseudo, spot } = own;
    const isEdge =
      SIDES.every((property) => cleared.get(keyOf({ ...own, property }))?.css === css) && SIDES.includes(own.property);
    if (isEdge && own.property !== SIDES[0]) continue;
    const property = isEdge ? 'border-color' : own.property;
    const isEcho = state !== 'rest' && cleared.get(keyOf({ ...own, state: 'rest' }))?.css === css;
    const id = JSON.stringify([property, pseudo, state, css, isEcho]);
    const value = { kind: 'literal', css } as const;
    const task = tasks.get(id) ?? {
      property,
      pseudo,
      state,
      value,
      isKept: false,
      isOfAll: false,
      isEcho,
      spots: new Map(),
    };
    tasks.set(id, task);
    task.spots.set(`${spot.pageId}:${spot.element}`, { spot, places: 1 });
  }
  return {
    tasks: [...tasks.values()].sort((a, b) => Number(a.state !== 'rest') - Number(b.state !== 'rest')),
    themes,
  };
}

function keyOf({ spot, pseudo, property, state }: Omit<Cleared, 'css'>): string {
  return `${spot.pageId}:${spot.element}:${pseudo}:${property}:${state}`;
}

/** Overrides that leave a scope to its theme, and what came of it. A generator: it yields its progress. */
export function* neutralise(site: SiteModel, scope: MatchScope, width: number): Generator<LayProgress, Neutralised> {
  const { tasks, themes } = neutralTasks(site, scope, width);
  const laid = yield* layTasks(site, tasks, width);
  const { hardToRead, spilt } = yield* afterwards(site, laid, scope, width);
  return { ...laid, themes, hardToRead, spilt };
}

function* afterwards(
  site: SiteModel,
  laid: LaidMatch & { readonly after: SiteModel },
  scope: MatchScope,
  width: number,
): Generator<LayProgress, Pick<Neutralised, 'hardToRead' | 'spilt'>> {
  const progress = { done: laid.laid, of: laid.laid };
  const check = verifyMatch(site, laid.after, scope, { strategy: 'blend', rows: [], unmet: [] });
  let step = check.next();
  while (!step.done) {
    yield progress;
    step = check.next();
  }
  let hardToRead = 0;
  for (const pageId of pagesOf(site, scope)) {
    const isIn = inScope(site, scope, pageId);
    const [then, now] = [site, laid.after].map((own) => new StyleView(pageOf(own, pageId), { environment: { width } }));
    for (const element of now.page.document.elements) {
      const style = now.style(element);
      if (!isIn(element) || !showsText(style)) continue;
      const wanted = wantedRatio(style);
      if (surroundingsOf(now, element).ratio < wanted && surroundingsOf(then, element).ratio >= wanted) hardToRead += 1;
    }
    yield progress;
  }
  return { hardToRead, spilt: step.value.spilt };
}

/** Reads the plies of places, and whose each is. */
class Reading {
  readonly #views: ArrivedViews;
  readonly #own = new Map<string, boolean>();

  constructor(
    readonly site: SiteModel,
    readonly scope: MatchScope,
    width: number,
  ) {
    this.#views = new ArrivedViews(site, width);
  }

  /** Colours of a page that the part's own declarations decide, and how many places at rest show the theme's. */
  read(pageId: number): { readonly cleared: readonly Cleared[]; readonly themes: number } {
    const cleared: Cleared[] = [];
    const isIn = inScope(this.site, this.scope, pageId);
    const rest = this.#views.viewOf(pageId, 'rest');
    let themes = 0;
    for (const state of CENSUS_STATES) {
      const view = this.#views.viewOf(pageId, state);
      for (const element of view.page.document.elements) {
        if (!isIn(element) || !isSeen(element)) continue;
        for (const pseudo of pseudosOf(view, element)) {
          // What a state leaves as it is was read at rest.
          if (state !== 'rest' && view.style(element, pseudo).identity === rest.style(element, pseudo).identity)
            continue;
          for (const property of COLORED) {
            if (state === 'visited' && !isOpenToVisited(property)) continue;
            const css = this.#clearedBy(view, pageId, element, pseudo, property);
            if (css === '') themes += state === 'rest' && property === 'color' && pseudo === '' ? 1 : 0;
            else if (!this.#isExcepted(pageId, element, property, pseudo, state))
              cleared.push({ spot: { pageId, element: element.number }, pseudo, property, state, css });
          }
        }
      }
    }
    return { cleared, themes };
  }

  /** What a declaration of the part's own is to give way to; empty where none decides. */
  #clearedBy(view: StyleView, pageId: number, element: ElementNode, pseudo: string, property: string): string {
    const { plies, inheritedFrom } = explain(view, element, property, pseudo);
    if (plies.length === 0 || inheritedFrom || !this.#isOwn(plies[0].source, pageId, element)) return '';
    const next = plies.find(({ source }) => !this.#isOwn(source, pageId, element));
    if (next) return next.source.kind === 'browser' ? 'revert' : next.value;
    return LONGHANDS.get(property)?.inherited ? 'inherit' : (INITIAL[property] ?? 'currentcolor');
  }

  #isExcepted(pageId: number, element: ElementNode, property: string, pseudo: string, state: CensusState): boolean {
    const change = { property, pseudo, state: state === 'checked' ? 'rest' : state } as const;
    return passedOverOn(this.site.exceptions, pageOf(this.site, pageId), change).has(element);
  }

  /** Whether a declaration is the part's own: an attribute of an element in it, or a rule that matches nothing outside. */
  #isOwn({ kind, selector }: PlySource, pageId: number, carrier: ElementNode): boolean {
    if (kind === 'browser') return false;
    if (kind !== 'rule') return inScope(this.site, this.scope, pageId)(carrier);
    let is = this.#own.get(selector);
    if (is === undefined) {
      is = [...this.site.pages].every(([id, page]) => {
        const isIn = inScope(this.site, this.scope, id);
        return matchedInAnyState(page, selector).every(isIn);
      });
      this.#own.set(selector, is);
    }
    return is;
  }
}

function pseudosOf(view: StyleView, element: ElementNode): string[] {
  return [
    '',
    ...['before', 'after'].filter((pseudo) => view.generates(element, pseudo)),
    ...(kindOf(element) === 'field' ? ['placeholder'] : []),
    ...(element.localName === 'li' ? ['marker'] : []),
  ];
}
