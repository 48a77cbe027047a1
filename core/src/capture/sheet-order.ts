import { message, type Message } from '../message/message.js';
import { parse, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { resolvePath } from '../rules/resolve-path.js';
import { walkTree } from './walk-tree.js';

/** Where the element that brings a stylesheet in stands in the source: offsets in UTF-16 units, the end left out. */
export interface SheetSpan {
  readonly start: number;
  readonly end: number;
}

/** Where a page's stylesheets stand in its source; they count from 0 over the document, shadow trees left out. */
export function sheetSpans(html: string): SheetSpan[] {
  return slotsOf(parse(html, { scriptingEnabled: false, sourceCodeLocationInfo: true })).map(({ element }) => ({
    start: element.sourceCodeLocation?.startOffset ?? 0,
    end: element.sourceCodeLocation?.endOffset ?? 0,
  }));
}

/**
 * A page with its stylesheets in another order: the `<link>` and `<style>` elements that bring them change places
 * among themselves, so that no other element moves and none changes its running number.
 * @param order places of the sheets as they are now, in the order they are to have.
 * @param spans of this very source, where they are known: it is not parsed then.
 * @throws {RangeError} when `order` does not name each sheet once.
 */
export function withSheetOrder(html: string, order: readonly number[], spans = sheetSpans(html)): string {
  if (sheetOrderProblem(order, spans.length) !== null)
    throw new RangeError(`${order.join(' ')} does not name each of ${spans.length} stylesheets once`);
  let from = 0;
  const pieces = spans.flatMap(({ start, end }, i) => {
    const before = html.slice(from, start);
    from = end;
    return [before, html.slice(spans[order[i]].start, spans[order[i]].end)];
  });
  return [...pieces, html.slice(from)].join('');
}

/** What is wrong with an order of `count` sheets; `null` when it names each once. */
export function sheetOrderProblem(order: readonly number[], count: number): Message | null {
  const isWhole = order.length === count && new Set(order).size === count && order.every((place) => place < count);
  return isWhole ? null : message('wrong.sheet-order', { order: order.join(' '), count });
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

function slotsOf(document: P5.Document): { readonly parent: P5.ParentNode; readonly element: P5.Element }[] {
  const slots: { readonly parent: P5.ParentNode; readonly element: P5.Element }[] = [];
  walkTree(document, (element, parent) => {
    // In SVG, elements can stand within a `<style>`.
    if (isSheet(element) && !slots.some((slot) => slot.element === parent)) slots.push({ parent, element });
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
