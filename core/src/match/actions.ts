import type { ElementNode } from '../dom/tree.js';
import { boxOf } from '../resolve/page-layout.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { alikeKey, kindOf } from '../selectors/alike.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { hasFill } from './job.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** Buttons, links drawn as buttons and links of a scope on one page: each look once, by its first. */
export function actionsOn(page: Page, isIn: (element: ElementNode) => boolean, view: StyleView): ElementNode[] {
  const seen = new Set<string>();
  return page.document.elements.filter((element) => {
    const kind = kindOf(element);
    if ((kind !== 'button' && kind !== 'link') || !isIn(element)) return false;
    const key = `${alikeKey(element)}|${kind === 'link' && !hasFill(view, element) ? '' : element.ownText.trim()}`;
    return !seen.has(key) && seen.add(key) !== null;
  });
}

/**
 * The main action of each form of a scope, and of each page for what stands in none: what sends the form, else the largest filled one.
 * Source: HTML §4.10.21.2, a form's default button; that the largest leads is common practice.
 */
export function mainActions(site: SiteModel, scope: MatchScope, width: number): Spot[] {
  return pagesOf(site, scope).flatMap((pageId): Spot[] => {
    const page = pageOf(site, pageId);
    const view = new StyleView(withVeneer(page, ''), { environment: { width } });
    const layout = page.layouts?.get(width);
    const byForm = new Map<ElementNode | null, ElementNode[]>();
    for (const element of page.document.elements.filter(inScope(site, scope, pageId))) {
      const kind = kindOf(element);
      if (kind !== 'button' && !(kind === 'link' && hasFill(view, element))) continue;
      const form = formOf(element);
      byForm.set(form, [...(byForm.get(form) ?? []), element]);
    }
    return [...byForm].flatMap(([form, actions]): Spot[] => {
      const sending = form === null ? undefined : actions.find(sendsForm);
      const areaOf = (element: ElementNode): number => {
        const box = layout && boxOf(layout, element.number);
        return box ? box.width * box.height : 0;
      };
      const lead = sending ?? [...actions].sort((a, b) => areaOf(b) - areaOf(a))[0];
      return [{ pageId, element: lead.number }];
    });
  });
}

function formOf(element: ElementNode): ElementNode | null {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (node.localName === 'form') return node;
  return null;
}

function sendsForm({ localName, attributes }: ElementNode): boolean {
  const type = (attributes.get('type') ?? (localName === 'button' ? 'submit' : '')).toLowerCase();
  return type === 'submit' || type === 'image';
}
