import { parse, serialize, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { amendAttributes, type Amendments } from '../dom/amendment.js';
import { resolvePath } from '../rules/resolve-path.js';
import { documentOf } from './framed-document.js';
import { rewriteStates } from './rewrite-states.js';

/** Attribute with an element's running number. */
export const NUMBER_ATTRIBUTE = 'data-uv-n';

const DROPPED = new Set(['script', 'base', 'object', 'embed', 'applet', 'frame', 'frameset', 'portal']);
const ADDRESS_ATTRIBUTES = new Set([
  'src',
  'href',
  'srcset',
  'poster',
  'action',
  'formaction',
  'xlink:href',
  'data',
  'ping',
  'background',
]);

export interface FramePageOptions {
  /** Path of the page within the site. */
  readonly path: string;
  /** Address under which the site's files are served, ending in `/`. */
  readonly filesAt: string;
  /** Attribute changes by element number, which the template of a part makes; none when absent. */
  readonly amendments?: Amendments;
  /** Captured documents of framed parts, by path, and the address under which they are served; none when absent. */
  readonly framed?: { readonly paths: readonly string[]; readonly at: string };
}

/** Attribute of a frame with the path of its captured document. */
export const FRAMED_ATTRIBUTE = 'data-uv-framed';

/**
 * A captured page for the preview frame: no scripts or handlers, addresses only to the site's own files,
 * elements numbered as the core numbers them, state pseudo-classes answering to attributes.
 */
export function framePage(text: string, options: FramePageOptions): string {
  const document = parse(text, { scriptingEnabled: false });
  let next = 0;
  const shadows: { template: P5.Template }[] = [];
  const hosts = new Set<P5.ParentNode>();
  /** Without recursion: hostile pages nest deeply. */
  const visit = (root: P5.ParentNode): void => {
    const open: {
      readonly parent: P5.ParentNode;
      readonly nodes: readonly P5.ChildNode[];
      readonly kept: P5.ChildNode[];
      at: number;
    }[] = [];
    const enter = (parent: P5.ParentNode): number => open.push({ parent, nodes: parent.childNodes, kept: [], at: 0 });
    enter(root);
    for (let top = open.at(-1); top; top = open.at(-1)) {
      const { parent, nodes, kept } = top;
      const node = nodes[top.at];
      top.at += 1;
      if (!node) {
        parent.childNodes = kept;
        open.pop();
        continue;
      }
      if (!('tagName' in node)) {
        kept.push(node);
        continue;
      }
      const isShadow =
        'content' in node &&
        /^(?:open|closed)$/i.test(node.attrs.find(({ name }) => name === 'shadowrootmode')?.value ?? '') &&
        'tagName' in parent &&
        !hosts.has(parent);
      if (isShadow) {
        hosts.add(parent);
        shadows.push({ template: node as P5.Template });
        kept.push(node);
        continue;
      }
      const number = next;
      next += 1;
      if (DROPPED.has(node.tagName)) {
        // Its place stays, so that numbers and sibling counts do.
        kept.push(placeholderFor(node, number));
        continue;
      }
      cleanElement(node, number, options);
      if (node.tagName === 'style') rewriteStyleElement(node);
      kept.push(node);
      enter(node);
    }
  };
  visit(document);
  // The list grows while shadow trees inside shadow trees are found.
  for (const { template } of shadows) visit(template.content);
  return serialize(document);
}

/** A dropped element leaves an inert one of the same name behind: selectors still count and match it. */
function placeholderFor(node: P5.Element, number: number): P5.Element {
  const attrs = node.attrs
    .filter(({ name }) => name === 'id' || name === 'class')
    .concat({ name: NUMBER_ATTRIBUTE, value: String(number) });
  const inert = node.tagName === 'script' ? [...attrs, { name: 'type', value: 'text/plain' }] : attrs;
  return { ...node, attrs: inert, childNodes: [] };
}

function cleanElement(node: P5.Element, number: number, options: FramePageOptions): void {
  const changes = options.amendments?.get(number);
  if (changes) {
    const amended = amendAttributes(new Map(node.attrs.map(({ name, value }) => [name, value])), changes);
    node.attrs = [...amended].map(([name, value]) => ({ name, value }));
  }
  const source = node.attrs.find(({ name }) => name === 'src')?.value ?? '';
  node.attrs = node.attrs
    .filter(({ name, value }) => {
      if (
        /^on/i.test(name) ||
        name.startsWith('data-uv-') ||
        name === 'autofocus' ||
        name === 'nonce' ||
        name === 'integrity' ||
        name === 'crossorigin' ||
        name === 'ping'
      )
        return false;
      if (node.tagName === 'meta' && name === 'http-equiv' && /refresh|content-security-policy/i.test(value))
        return false;
      return !(node.tagName === 'iframe' && (name === 'src' || name === 'srcdoc'));
    })
    .map((attribute) => {
      if (attribute.name === 'style') return attribute;
      if (!ADDRESS_ATTRIBUTES.has(attribute.name)) return attribute;
      // Links keep their address, which selectors may ask for; nothing in the frame can follow it.
      if (node.tagName === 'a' || node.tagName === 'area') return attribute;
      if (attribute.name === 'srcset') return { ...attribute, value: '' };
      if (attribute.value.startsWith('#') || /^data:image\//i.test(attribute.value)) return attribute;
      const path = resolvePath(options.path, attribute.value);
      return {
        ...attribute,
        value: path === null ? '' : options.filesAt + path.split('/').map(encodeURIComponent).join('/'),
      };
    });
  node.attrs.push({ name: NUMBER_ATTRIBUTE, value: String(number) });
  if (node.tagName !== 'iframe') return;
  const framed = documentOf(source, options.framed?.paths ?? []);
  if (framed === null || !options.framed) node.attrs.push({ name: 'srcdoc', value: FRAMED_STAND_IN });
  else
    node.attrs.push(
      { name: 'src', value: options.framed.at + framed.split('/').map(encodeURIComponent).join('/') },
      { name: FRAMED_ATTRIBUTE, value: framed },
    );
}

/** Stands in for a framed document that was not captured: a hatching. */
const FRAMED_STAND_IN =
  '<!doctype html><title>Framed part</title><body style="margin:0;height:100vh;background:repeating-linear-gradient(45deg,#b8b8b8 0 6px,#e6e6e6 6px 12px)">';

function rewriteStyleElement(node: P5.Element): void {
  const text = node.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
  const rewritten = rewriteStates(text).replaceAll(/<\/style/gi, '<\\/style');
  node.childNodes = [{ nodeName: '#text', value: rewritten, parentNode: node } as P5.TextNode];
}
