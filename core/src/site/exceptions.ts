import type { ElementNode, PageDocument } from '../dom/tree.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import type { Color } from '../values/color.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { statesTogether } from '../reach/threshold.js';
import { readComposite } from '../veneer/composite.js';
import { isOfAnother, type OverrideState } from '../veneer/override.js';
import { colorOfCss } from '../veneer/palette.js';

/** A colour, or a place by its selector, that is left alone. */
export interface SiteException {
  readonly kind: 'color' | 'place';
  readonly target: string;
}

/** Exceptions read once, to be asked often. */
export interface Exceptions {
  readonly colors: readonly Color[];
  readonly places: readonly SelectorList[];
}

export const NO_EXCEPTIONS: Exceptions = { colors: [], places: [] };

/** @throws {SelectorError} when a place is no selector. */
export function readExceptions(list: readonly SiteException[]): Exceptions {
  return {
    colors: list.flatMap(({ kind, target }) => (kind === 'color' ? (colorOfCss(target) ?? []) : [])),
    places: list.filter(({ kind }) => kind === 'place').map(({ target }) => parseSelectorList(target)),
  };
}

/** What a bulk act is about to change. */
export interface BulkChange {
  /** Absent where no property is meant. */
  readonly property?: string;
  /** Name without colons; the element itself when absent or empty. */
  readonly pseudo?: string;
  /** Rest when absent. */
  readonly state?: OverrideState;
}

const passedOver = new WeakMap<Exceptions, WeakMap<Page['base'], Map<string, ReadonlySet<ElementNode>>>>();

/** Elements of a page that bulk acts pass over: places left alone with what is in them, and what shows a colour left alone by the property that is changed, at rest or in the state meant, on a desktop screen. */
export function passedOverOn(
  exceptions: Exceptions,
  page: Page,
  { property, pseudo = '', state = 'rest' }: BulkChange,
): ReadonlySet<ElementNode> {
  let byPage = passedOver.get(exceptions);
  if (!byPage) passedOver.set(exceptions, (byPage = new WeakMap()));
  let byChange = byPage.get(page.base);
  if (!byChange) byPage.set(page.base, (byChange = new Map()));
  const longhands = property === undefined || exceptions.colors.length === 0 ? [] : coloredLonghands(property);
  const key = longhands.length === 0 ? '' : [property, pseudo, state].join();
  const known = byChange.get(key);
  if (known) return known;
  const context = restContext(page.document);
  const found = new Set(
    exceptions.places.length === 0
      ? []
      : page.document.elements.filter((element) => isInPlace(exceptions, context, element)),
  );
  const bare = withVeneer(page, '');
  const views = longhands.length === 0 ? [] : viewsOf(bare, state);
  for (const view of views)
    for (const element of page.document.elements) {
      if (found.has(element) || (pseudo !== '' && !view.generates(element, pseudo))) continue;
      const style = view.style(element, pseudo);
      if (longhands.some((longhand) => colorsOf(style, longhand).some((color) => isLeftAlone(exceptions, color))))
        found.add(element);
    }
  byChange.set(key, found);
  return found;
}

/** The page at rest, and with everything in a state. */
function viewsOf(page: Page, state: OverrideState): StyleView[] {
  if (state === 'rest' || isOfAnother(state)) return [new StyleView(page)];
  const places = page.document.elements.map((element) => ({ page, element }));
  return [new StyleView(page), new StyleView(page, { states: statesTogether(places, state) })];
}

const COMPOSITES: ReadonlySet<string> = new Set(['background-image', 'box-shadow', 'text-shadow']);

/** Longhands of a property that paint colours. */
function coloredLonghands(property: string): string[] {
  return longhandsOfProperty(property).filter(
    (longhand) => /color$|^fill$|^stroke$/.test(longhand) || COMPOSITES.has(longhand),
  );
}

function colorsOf(style: ElementStyle, longhand: string): Color[] {
  if (!COMPOSITES.has(longhand)) return [style.color(longhand)].filter((color) => color !== null);
  return readComposite(style.resolved(longhand), NO_PALETTE).colors.flatMap(
    (value) => (value.kind === 'literal' ? colorOfCss(value.css) : null) ?? [],
  );
}

const NO_PALETTE = { swatches: [], roles: [] };

function isLeftAlone({ colors }: Exceptions, color: Color): boolean {
  return (color.alpha ?? 0) > 0 && colors.some((other) => deltaE2000(other, color) <= SAME_TO_THE_EYE);
}

function isInPlace({ places }: Exceptions, context: ReturnType<typeof restContext>, element: ElementNode): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    if (places.some((place) => matchesAny(place, node, context))) return true;
  return false;
}

/** Whether a colour is left alone on an element: the colour itself, to the eye, or the element or one it is inside of. */
export function isExcepted(
  { colors, places }: Exceptions,
  document: PageDocument,
  element: ElementNode,
  color: Color,
): boolean {
  if (colors.some((other) => deltaE2000(other, color) <= SAME_TO_THE_EYE)) return true;
  return isInExceptedPlace({ colors, places }, document, element);
}

/** Whether an element, or one it is inside of, is left alone whatever its colours. */
export function isInExceptedPlace(exceptions: Exceptions, document: PageDocument, element: ElementNode): boolean {
  return exceptions.places.length > 0 && isInPlace(exceptions, restContext(document), element);
}
