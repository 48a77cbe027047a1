import type { ElementNode, PageDocument } from '../dom/tree.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import type { Color } from '../values/color.js';
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

const passedOver = new WeakMap<Exceptions, WeakMap<Page['base'], Map<string, ReadonlySet<ElementNode>>>>();

/** Elements of a page that bulk acts pass over: places left alone with what is in them, and what shows a colour left alone by a longhand, at rest on a desktop screen. */
export function passedOverOn(exceptions: Exceptions, page: Page, longhand: string | null): ReadonlySet<ElementNode> {
  let byPage = passedOver.get(exceptions);
  if (!byPage) passedOver.set(exceptions, (byPage = new WeakMap()));
  let byLonghand = byPage.get(page.base);
  if (!byLonghand) byPage.set(page.base, (byLonghand = new Map()));
  const key = longhand ?? '';
  const known = byLonghand.get(key);
  if (known) return known;
  const found = new Set<ElementNode>();
  const context = restContext(page.document);
  const view = longhand !== null && exceptions.colors.length > 0 ? new StyleView(withVeneer(page, '')) : null;
  for (const element of page.document.elements) {
    if (exceptions.places.length > 0 && isInPlace(exceptions, context, element)) found.add(element);
    else if (view && longhand !== null) {
      const color = view.style(element).color(longhand);
      if (
        color &&
        (color.alpha ?? 0) > 0 &&
        exceptions.colors.some((other) => deltaE2000(other, color) <= SAME_TO_THE_EYE)
      )
        found.add(element);
    }
  }
  byLonghand.set(key, found);
  return found;
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
  if (places.length === 0) return false;
  return isInPlace({ colors, places }, restContext(document), element);
}
