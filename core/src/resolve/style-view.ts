import { DESKTOP, type MediaEnvironment } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import type { Problem } from '../problem.js';
import { hasSay, linkAround } from '../selectors/element-states.js';
import { changedRules } from '../rules/changed-rules.js';
import type { StyleRule } from '../rules/style-rule.js';
import { MatchBudgetError, NO_STATES, restContext, type Consulted, type StateMap } from '../selectors/match-context.js';
import { matchesSelector } from '../selectors/match-selector.js';
import type { MatchedBlock } from '../cascade/block.js';
import { AlikeElements } from './alike.js';
import { ElementStyle, type StyleSurroundings } from './element-style.js';
import { matchBlocks, type MatchSession } from './match-blocks.js';
import type { Page } from './page.js';
import { noteShortfall } from './shortfall.js';
import { PerElement } from './per-element.js';
import { StyleShare, type RestMatches } from './style-share.js';

export interface ViewOptions {
  readonly environment?: Partial<MediaEnvironment>;
  /** States given to elements; `pointerStates` makes those that a pointer or the keyboard would. */
  readonly states?: StateMap;
  /** States of the pseudo-element asked about, such as `hover` of a scrollbar thumb. */
  readonly pseudoStates?: ReadonlySet<string>;
  /** What it has in common with other views of the same captured page in the same environment; its own when absent. */
  readonly share?: StyleShare;
}

/** Pseudo-element that inherits along its own line. */
const HIGHLIGHT = 'selection';

/** Steps of selector matching one view may take before it gives up on what is left: some, and some for each element. */
const MATCH_BUDGET = 1_000_000;
const MATCH_BUDGET_PER_ELEMENT = 3_000;
const NONE: ReadonlySet<string> = new Set();
const NOT_VISITED = (): null => null;

/** A page in one environment and one set of states: where styles are asked for. */
export class StyleView {
  readonly environment: MediaEnvironment;
  readonly #session: MatchSession;
  readonly #visitedLinks: ReadonlySet<ElementNode>;
  #styles: PerElement<ElementStyle>;
  /** Styles matched as inside a visited link. */
  readonly #visitedStyles: PerElement<ElementStyle>;
  readonly #problems: Problem[] = [];
  /** What hangs on values alone, kept for all views that share it. */
  readonly share: StyleShare;
  /** Whether what matches an element at rest is known to other views, or to be told them. */
  readonly #sharesMatches: boolean;
  readonly #atRest: RestMatches;

