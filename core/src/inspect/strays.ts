import { isBrandColor } from '../palette/brand-color.js';
import { longhandsOfRow, winnerOf } from '../grid/cell.js';
import type { GridRowName } from '../grid/rows.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { showsText } from '../resolve/text-figures.js';
import { isExcepted } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';

/** Rows whose colour an element paints by itself at rest. */
export const STRAY_ROWS = ['text', 'fill', 'edge'] as const satisfies readonly GridRowName[];

/** Rows in which an element itself paints a colour that is no brand colour and no exception. */
export function straysOf({ palette, exceptions }: SiteModel, view: StyleView, style: ElementStyle): GridRowName[] {
  if (palette.swatches.length === 0) return [];
  return STRAY_ROWS.filter((row) => {
    if (row === 'text' && !showsText(style)) return false;
    const [first] = longhandsOfRow(row, style);
    const color = style.color(first);
    if (
      !color ||
      (color.alpha ?? 0) === 0 ||
      (row === 'edge' && style.resolved(first.replace(/color$/, 'width')) === '0px')
    )
      return false;
    return (
      !isBrandColor(color, palette) &&
      winnerOf(style, first)?.sheet.name !== VENEER_SHEET_NAME &&
      !isExcepted(exceptions, view.page.document, style.element, color)
    );
  });
}
