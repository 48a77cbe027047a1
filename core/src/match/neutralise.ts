import { CENSUS_STATES, type CensusState } from '../census/census-states.js';
import { EDGE_SIDES } from '../properties/edges.js';
import type { SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { ArrivedViews } from './arrived-views.js';
import { layTasks, type LaidMatch, type LayProgress } from './lay-match.js';
import type { Task } from './lay-tasks.js';
import { Ownership, coloredPlaces } from './own-colors.js';
import { pagesOf, type MatchScope } from './scope.js';
import { verifyNeutral } from './verify-neutral.js';
import type { MatchProof } from './verify-match.js';

/** What leaving a part to its theme comes to. */
export interface Neutralised extends LaidMatch {
  readonly after: SiteModel;
  /** Texts that take their colour from the theme already. */
  readonly themes: number;
  /** What resolving the site once more found: missed is what shows a colour of the part's own still. */
  readonly proof: MatchProof;
  /** Elements of which something could be read or seen before, and cannot any more, in some state and setting. */
  readonly hardToRead: number;
}

const SIDES = EDGE_SIDES.map(({ color }) => color);
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
  const steps = verifyNeutral(site, laid.after, scope);
  for (;;) {
    const step = steps.next();
    if (step.done) return { ...laid, themes, ...step.value };
    yield { done: laid.laid, of: laid.laid };
  }
}

/** Reads which colours are a part's own, and what each is to give way to. */
class Reading {
  readonly #views: ArrivedViews;
  readonly #ownership: Ownership;

  constructor(
    readonly site: SiteModel,
    readonly scope: MatchScope,
    width: number,
  ) {
    this.#views = new ArrivedViews(site, width);
    this.#ownership = new Ownership(site, scope);
  }

  /** Colours of a page that the part's own declarations decide, and how many texts show the theme's at rest. */
  read(pageId: number): { readonly cleared: readonly Cleared[]; readonly themes: number } {
    const cleared: Cleared[] = [];
    let themes = 0;
    const rest = this.#views.viewOf(pageId, 'rest');
    for (const state of CENSUS_STATES) {
      const view = this.#views.viewOf(pageId, state);
      for (const place of coloredPlaces(this.site, this.scope, pageId, view, state, rest)) {
        const { element, pseudo, property } = place;
        const css = this.#ownership.givesWayTo(view, pageId, place);
        if (css === '') themes += state === 'rest' && property === 'color' && pseudo === '' ? 1 : 0;
        else cleared.push({ spot: { pageId, element: element.number }, pseudo, property, state, css });
      }
    }
    return { cleared, themes };
  }
}
