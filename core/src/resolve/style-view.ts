import { DESKTOP, type MediaEnvironment } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import type { Problem } from '../problem.js';
import { linkAround } from '../selectors/element-states.js';
import { MatchBudgetError, NO_STATES, type StateMap } from '../selectors/match-context.js';
import { ElementStyle } from './element-style.js';
import { matchBlocks, type MatchSession } from './match-blocks.js';
import type { Page } from './page.js';

export interface ViewOptions {
  readonly environment?: Partial<MediaEnvironment>;
  /** States given to elements; `pointerStates` makes those that a pointer or the keyboard would. */
  readonly states?: StateMap;
  /** States of the pseudo-element asked about, such as `hover` of a scrollbar thumb. */
  readonly pseudoStates?: ReadonlySet<string>;
}

/** Pseudo-element that inherits along its own line. */
const HIGHLIGHT = 'selection';

/** Steps of selector matching one view may take before it gives up on what is left. */
const MATCH_BUDGET = 400_000_000;
const NONE: ReadonlySet<string> = new Set();

/** A page in one environment and one set of states: where styles are asked for. */
export class StyleView {
  readonly environment: MediaEnvironment;
  readonly #session: MatchSession;
  readonly #visitedLinks: ReadonlySet<ElementNode>;
  readonly #styles = new Map<ElementNode, Map<string, ElementStyle>>();
  readonly #problems: Problem[] = [];

  constructor(readonly page: Page, options: ViewOptions = {}) {
    this.environment = { ...DESKTOP, ...options.environment };
    const states = options.states ?? NO_STATES;
    this.#visitedLinks = new Set([...states].filter(([, names]) => names.has('visited')).map(([element]) => element));
    this.#session = {
      page,
      environment: this.environment,
      // Being visited is not a state selectors may see outside the permitted longhands; it is matched apart.
      states: this.#visitedLinks.size === 0 ? states : new Map([...states].map(([element, names]) => [element, new Set([...names].filter((name) => name !== 'visited'))])),
      pseudoStates: options.pseudoStates ?? NONE,
      budget: { steps: MATCH_BUDGET },
      hasAnswers: new Map(),
      conditionAnswers: new Map(),
    };
  }

  /** What could not be decided while styles were asked for. */
  get problems(): readonly Problem[] {
    return this.#problems;
  }

  /**
   * Style of an element or of one of its pseudo-elements.
   * @param pseudo name without colons, e.g. `before`; `''` for the element.
   */
  style(element: ElementNode, pseudo = ''): ElementStyle {
    return this.#style(element, pseudo, false);
  }

  /** Style of the element with a running number. @throws {RangeError} when the page has no such element. */
  styleAt(number: number, pseudo = ''): ElementStyle {
    const element = this.page.document.elements[number];
    if (!element) throw new RangeError(`No element ${number} in a page of ${this.page.document.elements.length}`);
    return this.style(element, pseudo);
  }

  #style(element: ElementNode, pseudo: string, asVisited: boolean): ElementStyle {
    let byPseudo = this.#styles.get(element);
    if (!byPseudo) this.#styles.set(element, (byPseudo = new Map()));
    const key = asVisited ? `${pseudo}:visited` : pseudo;
    let style = byPseudo.get(key);
    if (!style) {
      style = this.#createStyle(element, pseudo, asVisited);
      byPseudo.set(key, style);
    }
    return style;
  }

  #createStyle(element: ElementNode, pseudo: string, asVisited: boolean): ElementStyle {
    const link = this.#visitedLinks.size > 0 ? linkAround(element) : null;
    const isInVisited = link !== null && this.#visitedLinks.has(link);
    const parent = pseudo === '' || pseudo === HIGHLIGHT ? element.flatParent : element;
    // Highlights inherit from the parent's highlight (CSS Pseudo 4 §3.5).
    const parentPseudo = pseudo === HIGHLIGHT ? HIGHLIGHT : '';
    const rootElement = this.page.document.rootElement;
    return new ElementStyle(element, pseudo, this.#blocks(element, pseudo, asVisited ? link : null), {
      parent: parent ? this.#style(parent, parentPseudo, asVisited && linkAround(parent) === link) : null,
      originating: pseudo === '' ? null : this.#style(element, '', asVisited),
      root: element === rootElement && pseudo === '' ? null : this.#style(rootElement, '', false),
      unvisited: asVisited ? this.#style(element, pseudo, false) : null,
      environment: this.environment,
      registered: this.page.registered,
      visited: () => (isInVisited && !asVisited ? this.#style(element, pseudo, true) : null),
    });
  }

  #blocks(element: ElementNode, pseudo: string, visitedLink: ElementNode | null): ReturnType<typeof matchBlocks> {
    try {
      // Answers of :has() differ by visited link only in ways browsers hide, so they are shared.
      return matchBlocks(this.#session, element, pseudo, visitedLink);
    } catch (error) {
      if (!(error instanceof MatchBudgetError)) throw error;
      if (this.#problems.length === 0) this.#problems.push({ code: 'too-large', reason: error.message, loc: null });
      return [];
    }
  }

  /** Whether a pseudo-element generates a box: `::before` and `::after` need content, others their element. */
  generates(element: ElementNode, pseudo: string): boolean {
    if (pseudo !== 'before' && pseudo !== 'after') return true;
    if (NOT_GENERATING.has(element.localName)) return false;
    if (element.localName === 'input' && !GENERATING_INPUTS.has(element.attributes.get('type')?.toLowerCase() ?? '')) return false;
    const content = this.style(element, pseudo).computed('content');
    return content.kind === 'text' && content.text !== 'normal' && content.text !== 'none';
  }
}

/** Replaced elements and most form controls have no place for generated content in browsers (common practice). */
const NOT_GENERATING = new Set(['img', 'textarea', 'select', 'video', 'audio', 'iframe', 'canvas', 'object', 'embed', 'br', 'meta', 'link', 'script', 'style', 'title', 'head', 'base', 'svg']);
const GENERATING_INPUTS = new Set(['checkbox', 'radio']);
