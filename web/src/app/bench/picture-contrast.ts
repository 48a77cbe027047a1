import { Injectable, inject } from '@angular/core';
import type { Inspection, Raster } from '@upper-veneer/core';
import type { FrameDocument } from '../shared/frame/frame-document';
import type { FramedPage } from '../shared/frame/framed-page';
import { Engine } from '../shared/engine/engine';
import { drawPage } from '../shared/picture/page-picture';

/** Contrast by state, of texts that stand over a picture. */
export type PictureRatios = Readonly<Record<string, number>>;

/** Reads what lies under a text that stands over a picture, and holds the text against it. */
@Injectable()
export class PictureContrast {
  readonly #engine = inject(Engine);

  /** Ratios of the tiles that stand over a picture, by state; empty where none does or it cannot be drawn. */
  async ratios(inspection: Inspection, page: FramedPage, width: number): Promise<PictureRatios> {
    const tiles = inspection.strip.filter(({ overPicture }) => overPicture !== null);
    if (tiles.length === 0) return {};
    try {
      const raster = await this.#under(inspection, page, width);
      if (!raster) return {};
      const found = await this.#engine.remote.overPicture(tiles.map(({ overPicture }) => overPicture ?? ''), raster);
      return Object.fromEntries(tiles.flatMap(({ state }, i) => (found[i] === null ? [] : [[state, found[i]]])));
    } catch {
      return {};
    }
  }

  /** Pixels under an element, its own text and all inside it made invisible. */
  async #under({ element }: Inspection, page: FramedPage, width: number): Promise<Raster | null> {
    let box: DOMRect | null = null;
    const bitmap = await drawPage(page, 'The page', width, (drawn: FrameDocument) => {
      const node = drawn.element(element);
      box = drawn.boxOf(element);
      if (!node) return;
      for (const own of [node, ...node.querySelectorAll('*')]) (own as HTMLElement).style.setProperty('-webkit-text-fill-color', 'transparent', 'important');
    });
    const { left, top, width: across, height } = (box as DOMRect | null) ?? new DOMRect();
    const area = { left: Math.max(0, Math.floor(left)), top: Math.max(0, Math.floor(top)), width: Math.ceil(across), height: Math.ceil(height) };
    if (area.width < 1 || area.height < 1 || area.top >= bitmap.height) return null;
    const canvas = new OffscreenCanvas(area.width, area.height);
    const context = canvas.getContext('2d');
    context?.drawImage(bitmap, -area.left, -area.top);
    bitmap.close();
    const pixels = context?.getImageData(0, 0, area.width, area.height);
    return pixels ? { width: area.width, height: area.height, data: pixels.data } : null;
  }
}