  constructor(
    readonly page: Page,
    options: ViewOptions = {},
  ) {
    this.environment = { ...DESKTOP, ...page.environment, ...options.environment };
    this.#styles = new PerElement(page.document);
    this.#visitedStyles = new PerElement(page.document);
    const states = options.states ?? NO_STATES;
    this.#visitedLinks = new Set([...states].filter(([, names]) => names.has('visited')).map(([element]) => element));
    // What is inside visited links looks otherwise than its values say.
    this.share = (this.#visitedLinks.size === 0 ? options.share : undefined) ?? new StyleShare();
    const givesAttributes = [...states.values()].some((names) => [...names].some((name) => /^!?[.[]/.test(name)));
    this.#sharesMatches =
      options.share !== undefined &&
      this.#visitedLinks.size === 0 &&
      !givesAttributes &&
      options.pseudoStates === undefined;
    this.#session = {
      page,
      environment: this.environment,
      // Being visited is not a state selectors may see outside the permitted longhands; it is matched apart.
      states:
        this.#visitedLinks.size === 0
          ? states
          : new Map(
              [...states].map(([element, names]) => [
                element,
                new Set([...names].filter((name) => name !== 'visited')),
              ]),
            ),
      givesNames: [...states.values()].some((names) => [...names].some((name) => name.startsWith('.'))),
      pseudoStates: options.pseudoStates ?? NONE,
      budget: { steps: MATCH_BUDGET + MATCH_BUDGET_PER_ELEMENT * page.document.elements.length },
      hasAnswers: new Map(),
      conditionAnswers: answersFor(page, this.environment),
      alike: new AlikeElements(page, states),
    };
    this.#atRest = this.share.matches(page, this.#session.conditionAnswers);
  }

  /**
   * The same view of the page with another veneer. Styles that the change cannot touch are taken over: those of
   * elements that no changed rule of the veneer, old or new, matches, and that stand in no such element.
   * @returns the view and the elements it has to resolve again.
   */
  dressed(page: Page): { readonly view: StyleView; readonly touched: ReadonlySet<ElementNode> } {
    const view = new StyleView(page, {
      environment: this.environment,
      states: this.#session.states,
      pseudoStates: this.#session.pseudoStates,
    });
    const { gone, come } = changedRules(this.page.veneerRules, page.veneerRules);
    const touched = touchedBy([...gone, ...come], page, this.#session.states);
    if (this.#visitedLinks.size > 0) return { view, touched: new Set(page.document.elements) };
    view.#styles = this.#styles.only((element) => !touched.has(element));
    return { view, touched };
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
    const styles = asVisited ? this.#visitedStyles : this.#styles;
    let style = styles.get(element, pseudo);
    if (!style) {
      style = this.#asAtRest(element, pseudo) ?? this.#createStyle(element, pseudo, asVisited);
      styles.set(element, pseudo, style);
    }
    return style;
  }

  /** The style that another view has at rest, where no state has a say in what matches the element or in what it inherits. */
  #asAtRest(element: ElementNode, pseudo: string): ElementStyle | null {
    if (!this.#sharesMatches || pseudo === HIGHLIGHT) return null;
    const known = this.#atRest.get(element, pseudo);
    if (!known?.style || !isUntouched(known.consulted, this.#session.states)) return null;
    const parent = pseudo === '' ? element.flatParent : element;
    const root = this.page.document.rootElement;
    const isAlike =
      known.style.parent === (parent && this.#style(parent, '', false)) &&
      (known.style.root === null || known.style.root === this.#style(root, '', false));
    return isAlike ? known.style : null;
  }

  #createStyle(element: ElementNode, pseudo: string, asVisited: boolean): ElementStyle {
    const link = this.#visitedLinks.size > 0 ? linkAround(element) : null;
    const isInVisited = link !== null && this.#visitedLinks.has(link);
    const parent = pseudo === '' || pseudo === HIGHLIGHT ? element.flatParent : element;
    // Highlights inherit from the parent's highlight (CSS Pseudo 4 §3.5).
    const parentPseudo = pseudo === HIGHLIGHT ? HIGHLIGHT : '';
    const rootElement = this.page.document.rootElement;
    const blocks = this.#blocks(element, pseudo, asVisited ? link : null);
    const parentStyle = parent ? this.#style(parent, parentPseudo, asVisited && linkAround(parent) === link) : null;
    const surroundings: StyleSurroundings = {
      parent: parentStyle,
      originating: pseudo === '' ? null : this.#style(element, '', asVisited),
      root: element === rootElement && pseudo === '' ? null : this.#style(rootElement, '', false),
      unvisited: asVisited ? this.#style(element, pseudo, false) : null,
      environment: this.environment,
      registered: this.page.registered,
      pageSchemes: this.page.metaColorScheme,
      visited: isInVisited && !asVisited ? () => this.#style(element, pseudo, true) : NOT_VISITED,
    };
    const key =
      asVisited || pseudo === HIGHLIGHT || (!parentStyle && element !== rootElement)
        ? null
        : this.#twinKey(element, pseudo, blocks);
    if (key === null) return new ElementStyle(element, pseudo, blocks, surroundings);
    const around = parentStyle?.identity ?? null;
    const twin = this.share.twin(around, key);
    const style = new ElementStyle(element, pseudo, blocks, surroundings, twin);
    if (!twin) this.share.keep(around, key, style);
    const known =
      this.#sharesMatches && this.#session.states.size === 0 ? this.#atRest.get(element, pseudo) : undefined;
    if (known) known.style ??= style;
    return style;
  }

  /** What two elements under one parent must share to come to the same values. */
  #twinKey(element: ElementNode, pseudo: string, blocks: readonly MatchedBlock[]): string {
    // What a pseudo-element shows may be taken from the attributes of its element.
    let key = pseudo === '' ? element.namespace + element.localName : `${element.number}::${pseudo}`;
    for (const name of TELLING_ATTRIBUTES) {
      const value = element.attributes.get(name);
      if (value !== undefined) key += `[${name}=${value}]`;
    }
    for (const block of blocks) key += this.share.keyOf(block);
    return key;
  }

  #blocks(element: ElementNode, pseudo: string, visitedLink: ElementNode | null): readonly MatchedBlock[] {
    const { states } = this.#session;
    const known = this.#sharesMatches ? this.#atRest.get(element, pseudo) : undefined;
    if (known && isUntouched(known.consulted, states)) return known.blocks;
    if (!this.#sharesMatches || states.size > 0 || known) return this.#match(element, pseudo, visitedLink, null);
    const consulted: Consulted = { names: null, isOpaque: false };
    const blocks = this.#match(element, pseudo, visitedLink, consulted);
    if (!consulted.isOpaque && this.#problems.length === 0)
      this.#atRest.set(element, pseudo, { blocks, consulted, style: null });
    return blocks;
  }

  #match(
    element: ElementNode,
    pseudo: string,
    visitedLink: ElementNode | null,
    consulted: Consulted | null,
  ): readonly MatchedBlock[] {
    try {
      // Answers of :has() differ by visited link only in ways browsers hide, so they are shared.
      return matchBlocks(this.#session, element, pseudo, visitedLink, consulted);
    } catch (error) {
      if (!(error instanceof MatchBudgetError)) throw error;
      noteShortfall(this.page, element);
      if (this.#problems.length === 0) this.#problems.push({ code: 'too-large', reason: error.told, loc: null });
      return [];
    }
  }

  /** Whether a pseudo-element generates a box: `::before` and `::after` need content, others their element. */
  generates(element: ElementNode, pseudo: string): boolean {
    if (pseudo !== 'before' && pseudo !== 'after') return true;
    if (NOT_GENERATING.has(element.localName)) return false;
    if (element.localName === 'input' && !GENERATING_INPUTS.has(element.attributes.get('type')?.toLowerCase() ?? ''))
      return false;
    // Most elements have no rule for theirs: nothing is to be worked out then.
    if (!this.#styles.get(element, pseudo) && this.#blocks(element, pseudo, null).length === 0) return false;
    const content = this.style(element, pseudo).computed('content');
    return content.kind === 'text' && content.text !== 'normal' && content.text !== 'none';
  }
}

/** Whether all that was asked about at rest is answered the same in some states. */
function isUntouched({ names }: Consulted, states: StateMap): boolean {
  if (names === null) return true;
  for (const [element, asked] of names) {
    const given = states.get(element);
    if (given) for (const name of asked) if (hasSay(given, name)) return false;
  }
  return true;
}

const answersByPage = new WeakMap<Page['base'], Map<string, MatchSession['conditionAnswers']>>();

/** Answers to the conditions of a page's rules in one environment, shared by all its views: a page has hundreds. */
function answersFor(page: Page, environment: MediaEnvironment): MatchSession['conditionAnswers'] {
  let byEnvironment = answersByPage.get(page.base);
  if (!byEnvironment) answersByPage.set(page.base, (byEnvironment = new Map()));
  const key = JSON.stringify(environment);
  let answers = byEnvironment.get(key);
  if (!answers) byEnvironment.set(key, (answers = new WeakMap()));
  return answers;
}

/** Elements that rules match, with all that is inside them: it may inherit. */
function touchedBy(rules: readonly StyleRule[], page: Page, states: StateMap): Set<ElementNode> {
  const touched = new Set<ElementNode>();
  if (rules.length === 0) return touched;
  const context = { ...restContext(page.document), states };
  const selectors = rules.flatMap((rule) => rule.selectors);
  for (const element of page.document.elements) {
    const parent = element.flatParent;
    const isInside =
      parent !== null &&
      (touched.has(parent) || (parent.number > element.number && hasTouchedAncestor(element, touched)));
    if (
      isInside ||
      selectors.some(
        (selector) =>
          selector.pseudoElements.some(({ name }) => name === 'part') || matchesSelector(selector, element, context),
      )
    )
      touched.add(element);
  }
  return touched;
}

function hasTouchedAncestor(element: ElementNode, touched: ReadonlySet<ElementNode>): boolean {
  for (let node = element.flatParent; node; node = node.flatParent) if (touched.has(node)) return true;
  return false;
}

/** Attributes by which native controls differ in what they come to. */
const TELLING_ATTRIBUTES = ['type', 'multiple', 'size'];

/** Replaced elements and most form controls have no place for generated content in browsers (common practice). */
const NOT_GENERATING = new Set([
  'img',
  'textarea',
  'select',
  'video',
  'audio',
  'iframe',
  'canvas',
  'object',
  'embed',
  'br',
  'meta',
  'link',
  'script',
  'style',
  'title',
  'head',
  'base',
  'svg',
]);
const GENERATING_INPUTS = new Set(['checkbox', 'radio']);
