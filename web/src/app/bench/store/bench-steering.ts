import type { Spoken } from '@upper-veneer/words';
import { Injectable, computed, inject, type WritableSignal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { GridRowName, Inspection } from '@upper-veneer/core';
import { skip } from 'rxjs';
import { Engine } from '../../shared/engine/engine';
import { SiteStore } from '../../shared/site/site-store';
import { BenchAnswers } from './bench-answers';
import { BenchSelection } from './bench-selection';

/** Moves the selection where an answer leads: to a cell that fits, to the reach of the override that is there, along the lineage. */
@Injectable()
export class BenchSteering {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);
  readonly #answers = inject(BenchAnswers);

  constructor() {
    toObservable(this.#answers.inspection)
      .pipe(takeUntilDestroyed())
      .subscribe((inspection) => {
        // One asked for before the target changed says nothing of the new one.
        const target = this.#selection.target();
        if (
          !inspection ||
          inspection.element !== target?.element ||
          inspection.pageId !== target.pageId ||
          inspection.pseudo !== target.pseudo
        )
          return;
        if (this.#selection.isFresh()) this.#chooseFittingCell(inspection);
        else if (!inspection.states.includes(this.#selection.cell().state))
          this.#selection.cell.update((cell) => ({ ...cell, state: 'rest' }));
      });
    // The switches show the reach of the override that is there.
    toObservable(this.#answers.cellOverrides)
      .pipe(takeUntilDestroyed())
      .subscribe((overrides) => {
        const own = this.#answers.ownOverride();
        const shown = own ?? overrides.at(-1);
        if (!shown) return;
        this.#selection.reach.set(shown.reach);
        this.#selection.group.set(shown.group ?? null);
        setIfOther(this.#selection.range, shown.widths ?? null);
        if (shown !== own) return;
        setIfOther(this.#selection.pages, shown.pages ?? null);
        setIfOther(this.#selection.spared, shown.spared ?? []);
      });
    // A page that is gone, or captured anew, has other elements.
    toObservable(computed(() => this.#site.site()?.draft.structure ?? 0))
      .pipe(skip(1), takeUntilDestroyed())
      .subscribe(() => {
        const pages = this.#site.site()?.pages ?? [];
        if (!pages.some(({ id }) => id === this.#selection.pageId())) this.#selection.showPage(pages[0]?.id ?? 0);
        this.#selection.target.set(null);
      });
  }

  /** Walks the lineage: up to the parent, down to what is inside, across among siblings. */
  walk(direction: 'up' | 'down' | 'previous' | 'next'): void {
    const inspection = this.#answers.inspection();
    if (!inspection) return;
    if (direction === 'up') {
      const above = inspection.lineage[inspection.lineage.length - 2];
      if (above) this.#selection.choose(above.element, above.pseudo);
    } else if (direction === 'down') {
      const [below] = inspection.below;
      if (below) this.#selection.choose(below.element, below.pseudo);
    } else {
      this.#walkAcross(inspection, direction === 'next' ? 1 : -1).catch((error: unknown) => this.#engine.tell(error));
    }
  }

  async #walkAcross(inspection: Spoken<Inspection>, step: 1 | -1): Promise<void> {
    const parent = inspection.lineage[inspection.lineage.length - 2];
    if (!parent) return;
    const { below } = await this.#engine.remote.inspect(
      { pageId: inspection.pageId, element: parent.element, pseudo: parent.pseudo },
      this.#selection.width(),
      {},
    );
    // Another one was chosen while this was asked.
    if (this.#answers.inspection() !== inspection) return;
    const at = below.findIndex((entry) => entry.element === inspection.element && entry.pseudo === inspection.pseudo);
    const next = below[at + step];
    if (next) this.#selection.choose(next.element, next.pseudo);
  }

  /** Starts at rest; keeps the row where the new target paints in it, else turns to one it does paint. */
  #chooseFittingCell(inspection: Spoken<Inspection>): void {
    this.#selection.isFresh.set(false);
    const { row } = this.#selection.cell();
    const paints = (name: GridRowName): boolean =>
      inspection.grid.find((entry) => entry.row === name)?.cells[0].css != null;
    const fallback =
      inspection.grid.find(({ row: name }) => ['fill', 'edge', 'icon'].includes(name) && paints(name))?.row ?? 'text';
    this.#selection.chooseCell({
      row: ['text', 'fill', 'edge'].includes(row) && paints(row) ? row : fallback,
      state: 'rest',
    });
  }
}

/** Sets a signal where the value says something else; equal values from the worker are other objects each time. */
function setIfOther<T>(to: WritableSignal<T>, value: T): void {
  if (JSON.stringify(to()) !== JSON.stringify(value)) to.set(value);
}
