import type { ElementNode } from './tree.js';

/** Names a part has for the tree around a host, passed on by `exportparts` where it lies deeper. Source: CSS Shadow Parts 1 §3. */
export function partNamesFor(element: ElementNode, host: ElementNode): string[] {
  let names = (element.attributes.get('part') ?? '').split(/\s+/).filter(Boolean);
  for (let at = element.root.host; at !== host; at = at.root.host) {
    if (!at) return [];
    const exported = (at.attributes.get('exportparts') ?? '')
      .split(',')
      .map((pair) => pair.split(':').map((name) => name.trim()));
    names = exported.filter(([inner]) => names.includes(inner)).map(([inner, outer = inner]) => outer);
  }
  return names;
}
