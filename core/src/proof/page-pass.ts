import { CENSUS_STATES, type CensusState } from '../census/census-states.js';
import { NEVER_SEEN, looksAlike, type Painting } from '../census/paintings.js';
import type { Setting } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import { whatLiesAt } from '../ground/spots.js';
import { matchPaintings } from '../match/paintings.js';
import { isHidden } from '../parts/propose-openers.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { passedOverOn } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import type { Lighting } from '../veneer/lighting.js';
import { Readings } from '../verdict/legibility.js';
import { lookAtAnswers } from './answers.js';
import { Causes, type Found } from './causes.js';
import { lookWithOtherEyes } from './eyes.js';
import { lookAtLinkOrder } from './link-order.js';
import { lookAtRunningLink } from './links-in-text.js';
import type { Looked, PageLook, SiteKnowledge } from './looked.js';
import { lookAtStrays } from './ours.js';
import { READ_PSEUDOS, lookAtReadings } from './reads.js';
import { lookAtWhatIsSeen } from './seen.js';
import type { Reach } from './reach.js';
import { PROOF_KINDS } from './proof-finding.js';
import { TOGETHER, leadingState, wholeInState, type ProofState } from './proof-state.js';
import { SheetWatch } from './sheet-use.js';
import { toldApart } from './told-by-setting.js';

/** What one page came to. */
export interface PageFound {
  readonly found: Found;
  /** Elements that an exception leaves alone. */
  readonly leftAlone: number;
}

/** One page as it is to be looked at. */
export interface PageTask {
  readonly site: SiteModel;
  readonly pageId: number;
  readonly page: Page;
  readonly lighting: Lighting;
  readonly known: SiteKnowledge;
  readonly reach: Reach;
  readonly partIdOf: (element: ElementNode) => number | null;
  /** Elements that are looked at. */
  readonly isIn: (element: ElementNode) => boolean;
}

/** Every check of an element; each takes what is its own. */
const CHECKS: readonly ((at: Looked) => void)[] = [
  lookAtReadings,
  lookAtRunningLink,
  lookAtWhatIsSeen,
  lookAtAnswers,
  lookAtStrays,
  lookWithOtherEyes,
];

/**
 * Looks at a page in every state: in the first setting at all of it, in the others at what may be painted otherwise there, and where
 * things were laid out, at what is read on them.
 * A generator: it yields after each state, and in one with many elements after some.
 */
export function* lookAtPage(task: PageTask, settings: readonly Setting[]): Generator<ProofState, PageFound> {
  const { page, isIn, reach } = task;
  const [first, ...others] = settings;
  const alone = passedOverOn(task.site.exceptions, page, {});
  const elements = page.document.elements.filter((element) => isIn(element) && !NEVER_SEEN.has(element.localName));
  const look = new Look(task, first, true);
  const differing = others.map((setting) => {
    const own = new Look(task, setting, false);
    const told = toldApart(page, first, setting);
    // What is painted alike may lie on something else.
    const lying = page.layouts?.has(setting.width)
      ? elements.filter((element) => !told.has(element) && liesOtherwise(look, own, element))
      : [];
    return { own, told, lying, differs: new Set([...told, ...lying]) };
  });
  const watch = new SheetWatch(reach);
  const into = new Causes(
    first,
    (number) => task.partIdOf(page.document.elements[number]),
    (number) =>
      differing.flatMap(({ own, differs }) => (differs.has(page.document.elements[number]) ? [] : [own.setting.width])),
  );
  yield* lookIn(look, elements, { alone, watch, into, checks: CHECKS });
  for (const { own, told, lying } of differing) {
    const elsewhere = elements.filter((element) => told.has(element));
    if (lying.length > 0) yield* lookIn(own, lying, { alone, watch: null, into, checks: [lookAtReadings] });
    if (elsewhere.length > 0) yield* lookIn(own, elsewhere, { alone, watch, into, checks: CHECKS });
  }
  return { found: into.found, leftAlone: elements.filter((element) => alone.has(element)).length };
}

/** Whether what is read of an element may lie on something else in another setting. */
function liesOtherwise(a: Look, b: Look, element: ElementNode): boolean {
  return READ_PSEUDOS.some((pseudo) => {
    if (pseudo !== '' && (pseudo === 'selection' || !a.rest.generates(element, pseudo))) return false;
    if (pseudo === 'placeholder' && !element.attributes.has('placeholder')) return false;
    const here = whatLiesAt(a.rest, element, pseudo);
    return here === null || here !== whatLiesAt(b.rest, element, pseudo);
  });
}

interface Looking {
  readonly alone: ReadonlySet<ElementNode>;
  readonly watch: SheetWatch | null;
  readonly into: Causes;
  readonly checks: typeof CHECKS;
}

/** Elements after which a sign of progress is given. */
const SIGN_EACH = 400;

function* lookIn(
  look: Look,
  elements: readonly ElementNode[],
  { alone, watch, into, checks }: Looking,
): Generator<ProofState, void> {
  let visited: StyleView | null = null;
  const touchedBy = new Map<ElementNode, number>();
  for (const state of CENSUS_STATES) {
    const view = look.viewIn(state);
    const readings = new Readings(view, state);
    let looked = 0;
    for (const element of state === 'rest' ? elements : look.touchedIn(view, state, elements)) {
      if ((looked += 1) % SIGN_EACH === 0) yield state;
      if (isOfTogether(state) && !look.looksAtRest(view, element))
        touchedBy.set(element, (touchedBy.get(element) ?? 0) + 1);
      const at: Looked = { on: look, element, state, view, readings, into };
      if (!alone.has(element)) for (const check of checks) check(at);
      watch?.take(at);
    }
    if (state === 'visited') visited = view;
    if (state === 'hover' && visited && watch)
      lookAtLinkOrder(
        look,
        elements.filter((element) => !alone.has(element)),
        { visited, hover: view },
        into,
      );
    yield state;
  }
  const several = elements.filter((element) => !alone.has(element) && (touchedBy.get(element) ?? 0) > 1);
  if (several.length > 0) {
    lookTogether(look, several, into);
    yield 'together';
  }
}

