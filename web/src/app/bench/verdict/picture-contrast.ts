import { Injectable, inject, signal } from '@angular/core';
import type { Inspection, OverrideState, Raster } from '@upper-veneer/core';
import type { ForcedStates, OverPicture } from '../../shared/engine/engine-api';
import type { FrameDocument } from '../../shared/frame/frame-document';
import type { FramedPage } from '../../shared/frame/framed-page';
import { Engine } from '../../shared/engine/engine';
import type { Area } from '../../shared/picture/decode-picture';
import { PageDrawing } from '../../shared/picture/page-drawing';

/** By state, of texts that stand over a picture. */
export type OverPictures = Readonly<Partial<Record<OverrideState, OverPicture>>>;

/** Reads what lies under a text that stands over a picture, state by state, and holds the text against it. */
@Injectable()
export class PictureContrast {
  readonly #engine = inject(Engine);
  /** Counts what was asked; an older question is given up where a newer one comes. */
  #asked = 0;

  /** What was read last, of the element that is inspected. */
  readonly found = signal<OverPictures>({});

  /** What the tiles that stand over a picture come to, by state; empty where none does or it cannot be drawn. */
  async read(
    inspection: Inspection,
    page: FramedPage,
    width: number,
    forced: (state: OverrideState) => Promise<ForcedStates>,
  ): Promise<OverPictures> {
    const asked = (this.#asked += 1);
    const tiles = inspection.strip.filter(({ overPicture }) => overPicture !== null);
    if (tiles.length === 0) return {};
    const found: Partial<Record<OverrideState, OverPicture>> = {};
    let drawing: PageDrawing | null = null;
    try {
      const { element } = inspection;
      drawing = await PageDrawing.open(page, 'The page', width, (drawn) => areaOf(drawn, element));
      hideText(drawing.page, element);
      for (const { state, overPicture } of tiles) {
        if (asked !== this.#asked) break;
        drawing.page.force(await forced(state));
        const raster = await pixelsUnder(drawing, element);
        const [over] = raster ? await this.#engine.remote.overPicture([overPicture ?? ''], raster) : [null];
        if (over !== null) found[state] = over;
      }
    } catch {
      // What cannot be drawn keeps the figure it has, which says that it is not known.
    } finally {
      drawing?.close();
    }
    return found;
  }
}

/** Makes the text of an element and of all inside it invisible; what lies under it stays. */
function hideText(page: FrameDocument, element: number): void {
  const node = page.element(element);
  if (node)
    for (const own of [node, ...node.querySelectorAll('*')])
      (own as HTMLElement).style.setProperty('-webkit-text-fill-color', 'transparent', 'important');
}

/** Pixels under the lines of a text, one after the other. */
async function pixelsUnder(drawing: PageDrawing, element: number): Promise<Raster | null> {
  const area = areaOf(drawing.page, element);
  if (!area) return null;
  const bitmap = await drawing.draw(area);
  const context = new OffscreenCanvas(area.width, area.height).getContext('2d', { willReadFrequently: true });
  context?.drawImage(bitmap, 0, 0);
  bitmap.close();
  if (!context) return null;
  const lines = linesOf(drawing.page, element).flatMap((line) => {
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
function linesOf(page: FrameDocument, element: number): Area[] {
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
  return (boxes.length > 0 ? boxes : own ? [own] : [])
    .map(({ left, top, width, height }) => ({
      left: Math.floor(left),
      top: Math.floor(top),
      width: Math.ceil(width),
      height: Math.ceil(height),
    }))
    .filter(({ width, height }) => width > 0 && height > 0);
}

/** The least area that holds all lines, kept to the page. */
function areaOf(page: FrameDocument, element: number): Area | null {
  const lines = linesOf(page, element);
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
