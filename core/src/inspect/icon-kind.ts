import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';

/** What an icon is made of, and what recolours it. */
export interface IconKind {
  readonly kind: 'glyph' | 'inline SVG' | 'mask' | 'picture' | 'native arrow';
  /** Property that recolours it; `null` when only another file will. */
  readonly recolour: 'color' | 'fill' | 'stroke' | 'background-color' | null;
  readonly text: string;
}

/** Says what an icon is: a glyph takes the text colour, a shape its fill or stroke, a mask its fill; a picture none. `null` for what is no icon. */
export function iconKindOf(view: StyleView, element: ElementNode, pseudo: string): IconKind | null {
  const style = view.style(element, pseudo);
  const read = (property: string): string => style.resolved(property);
  if (read('mask-image') !== 'none' && read('mask-image') !== '')
    return {
      kind: 'mask',
      recolour: 'background-color',
      text: 'A mask: its fill shows through the shape, so the fill recolours it.',
    };
  if (pseudo === 'before' || pseudo === 'after') {
    const content = read('content');
    if (/url\(|image-set\(/.test(content))
      return {
        kind: 'picture',
        recolour: null,
        text: 'A picture put in by content: no CSS colour reaches it, only another file will.',
      };
    if (read('background-image').includes('url('))
      return {
        kind: 'picture',
        recolour: null,
        text: 'A background picture: no CSS colour reaches it, only another file will.',
      };
    if (/"[^"]+"/.test(content))
      return { kind: 'glyph', recolour: 'color', text: 'A glyph: the text colour recolours it.' };
    return null;
  }
  if (element.localName === 'select' && pseudo === '' && !element.attributes.has('multiple')) {
    if (read('appearance') !== 'none')
      return {
        kind: 'native arrow',
        recolour: 'color',
        text: 'A menu with the browser\u2019s own arrow: browsers draw it in the text colour. With appearance: none it goes, and a picture of yours can stand there.',
      };
    if (read('background-image') !== 'none')
      return {
        kind: 'picture',
        recolour: null,
        text: 'The arrow of this menu is its background picture: no CSS colour reaches it, only another picture, or a gradient, will.',
      };
  }
  if (element.namespace === 'svg') {
    const shape = read('fill') === 'none' ? ('stroke' as const) : ('fill' as const);
    const own = element.attributes.get(shape) ?? '';
    const isCurrent = /currentcolor/i.test(own) || /currentcolor/i.test(element.attributes.get('style') ?? '');
    return {
      kind: 'inline SVG',
      recolour: isCurrent ? 'color' : shape,
      text: isCurrent
        ? `A shape drawn in the text colour: either that or its ${shape} recolours it.`
        : `A shape in the page: its ${shape} recolours it.`,
    };
  }
  if (element.localName === 'img' || element.localName === 'picture')
    return {
      kind: 'picture',
      recolour: null,
      text: 'A picture: no CSS colour reaches into it, only another file will.',
    };
  if (element.ownText.trim() === '' && element.children.length === 0 && read('background-image').includes('url('))
    return {
      kind: 'picture',
      recolour: null,
      text: 'A background picture: no CSS colour reaches it, only another file will.',
    };
  return null;
}
