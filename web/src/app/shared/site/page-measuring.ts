import { wordsOf } from '@upper-veneer/words';
import { Injectable, inject } from '@angular/core';
import { Engine } from '../engine/engine';
import { layoutInSlices } from '../frame/layout-in-slices';
import type { FramedPage } from '../frame/framed-page';
import { openHidden } from '../frame/hidden-frame';
import { createSlices } from '../frame/slices';

/** A page that is to be laid out. */
export interface PageToMeasure {
  readonly id: number;
  readonly name: string;
  readonly framed: FramedPage;
}

/** Lays pages out in frames nobody sees and tells the worker where things lie; what was measured once is not measured again. */
@Injectable({ providedIn: 'root' })
export class PageMeasuring {
  readonly #engine = inject(Engine);
  readonly #measured = new Set<string>();

  /** Measures pages at some widths. @returns whether it came to its end, still wanted. */
  async measure(
    pages: readonly PageToMeasure[],
    widths: readonly number[],
    isWanted: () => boolean,
    tell: (doing: string, share: number) => void,
  ): Promise<boolean> {
    const rounds = widths.flatMap((width) => pages.map((page) => ({ ...page, width })));
    for (const [i, { id, name, framed, width }] of rounds.entries()) {
      const key = `${framed.url} ${framed.scheme} ${[...framed.amendments.keys()].join()} ${width}`;
      if (this.#measured.has(key)) continue;
      tell(
        widths.length > 1 ? wordsOf('screen.laying-out-px', { name, width }) : wordsOf('screen.measuring', { name }),
        i / rounds.length,
      );
      const hidden = await openHidden(framed, width);
      if (!isWanted()) {
        hidden?.close();
        return false;
      }
      if (!hidden) continue;
      const layout = await layoutInSlices(
        hidden.page.document,
        hidden.page.elements(),
        createSlices(() => undefined),
      );
      hidden.close();
      if (layout) await this.#engine.remote.lay(id, layout);
      this.#measured.add(key);
    }
    return isWanted();
  }
}
