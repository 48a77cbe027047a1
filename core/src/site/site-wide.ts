import type { GridRowName } from '../grid/rows.js';
import { isFocusable, isLink } from '../selectors/element-states.js';
import type { OverrideState, Reach } from '../veneer/override.js';
import { pageOf, type SiteModel } from './site-model.js';

/** Something every page has that is no part of any: where it is looked at, and how far it reaches. */
export interface SiteWideTarget {
  readonly name: 'Links in text' | 'Text highlight' | 'Scrollbar' | 'Focus ring';
  readonly element: number;
  readonly pseudo: string;
  readonly row: GridRowName;
  readonly state: OverrideState;
  readonly reach: Reach;
}

/** Site-wide targets of a page; links and the ring only where something there shows them. */
export function siteWideTargets(site: SiteModel, pageId: number): SiteWideTarget[] {
  const { document } = pageOf(site, pageId);
  const root = document.rootElement.number;
  const link = document.elements.find((element) => isLink(element) && element.classes.length === 0 && ['p', 'li', 'td', 'dd'].includes(element.parent?.localName ?? '') && element.root === document.root) ?? document.elements.find((element) => isLink(element) && element.root === document.root);
  const focusable = document.elements.find((element) => isFocusable(element) && element.root === document.root);
  return [
    ...(link ? [{ name: 'Links in text' as const, element: link.number, pseudo: '', row: 'text' as const, state: 'rest' as const, reach: 'everywhere' as const }] : []),
    { name: 'Text highlight', element: root, pseudo: 'selection', row: 'fill', state: 'rest', reach: 'everywhere' },
    { name: 'Scrollbar', element: root, pseudo: '', row: 'scrollbar', state: 'rest', reach: 'alike' },
    ...(focusable ? [{ name: 'Focus ring' as const, element: focusable.number, pseudo: '', row: 'ring' as const, state: 'focus' as const, reach: 'everywhere' as const }] : []),
  ];
}
