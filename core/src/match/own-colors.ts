import { ranksAlike, type MatchedBlock } from '../cascade/block.js';
import type { CensusState } from '../census/census-states.js';
import type { ElementNode } from '../dom/tree.js';
import { isOpenToVisited } from '../grid/visited.js';
import { LONGHANDS } from '../properties/longhands.js';
import type { ElementStyle, RankedDeclaration } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { kindOf } from '../selectors/alike.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { passedOverOn } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import { inScope, type MatchScope } from './scope.js';
import { isSeen } from './shape/painted-box.js';

/** What paints colours; rings stay, so that the focus is seen. */
const COLORED = [
  'color',
  'background-color',
  'background-image',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'box-shadow',
  'text-shadow',
  'fill',
  'stroke',
] as const;

/** What a property without any declaration is given, where it is not inherited. */
const INITIAL: Readonly<Record<string, string>> = {
  'background-color': 'transparent',
  'background-image': 'none',
  'box-shadow': 'none',
};

/** One property of one element or pseudo-element that can hold a colour. */
export interface ColoredPlace {
  readonly element: ElementNode;
  readonly pseudo: string;
  readonly property: (typeof COLORED)[number];
}

/**
 * All that can hold a colour in the scope on one page, in one state, but for exceptions.
 * @param rest the page at rest: what a state leaves as it is there was read already.
 */
export function* coloredPlaces(
  site: SiteModel,
  scope: MatchScope,
  pageId: number,
  view: StyleView,
  state: CensusState,
  rest: StyleView,
): Generator<ColoredPlace> {
  const isIn = inScope(site, scope, pageId);
  for (const element of view.page.document.elements) {
    if (!isIn(element) || !isSeen(element)) continue;
    for (const pseudo of pseudosOf(view, element)) {
      if (state !== 'rest' && view.style(element, pseudo).identity === rest.style(element, pseudo).identity) continue;
      const style = view.style(element, pseudo);
      for (const property of COLORED) {
        // A side without width is not drawn.
        const isDrawn = !property.startsWith('border-') || style.resolved(property.replace('color', 'width')) !== '0px';
        if (!isDrawn || (state === 'visited' && !isOpenToVisited(property))) continue;
        // What the same rule says in a state as at rest is read there.
        if (state !== 'rest' && ranksAlike(topOf(style, property), topOf(rest.style(element, pseudo), property)))
          continue;
        const change = { property, pseudo, state: state === 'checked' ? 'rest' : state } as const;
        if (!passedOverOn(site.exceptions, view.page, change).has(element)) yield { element, pseudo, property };
      }
    }
  }
}

function topOf(style: ElementStyle, property: string): MatchedBlock | undefined {
  return style.seen(property).ranked(property)[0]?.block;
}

/** Whose a declaration is: a part's own where its rule matches nothing outside the scope, or where it stands on an element in it. */
export class Ownership {
  readonly #own = new Map<string, boolean>();

  constructor(
    readonly site: SiteModel,
    readonly scope: MatchScope,
  ) {}

  /** CSS that a colour of the part's own is to give way to: what the next ply says that is not its own; empty where none of its own decides. */
  givesWayTo(view: StyleView, pageId: number, { element, pseudo, property }: ColoredPlace): string {
    const style = view.style(element, pseudo).seen(property);
    const ranked = style.ranked(property);
    const isOwn = ({ block }: RankedDeclaration): boolean => this.#isOwn(block, pageId, element);
    if (ranked.length === 0 || !isOwn(ranked[0])) return '';
    const next = ranked.find((declaration) => !isOwn(declaration));
    if (next?.block.origin === 'user-agent') return 'revert';
    const bare = LONGHANDS.get(property)?.inherited ? 'inherit' : (INITIAL[property] ?? 'currentcolor');
    if (!next) return bare;
    const { value } = next.entry;
    // Of a shorthand that waits on a variable only the settled part is this longhand's.
    if (value.kind === 'variable' && value.shorthand !== null) return style.settle(property, value) ?? bare;
    return value.kind === 'wide' ? value.keyword : value.text;
  }

  #isOwn({ rule, origin }: MatchedBlock, pageId: number, carrier: ElementNode): boolean {
    if (origin === 'user-agent') return false;
    if (!rule) return inScope(this.site, this.scope, pageId)(carrier);
    if (rule.sheet.name === VENEER_SHEET_NAME) return false;
    let is = this.#own.get(rule.selectorText);
    if (is === undefined) {
      is = [...this.site.pages].every(([id, page]) => {
        const isIn = inScope(this.site, this.scope, id);
        return matchedInAnyState(page, rule.selectorText).every(isIn);
      });
      this.#own.set(rule.selectorText, is);
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
