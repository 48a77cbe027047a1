import { html as htmlConstants, parse, serialize, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { sheetBefore, type VeneerPlace } from '../resolve/page.js';
import { resolvePath } from '../rules/resolve-path.js';
import { walkTree } from './walk-tree.js';

/**
 * A page with a `<link>` to the veneer where the site says; after a sheet the page does not have is the end of its head.
 * @param path path of the page within its site. @param href address of the veneer as the page is to write it.
 */
export function linkVeneer(text: string, path: string, href: string, place: VeneerPlace): string {
  const document = parse(text, { scriptingEnabled: false });
  const link: P5.Element = {
    nodeName: 'link',
    tagName: 'link',
    namespaceURI: htmlConstants.NS.HTML,
    childNodes: [],
    parentNode: null,
    attrs: [
      { name: 'rel', value: 'stylesheet' },
      { name: 'href', value: href },
    ],
  };
  const before = sheetBefore(place);
  const found = before === null ? null : lastSheet(document, path, before);
  if (found) {
    found.parent.childNodes.splice(found.index + 1, 0, link);
    link.parentNode = found.parent;
  } else {
    const end = childNamed(childNamed(document, 'html'), place === 'body-end' ? 'body' : 'head');
    end?.childNodes.push(link);
    link.parentNode = end;
  }
  return serialize(document);
}

function lastSheet(
  document: P5.Document,
  path: string,
  sheet: string,
): { readonly parent: P5.ParentNode; readonly index: number } | null {
  let last: { readonly parent: P5.ParentNode; readonly index: number } | null = null;
  walkTree(document, (node, parent, index) => {
    const href = node.attrs.find(({ name }) => name === 'href')?.value ?? '';
    const rel = node.attrs.find(({ name }) => name === 'rel')?.value ?? '';
    if (node.tagName === 'link' && /(?:^|\s)stylesheet(?:\s|$)/i.test(rel) && resolvePath(path, href.trim()) === sheet)
      last = { parent, index };
  });
  return last;
}

function childNamed(parent: P5.ParentNode | null, name: string): P5.Element | null {
  return parent?.childNodes.find((node): node is P5.Element => 'tagName' in node && node.tagName === name) ?? null;
}
