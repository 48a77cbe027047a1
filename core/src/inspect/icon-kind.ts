import { message, type Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';

/** What an icon is made of, and what recolours it. */
export interface IconKind {
  readonly kind: 'glyph' | 'inline SVG' | 'mask' | 'picture' | 'native arrow';
  /** Property that recolours it; `null` when only another file will. */
  readonly recolour: 'color' | 'fill' | 'stroke' | 'background-color' | null;
  readonly text: Message;
}

/** Says what an icon is: a glyph takes the text colour, a shape its fill or stroke, a mask its fill; a picture none. `null` for what is no icon. */
export function iconKindOf(view: StyleView, element: ElementNode, pseudo: string): IconKind | null {
  const style = view.style(element, pseudo);
  const read = (property: string): string => style.resolved(property);
  if (read('mask-image') !== 'none' && read('mask-image') !== '')
    return {
      kind: 'mask',
      recolour: 'background-color',
      text: message('look.mask-its-fill-shows'),
    };
  if (pseudo === 'before' || pseudo === 'after') {
    const content = read('content');
    if (/url\(|image-set\(/.test(content))
      return {
        kind: 'picture',
        recolour: null,
        text: message('look.picture-put-content-no'),
      };
    if (read('background-image').includes('url('))
      return {
        kind: 'picture',
        recolour: null,
        text: message('look.background-picture-no-css'),
      };
    if (/"[^"]+"/.test(content))
      return { kind: 'glyph', recolour: 'color', text: message('look.glyph-text-colour-recolours') };
    return null;
  }
  if (element.localName === 'select' && pseudo === '' && !element.attributes.has('multiple')) {
    if (read('appearance') !== 'none')
      return {
        kind: 'native arrow',
        recolour: 'color',
        text: message('look.menu-with-browser-own'),
      };
    if (read('background-image') !== 'none')
      return {
        kind: 'picture',
        recolour: null,
        text: message('look.arrow-this-menu-its'),
      };
  }
  if (element.namespace === 'svg') {
    const shape = read('fill') === 'none' ? ('stroke' as const) : ('fill' as const);
    const own = element.attributes.get(shape) ?? '';
    const isCurrent = /currentcolor/i.test(own) || /currentcolor/i.test(element.attributes.get('style') ?? '');
    return {
      kind: 'inline SVG',
      recolour: isCurrent ? 'color' : shape,
      text: isCurrent ? message('look.shape-of-text-colour', { shape }) : message('look.shape-in-page', { shape }),
    };
  }
  if (element.localName === 'img' || element.localName === 'picture')
    return {
      kind: 'picture',
      recolour: null,
      text: message('look.picture-no-css-colour'),
    };
  if (element.ownText.trim() === '' && element.children.length === 0 && read('background-image').includes('url('))
    return {
      kind: 'picture',
      recolour: null,
      text: message('look.background-picture-no-css'),
    };
  return null;
}
