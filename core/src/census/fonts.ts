import type { StyleView } from '../resolve/style-view.js';
import { showsText } from '../resolve/text-figures.js';
import { boxIn, type PageMeasure } from './page-measure.js';

/** A font as the pages use it. */
export interface FontUse {
  /** Families as the page asks for them, first choice first. */
  readonly family: string;
  /** CSS px, rounded to a tenth. */
  readonly size: number;
  readonly weight: number;
  readonly isItalic: boolean;
  readonly elements: number;
  /** Area its text inks, px². */
  readonly area: number;
}

/** Counts the fonts of all text, page by page. */
export function createFontCounter(): { add(view: StyleView, measure: PageMeasure | null): void; result(): FontUse[] } {
  const fonts = new Map<string, { -readonly [K in keyof FontUse]: FontUse[K] }>();
  const add = (view: StyleView, measure: PageMeasure | null): void => {
    for (const element of view.page.document.elements) {
      if (
        ['style', 'script', 'title', 'head', 'template', 'noscript'].includes(element.localName) ||
        !showsText({ element, pseudo: '' })
      )
        continue;
      const style = view.style(element);
      const font = {
        family: style.resolved('font-family'),
        size: Math.round(style.fontSize() * 10) / 10,
        weight: Number(style.resolved('font-weight')),
        isItalic: style.resolved('font-style') !== 'normal',
      };
      const key = JSON.stringify(font);
      const ink = (measure && boxIn(measure, element.number)?.ink) ?? 0;
      const known = fonts.get(key);
      if (known) {
        known.elements += 1;
        known.area += ink;
      } else fonts.set(key, { ...font, elements: 1, area: ink });
    }
  };
  /** Most used first. */
  const result = (): FontUse[] =>
    [...fonts.values()].sort((a, b) => b.elements - a.elements || a.size - b.size || (a.family < b.family ? -1 : 1));
  return { add, result };
}
