import type { ElementNode, PageDocument } from '../dom/tree.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
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
    colors: list.flatMap(({ kind, target }) => (kind === 'color' ? colorOfCss(target) ?? [] : [])),
    places: list.filter(({ kind }) => kind === 'place').map(({ target }) => parseSelectorList(target)),
  };
}

/** Whether a colour is left alone on an element: the colour itself, to the eye, or the element or one it is inside of. */
export function isExcepted({ colors, places }: Exceptions, document: PageDocument, element: ElementNode, color: Color): boolean {
  if (colors.some((other) => deltaE2000(other, color) <= SAME_TO_THE_EYE)) return true;
  if (places.length === 0) return false;
  const context = restContext(document);
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    for (const place of places) if (matchesAny(place, node, context)) return true;
  }
  return false;
}
