import { decidingDeclaration, paintingsOf, type Painting } from '../census/paintings.js';
import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';
import { overlayPaintings } from './overlay-paintings.js';
import { kindOf } from '../selectors/alike.js';

/** Input types that are drawn in the accent colour. Source: CSS UI 4 §7.1, and HTML §15.5 for the controls. */
const ACCENTED: ReadonlySet<string> = new Set(['checkbox', 'radio', 'range']);

/** All that an element paints, the colours of its caret, its native drawing, its highlight and its scrollbars among them, where the page gives them. */
export function matchPaintings(view: StyleView, element: ElementNode): readonly Painting[] {
  const found = [...paintingsOf(view, element), ...overlayPaintings(view, element)];
  const style = view.style(element);
  const add = (property: 'caret-color' | 'accent-color'): void => {
    const color = style.resolved(property) === 'auto' ? null : style.color(property);
    if (!color || (color.alpha ?? 0) === 0) return;
    const { style: deciding, decided } = decidingDeclaration(style, property);
    // Without a declaration both are what the browser makes of them.
    if (decided) found.push({ pseudo: '', use: 'icon', property, color, index: 0, style: deciding, decided });
  };
  if (kindOf(element) === 'field' && element.localName !== 'select') add('caret-color');
  if (
    element.localName === 'progress' ||
    (element.localName === 'input' && ACCENTED.has((element.attributes.get('type') ?? '').toLowerCase()))
  )
    add('accent-color');
  return found;
}
