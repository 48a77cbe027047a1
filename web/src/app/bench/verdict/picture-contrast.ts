import { type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, inject, signal } from '@angular/core';
import type { Inspection, OverrideState } from '@upper-veneer/core';
import type { ForcedStates, OverPicture } from '../../shared/engine/engine-api';
import type { FramedPage } from '../../shared/frame/framed-page';
import { Engine } from '../../shared/engine/engine';
import { PageDrawing } from '../../shared/picture/page-drawing';
import { areaOf, hideText, pixelsUnder } from '../../shared/picture/under-text';

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
    inspection: Spoken<Inspection>,
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
      const text = { element: inspection.element, isWhole: false };
      drawing = await PageDrawing.open(page, wordsOf('bench.the-page'), width, (drawn) => areaOf(drawn, text));
      hideText(drawing.page, text.element);
      for (const { state, overPicture } of tiles) {
        if (asked !== this.#asked) break;
        drawing.page.force(await forced(state));
        const raster = await pixelsUnder(drawing, text);
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