/** Looks at what several states tell on as it is in all of them at once: what cannot be read or seen then, and can in each. */
function lookTogether(look: Look, elements: readonly ElementNode[], into: Causes): void {
  const view = look.viewIn('together');
  const readings = new Readings(view, leadingState('together'));
  const own = into.apart();
  for (const element of elements) {
    const at: Looked = { on: look, element, state: 'together', view, readings, into: own };
    for (const check of [lookAtReadings, lookAtWhatIsSeen]) check(at);
  }
  for (const [element, { noted, looks }] of own.found) {
    PROOF_KINDS.forEach((kind, i) => {
      for (let count = 0; count < looks[i]; count += 1) into.look(kind, element);
    });
    const known = into.found.get(element)?.noted ?? [];
    for (const one of noted)
      if (!known.some(({ kind, place }) => kind === one.kind && place.pseudo === one.place.pseudo))
        // Which of the states is to give way is for the designer to say.
        into.note({ ...one, mend: null });
  }
}

function isOfTogether(state: CensusState): boolean {
  return (TOGETHER as readonly CensusState[]).includes(state);
}

class Look implements PageLook {
  readonly site: SiteModel;
  readonly pageId: number;
  readonly page: Page;
  readonly lighting: Lighting;
  readonly known: SiteKnowledge;
  readonly rest: StyleView;
  readonly #barePage: Page;
  readonly dressedPseudos: ReadonlySet<string>;
  readonly partIdOf: (element: ElementNode) => number | null;
  readonly #share = new StyleShare();
  readonly #bareShare = new StyleShare();
  readonly #bare = new Map<ProofState, StyleView>();
  readonly #paintings = new WeakMap<StyleView, Map<ElementNode, readonly Painting[]>>();
  readonly #hidden = new WeakMap<StyleView, Map<ElementNode, boolean>>();

  constructor(
    task: PageTask,
    readonly setting: Setting,
    readonly isFirst: boolean,
  ) {
    this.site = task.site;
    this.pageId = task.pageId;
    this.page = task.page;
    this.lighting = task.lighting;
    this.known = task.known;
    this.partIdOf = task.partIdOf;
    this.rest = new StyleView(this.page, { environment: setting, share: this.#share });
    this.#barePage = withVeneer(this.page, '');
    this.dressedPseudos = new Set(
      this.page.veneerRules.flatMap(({ selectors }) =>
        selectors.flatMap(({ pseudoElements }) => pseudoElements.map(({ name }) => name)),
      ),
    );
  }

  viewIn(state: ProofState): StyleView {
    return state === 'rest'
      ? this.rest
      : new StyleView(this.page, {
          environment: this.setting,
          states: wholeInState(this.page.document, state),
          share: this.#share,
        });
  }

  bareIn(state: ProofState): StyleView {
    let view = this.#bare.get(state);
    if (!view)
      this.#bare.set(
        state,
        (view = new StyleView(this.#barePage, {
          environment: this.setting,
          states: wholeInState(this.page.document, state),
          share: this.#bareShare,
        })),
      );
    return view;
  }

  /** Elements that a state tells on: those that come out otherwise, and all in them; and those that could answer to it. */
  touchedIn(view: StyleView, state: CensusState, elements: readonly ElementNode[]): ElementNode[] {
    const changed = new Map<ElementNode, boolean>();
    const isTouched = (element: ElementNode): boolean => {
      let is = changed.get(element);
      if (is === undefined)
        changed.set(
          element,
          (is =
            (state === 'visited'
              ? view.style(element).seen('color') !== view.style(element)
              : !looksAlike(view, this.rest, element)) ||
            (element.flatParent !== null && isTouched(element.flatParent))),
        );
      return is;
    };
    const asked = ANSWERING[state];
    return elements.filter((element) => isTouched(element) || (asked?.(element) ?? false));
  }

  /** Whether a state leaves an element, and all around it, as they are at rest. */
  looksAtRest(view: StyleView, element: ElementNode): boolean {
    for (let node: ElementNode | null = element; node; node = node.flatParent)
      if (!looksAlike(view, this.rest, node)) return false;
    return true;
  }

  paintingsIn(view: StyleView, element: ElementNode): readonly Painting[] {
    let byElement = this.#paintings.get(view);
    if (!byElement) this.#paintings.set(view, (byElement = new Map()));
    let found = byElement.get(element);
    if (!found) byElement.set(element, (found = matchPaintings(view, element)));
    return found;
  }

  isHidden(view: StyleView, element: ElementNode): boolean {
    let byElement = this.#hidden.get(view);
    if (!byElement) this.#hidden.set(view, (byElement = new Map()));
    let is = byElement.get(element);
    if (is === undefined) byElement.set(element, (is = isHidden(view, element)));
    return is;
  }
}

const isOneOf =
  (...names: readonly string[]) =>
  ({ localName }: ElementNode): boolean =>
    names.includes(localName);

/** Elements whose silence in a state is a finding too. */
const ANSWERING: Readonly<Partial<Record<CensusState, (element: ElementNode) => boolean>>> = {
  hover: isOneOf('a', 'button', 'input'),
  focus: (element) =>
    isOneOf('a', 'button', 'input', 'select', 'textarea', 'summary')(element) || element.attributes.has('tabindex'),
  checked: isOneOf('input'),
};
