import { isOfAnother, type Override } from './override.js';
import { isScrollbarPart } from './scrollbars.js';
import type { OverrideWish } from './override-wish.js';

/** The wish that an override fulfils, or one like it: for the same thing, as far, on the same pages. */
export function wishOf(
  override: Override,
  width: number,
  other: Partial<Pick<OverrideWish, 'state' | 'property' | 'value' | 'pseudo' | 'parent'>> = {},
): OverrideWish {
  const { pageId, element, pseudo, reach, group, state, parent, widths, pages, spared, property, value, through } =
    override;
  const asked = through
    ? { element: through.element, pseudo: through.pseudo, state: through.state, property: through.property }
    : { element, pseudo, state, property };
  const wish = { pageId, ...asked, reach, group, widths, pages, spared, value, width, ...other };
  const ofParent = isOfAnother(wish.state) ? { parent: other.parent ?? parent } : {};
  return isScrollbarPart(wish.pseudo) && override.selector.endsWith(':hover')
    ? { ...wish, ...ofParent, pseudoState: 'hover' }
    : { ...wish, ...ofParent };
}
