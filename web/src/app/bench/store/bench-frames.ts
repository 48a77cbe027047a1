import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Amendments } from '@upper-veneer/core';
import { combineLatest, map } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import type { FramedPage } from '../../shared/frame/framed-page';
import { LightingSwitch } from '../../shared/site/lighting-switch';
import { OpenedParts } from '../../shared/site/opened-parts';
import { SiteStore } from '../../shared/site/site-store';
import { BenchSelection } from './bench-selection';

/** Pages as frames show them, with the draft's veneer laid on and hidden parts opened. */
@Injectable()
export class BenchFrames {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);
  readonly #opened = inject(OpenedParts).ids;
  readonly #lighting = inject(LightingSwitch);

  readonly #amendments = toSignal<Amendments, Amendments>(
    combineLatest([
      toObservable(this.#selection.pageId),
      toObservable(this.#opened),
      toObservable(this.#site.palette),
    ]).pipe(
      askEngine(
        this.#engine,
        ([pageId, opened, { lighting }], engine) =>
          opened.length > 0 || lighting === 'inverted' ? engine.amendments(pageId, opened) : null,
        [],
      ),
      map((entries) => new Map(entries)),
    ),
    { initialValue: new Map() },
  );

  /** The page shown. */
  readonly framed = computed<FramedPage>(() => this.framedPage(this.#selection.pageId(), this.#amendments()));

  /** Any page; under another address when it was captured anew. */
  framedPage(pageId: number, amendments: Amendments = new Map()): FramedPage {
    const site = this.#site.site();
    return {
      url: `/frame/sites/${site?.id}/pages/${pageId}/?v=${site?.draft.structure ?? 0}`,
      veneerPlace: site?.veneerPlace ?? 'head-end',
      frameCss: this.#site.veneer().frameCss,
      amendments,
      scheme: this.#lighting.scheme(),
    };
  }
}
