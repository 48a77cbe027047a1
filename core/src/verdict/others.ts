import type { Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { isOfAnother, type Override, type OverrideState } from '../veneer/override.js';
import { USUAL_WIDTHS } from '../site/environments.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { tellersOf } from '../elsewhere/tellers.js';
import { tellingParent } from './telling-parent.js';
import type { Aim } from './aim.js';

/** The elements whose states tell on a target, by state: a parent's hover, a switch's being switched. */
export type Others = ReadonlyMap<OverrideState, { readonly element: ElementNode; readonly words: Message | null }>;

/** What tells on the target besides its own states, where that is not what the override itself is for: the parent's hover, and the nearest switch. */
export function othersOf(without: SiteModel, override: Override, { pseudo, state, longhands }: Aim): Others {
  const others = new Map<OverrideState, { element: ElementNode; words: Message | null }>();
  if (override.through || override.property.startsWith('--') || isOfAnother(state) || pseudo.startsWith('-webkit-'))
    return others;
  const page = pageOf(without, override.pageId);
  const element = elementOf(page, override.element);
  const width = override.widths?.max ?? override.widths?.min ?? USUAL_WIDTHS[0];
  const parent = tellingParent(page, element, pseudo, width, viewIn(page, element, 'rest', width));
  if (parent) others.set('parent-hover', { element: parent, words: null });
  const tellers = tellersOf(page, element, pseudo, { width }, longhands[0]);
  for (const { element: carrier, state: switched, words } of tellers)
    if (carrier === tellers[0].element) others.set(switched, { element: carrier, words });
  return others;
}
