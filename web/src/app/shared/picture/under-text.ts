import type { Raster } from '@upper-veneer/core';
import type { FrameDocument } from '../frame/frame-document';
import type { Area } from './decode-picture';
import type { PageDrawing } from './page-drawing';

/** A text in a page: the lines of an element, or all of its box. */
export interface TextArea {
  readonly element: number;
  readonly isWhole: boolean;
}

const INVISIBLE = ['-webkit-text-fill-color', 'transparent', 'important'] as const;

/** Makes the text of an element and of all inside it invisible; what lies under it stays. @returns shows it again. */
export function hideText(page: FrameDocument, element: number): () => void {
  const node = page.element(element);
  const hidden = node ? [node, ...node.querySelectorAll('*')] : [];
  const before = hidden.map((own) => own.getAttribute('style'));
  for (const own of hidden) (own as HTMLElement).style.setProperty(...INVISIBLE);
  return () => {
    hidden.forEach((own, i) => {
      const style = before[i];
      if (style === null) own.removeAttribute('style');
      else own.setAttribute('style', style);
    });
  };
}

/** Pixels under the lines of a text, one after the other. */
export async function pixelsUnder(drawing: PageDrawing, text: TextArea): Promise<Raster | null> {
  const area = areaOf(drawing.page, text);
  if (!area) return null;
  const bitmap = await drawing.draw(area);
  const context = new OffscreenCanvas(area.width, area.height).getContext('2d', { willReadFrequently: true });
  context?.drawImage(bitmap, 0, 0);
  bitmap.close();
  if (!context) return null;
  const lines = linesOf(drawing.page, text).flatMap((line) => {
    const inside = cut(line, area);
    return inside
      ? [context.getImageData(inside.left - area.left, inside.top - area.top, inside.width, inside.height).data]
      : [];
  });
  const data = new Uint8ClampedArray(lines.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const line of lines) {
    data.set(line, at);
    at += line.length;
  }
  return data.length > 0 ? { width: data.length / 4, height: 1, data } : null;
}

/** Boxes of the lines of an element's own text; its own box where it holds none, as fields do. */
function linesOf(page: FrameDocument, { element, isWhole }: TextArea): Area[] {
  const node = page.element(element);
  if (!node) return [];
  const texts = [...node.childNodes].filter(
    (child) => child.nodeType === Node.TEXT_NODE && (child.textContent ?? '').trim() !== '',
  );
  const boxes = texts.flatMap((text) => {
    const range = page.document.createRange();
    range.selectNodeContents(text);
    return [...range.getClientRects()];
  });
  const own = page.boxOf(element);
  return (boxes.length > 0 && !isWhole ? boxes : own ? [own] : [])
    .map(({ left, top, width, height }) => ({
      left: Math.floor(left),
      top: Math.floor(top),
      width: Math.ceil(width),
      height: Math.ceil(height),
    }))
    .filter(({ width, height }) => width > 0 && height > 0);
}

/** The least area that holds all lines, kept to the page. */
export function areaOf(page: FrameDocument, text: TextArea): Area | null {
  const lines = linesOf(page, text);
  if (lines.length === 0) return null;
  const left = Math.max(0, Math.min(...lines.map((line) => line.left)));
  const top = Math.max(0, Math.min(...lines.map((line) => line.top)));
  const right = Math.max(...lines.map((line) => line.left + line.width));
  const bottom = Math.max(...lines.map((line) => line.top + line.height));
  return right > left && bottom > top ? { left, top, width: right - left, height: bottom - top } : null;
}

/** The part of a line that lies in an area. */
function cut(line: Area, area: Area): Area | null {
  const left = Math.max(line.left, area.left);
  const top = Math.max(line.top, area.top);
  const width = Math.min(line.left + line.width, area.left + area.width) - left;
  const height = Math.min(line.top + line.height, area.top + area.height) - top;
  return width > 0 && height > 0 ? { left, top, width, height } : null;
}
