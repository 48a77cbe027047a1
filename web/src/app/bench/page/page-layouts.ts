import { Injectable, inject, signal } from '@angular/core';
import { idle } from '../../shared/drawing/idle';
import { Engine } from '../../shared/engine/engine';
import type { FrameDocument } from '../../shared/frame/frame-document';
import type { FramedPage } from '../../shared/frame/framed-page';
import { openHidden } from '../../shared/frame/hidden-frame';
import { layoutInSlices } from '../../shared/frame/layout-in-slices';
import { createSlices } from '../../shared/frame/slices';

/** Pages that are laid out unseen beside the one shown, at most; the verdict says where it went without. */
const MOST_PAGES = 12;

/** Tells the core where pages lay their texts, at the width they are shown at: the one on the Bench at once, the others while nothing else is to be done. */
@Injectable()
export class PageLayouts {
  readonly #engine = inject(Engine);
  /** Counts layouts taken in. */
  readonly taken = signal(0);
  /** Counts rounds begun, so that an older one ends. */
  #round = 0;
  /** Counts measurings of the page shown, so that an older one ends. */
  #shown = 0;

  /** Measures the page that is shown. */
  async take(pageId: number, frame: FrameDocument): Promise<void> {
    const elements = frame.elements();
    const shown = (this.#shown += 1);
    const layout = await layoutInSlices(
      frame.document,
      elements,
      createSlices(() => undefined),
    );
    // Another page or width is shown by now, or the page is gone.
    if (shown !== this.#shown || !layout) return;
    await this.#engine.remote.lay(pageId, layout);
    this.taken.update((count) => count + 1);
    await this.#engine.remote.readyGrounds(pageId, layout.width);
  }

  /** Measures other pages one by one in a frame nobody sees. */
  async takeOthers(
    pages: readonly { readonly id: number; readonly framed: FramedPage }[],
    width: number,
  ): Promise<void> {
    const round = (this.#round += 1);
    for (const { id, framed } of pages.slice(0, MOST_PAGES)) {
      await idle();
      if (round !== this.#round) return;
      const hidden = await openHidden(framed, width);
      if (!hidden) continue;
      await idle();
      const elements = hidden.page.elements();
      const layout =
        round === this.#round
          ? await layoutInSlices(
              hidden.page.document,
              elements,
              createSlices(() => undefined),
            )
          : null;
      hidden.close();
      if (round !== this.#round) return;
      if (layout) await this.#engine.remote.lay(id, layout);
    }
    if (round === this.#round && pages.length > 0) this.taken.update((count) => count + 1);
  }

  /** Gives up what is not done yet. */
  stop(): void {
    this.#round += 1;
  }
}
