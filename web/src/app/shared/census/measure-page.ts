import { wordsOf } from '@upper-veneer/words';
import type { PageMeasure } from '@upper-veneer/core';
import { numberedElements } from '../frame/frame-document';
import { createGlyphInk } from '../frame/glyph-ink';
import { layoutInSlices } from '../frame/layout-in-slices';
import { toPageLayout } from '../frame/measured-layout';
import { createSlices } from '../frame/slices';

/**
 * Measures a framed page where it stands: where boxes lie, and how much of them their text inks.
 * @param check throws to stop; asked between slices.
 */
export async function measurePage(pageId: number, frame: Document, check: () => void): Promise<PageMeasure> {
  const view = frame.defaultView;
  if (!view) throw new Error(wordsOf('screen.frame-gone'));
  const pause = createSlices(check);
  const elements = numberedElements(frame);
  const measured = await layoutInSlices(frame, elements, pause);
  if (!measured) throw new Error(wordsOf('screen.frame-gone'));
  const layout = toPageLayout(measured);
  const ink = new Float32Array(layout.boxes.length / 4);
  const pseudoSizes: Record<string, readonly [number, number]> = {};
  const glyphInk = createGlyphInk(frame);
  const canvas = frame.createElement('canvas').getContext('2d');
  for (const [number, element] of elements) {
    if (layout.boxes[number * 4 + 2] > 0 || layout.boxes[number * 4 + 3] > 0) {
      ink[number] = inkOf(element, view.getComputedStyle(element), glyphInk);
      for (const name of ['before', 'after'] as const) {
        const size = canvas ? pseudoSize(view.getComputedStyle(element, `::${name}`), canvas) : null;
        if (size) pseudoSizes[`${number}:${name}`] = size;
      }
    }
    await pause();
  }
  return { pageId, layout, ink, pseudoSizes };
}

/** Area that an element's own text inks. */
function inkOf(element: Element, style: CSSStyleDeclaration, glyphInk: ReturnType<typeof createGlyphInk>): number {
  if (style.visibility !== 'visible') return 0;
  if (element instanceof (element.ownerDocument.defaultView ?? window).HTMLInputElement) {
    return element.value === '' || /^(?:checkbox|radio|range|color|hidden|file|image)$/.test(element.type)
      ? 0
      : element.value.length *
          0.5 *
          Number.parseFloat(style.fontSize) ** 2 *
          glyphInk({ style: style.fontStyle, weight: style.fontWeight, family: style.fontFamily });
  }
  let area = 0;
  for (const node of element.childNodes) {
    if (node.nodeType !== Node.TEXT_NODE || (node.nodeValue ?? '').trim() === '') continue;
    const range = element.ownerDocument.createRange();
    range.selectNodeContents(node);
    for (const { width, height } of range.getClientRects()) area += width * height;
  }
  return area === 0
    ? 0
    : area * glyphInk({ style: style.fontStyle, weight: style.fontWeight, family: style.fontFamily });
}

function pseudoSize(style: CSSStyleDeclaration, canvas: CanvasRenderingContext2D): readonly [number, number] | null {
  if (style.content === 'none' || style.content === 'normal' || style.display === 'none') return null;
  const width = Number.parseFloat(style.width);
  const height = Number.parseFloat(style.height);
  if (Number.isFinite(width) && Number.isFinite(height)) return [width, height];
  // Inline content has no used width: its text is measured.
  canvas.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
  const text = /^"(.*)"$/s.exec(style.content)?.[1] ?? '';
  return [canvas.measureText(text).width, Number.parseFloat(style.fontSize)];
}
