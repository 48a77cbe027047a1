import { parse, serialize, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { resolvePath } from '../rules/resolve-path.js';
import { walkTree } from './walk-tree.js';

/**
 * A page with its stylesheets in another order: the `<link>` and `<style>` elements that bring them change places
 * among themselves, so that no other element moves and none changes its running number.
 * @param order places of the sheets as they are now, in the order they are to have; sheets count from 0 over the document,
 *   shadow trees left out.
 * @throws {RangeError} when `order` does not name each sheet once.
 */
export function withSheetOrder(html: string, order: readonly number[]): string {
  const document = parse(html, { scriptingEnabled: false });
  const slots = slotsOf(document);
  if (order.length !== slots.length || new Set(order).size !== slots.length || order.some((place) => !slots[place])) {
    throw new RangeError(`The order ${order.join(' ')} does not name each of ${slots.length} stylesheets once`);
  }
  slots.forEach(({ parent, index }, i) => {
    const { element } = slots[order[i]];
    element.parentNode = parent;
    parent.childNodes[index] = element;
  });
  return serialize(document);
}

/** A stylesheet as a page brings it in. */
export interface OrderedSheet {
  /** Path within the site, or the address as written where it leads out of it; empty for a `<style>` element. */
  readonly path: string;
  readonly media: string;
  readonly isInBody: boolean;
}

/** A page's stylesheets in the order in which they stand, which is that of the cascade where nothing else decides. */
export function sheetsInOrder(html: string, path: string): OrderedSheet[] {
  return slotsOf(parse(html, { scriptingEnabled: false })).map(({ element, parent }) => {
    const href = attributeOf(element, 'href').trim();
    return {
      path: element.tagName === 'style' ? '' : (resolvePath(path, href) ?? href),
      media: attributeOf(element, 'media'),
      isInBody: !('tagName' in parent && parent.tagName === 'head'),
    };
  });
}

function slotsOf(
  document: P5.Document,
): { readonly parent: P5.ParentNode; readonly index: number; readonly element: P5.Element }[] {
  const slots: { readonly parent: P5.ParentNode; readonly index: number; readonly element: P5.Element }[] = [];
  walkTree(document, (element, parent, index) => {
    if (isSheet(element)) slots.push({ parent, index, element });
  });
  return slots;
}

function attributeOf(node: P5.Element, name: string): string {
  return node.attrs.find((candidate) => candidate.name === name)?.value ?? '';
}

function isSheet(node: P5.Element): boolean {
  const attribute = (name: string): string => attributeOf(node, name).toLowerCase();
  const isCss = attribute('type') === '' || attribute('type').startsWith('text/css');
  if (node.tagName === 'style') return isCss && attribute('type').length <= 8;
  return (
    node.tagName === 'link' && isCss && attribute('rel').split(/\s+/).includes('stylesheet') && attribute('href') !== ''
  );
}
