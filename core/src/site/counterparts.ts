import type { ElementNode } from '../dom/tree.js';
import type { Place } from '../reach/threshold.js';
import { writeSelector } from '../reach/write-selector.js';
import { elementOf, pageOf, type SiteModel } from './site-model.js';

/**
 * The same element on the pages that repeat it, a link of a header they all have, itself first: pages that give no class or id
 * of their own leave a selector nothing to tell one of them by, so that what is written for one holds for all.
 * @returns itself alone where nothing is in its place and like it.
 */
export function counterpartsOf(site: SiteModel, pageId: number, number: number): Place[] {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const lead: Place = { page, element, parent: null };
  if (element.root.kind !== 'document') return [lead];
  return [
    lead,
    ...[...site.pages.values()]
      .filter((other) => other !== page)
      .flatMap((other): Place[] => {
        const found = inPlaceOf(element, other.document.rootElement);
        return found ? [{ page: other, element: found, parent: null }] : [];
      }),
  ];
}

/** The least selector that matches an element with its counterparts and nothing else; `null` where there are none, or none does. */
export function sharedSelector(site: SiteModel, pageId: number, number: number): string | null {
  const targets = counterpartsOf(site, pageId, number);
  if (targets.length === 1) return null;
  // Nothing has to be beaten: it only gathers.
  const written = writeSelector({
    lead: targets[0],
    targets,
    pages: [...site.pages.values()],
    everywhere: false,
    pseudo: '',
    state: 'rest',
    longhands: [],
    environments: [],
    isReplaced: () => false,
    isWrittenBefore: () => false,
  });
  return written.ok ? written.selector : null;
}

/** What stands on another page where an element stands on its own: alike in all that selectors ask for, all the way down; `null` where nothing does. */
function inPlaceOf(element: ElementNode, root: ElementNode): ElementNode | null {
  const way: ElementNode[] = [];
  for (let node: ElementNode | null = element; node; node = node.parent) way.unshift(node);
  let found: ElementNode | undefined = root;
  for (const [i, node] of way.entries()) {
    if (i > 0) found = found.children[node.position];
    if (!found || found.localName !== node.localName || !sameAttributes(found.attributes, node.attributes)) return null;
  }
  return found;
}

function sameAttributes(a: ElementNode['attributes'], b: ElementNode['attributes']): boolean {
  return a.size === b.size && [...a].every(([name, value]) => b.get(name) === value);
}
