import { Injectable, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { ChangeRequest } from '@upper-veneer/contract';
import { GRID_ROWS, OVERRIDE_STATES, rowOfProperty, valueWords, type Amendments, type GridCell, type GridRowName, type Inspection, type Override, type OverrideState, type OverrideValue, type PartProgress, type Reach } from '@upper-veneer/core';
import { Subject, catchError, combineLatest, concatMap, from, map, of, skip, switchMap } from 'rxjs';
import { ApiProblem } from '../shared/api/api-problem';
import type { ExplanationView, ForcedStates, Judgement, Target } from '../shared/engine/engine-api';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import type { FramedPage } from '../shared/frame/framed-page';
import { describeChange } from './change-label';

export interface CellChoice {
  readonly row: GridRowName;
  readonly state: OverrideState;
}

/** Viewport widths the page is shown at, in CSS px. */
export const WIDTHS = [1280, 820, 390] as const;

/** What the Bench is looking at, and what is known of it. */
@Injectable()
export class BenchStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #wishes = new Subject<OverrideValue>();
  /** Whether the target was chosen just now, and no cell of it yet. */
  #isFresh = false;

  readonly pageId = signal(this.#site.site()?.pages[0]?.id ?? 0);
  readonly width = signal<number>(WIDTHS[0]);
  readonly target = signal<Target | null>(null);
  readonly reach = signal<Reach>('alike');
  readonly cell = signal<CellChoice>({ row: 'fill', state: 'rest' });
  /** Why the last wish cannot be written; empty when it could. */
  readonly refusal = signal('');

  readonly page = computed(() => this.#site.site()?.pages.find(({ id }) => id === this.pageId()) ?? null);

  readonly opened = this.#site.opened;

  readonly #amendments = toSignal<Amendments, Amendments>(combineLatest([toObservable(this.pageId), toObservable(this.opened)]).pipe(
    switchMap(([pageId, opened]) => (opened.length > 0 ? from(this.#engine.remote.amendments(pageId, opened)) : of([]))),
    map((entries) => new Map(entries)),
  ), { initialValue: new Map() });

  /** The page as the frames show it; another address when it was captured anew. */
  readonly framed = computed<FramedPage>(() => ({
    url: `/frame/sites/${this.#site.site()?.id}/pages/${this.pageId()}/?v=${this.#structure()}`,
    veneerPlace: this.#site.site()?.veneerPlace ?? 'head-end',
    frameCss: this.#site.veneer().frameCss,
    amendments: this.#amendments(),
  }));

  readonly #structure = computed(() => this.#site.site()?.draft.structure ?? 0);

  readonly #question = computed(() => ({ target: this.target(), width: this.width(), veneer: this.#site.veneer(), opened: this.#site.opened() }));

  readonly inspection = toSignal<Inspection | null, null>(toObservable(this.#question).pipe(
    switchMap(({ target, width }) => (target ? from(this.#engine.remote.inspect(target, width)).pipe(catchError(() => of(null))) : of(null))),
  ), { initialValue: null });

  /** Longhand the chosen cell is explained by. */
  readonly property = computed(() => this.chosenCell()?.longhands[0] ?? 'background-color');

  readonly chosenCell = computed<GridCell | null>(() => {
    const { row, state } = this.cell();
    return this.inspection()?.grid.find((entry) => entry.row === row)?.cells.find((entry) => entry.state === state) ?? null;
  });

  readonly explanation = toSignal<ExplanationView | null, null>(combineLatest([toObservable(this.inspection), toObservable(this.cell), toObservable(this.property)]).pipe(
    switchMap(([inspection, cell, property]) => (inspection ? from(this.#engine.remote.explain(inspection, property, cell.state, this.width())) : of(null))),
  ), { initialValue: null });

  /** Overrides that decide the chosen cell. */
  readonly cellOverrides = toSignal<readonly Override[], readonly Override[]>(combineLatest([toObservable(this.inspection), toObservable(this.cell)]).pipe(
    switchMap(([inspection, cell]) => (inspection ? from(this.#engine.remote.overridesOfCell({ ...cell, pageId: inspection.pageId, element: inspection.element, pseudo: inspection.pseudo })) : of([]))),
  ), { initialValue: [] });

  readonly judgement = toSignal<Judgement | null, null>(toObservable(this.cellOverrides).pipe(
    switchMap((overrides) => (overrides.length > 0 ? from(this.#engine.remote.judge(overrides[overrides.length - 1], this.width())) : of(null))),
  ), { initialValue: null });

  readonly progress = toSignal<readonly PartProgress[], readonly PartProgress[]>(combineLatest([toObservable(this.pageId), toObservable(this.width), toObservable(this.#site.veneer), toObservable(this.opened)]).pipe(
    switchMap(([pageId, width]) => from(this.#engine.remote.progress(pageId, width))),
  ), { initialValue: [] });

  /** Elements that share the chosen reach, on the page shown. */
  readonly reached = computed(() => {
    const inspection = this.inspection();
    const count = inspection?.reach.find(({ reach }) => reach === this.reach());
    return (count?.places ?? []).filter(({ pageId, element }) => pageId === this.pageId() && element !== inspection?.element).map(({ element }) => element);
  });

  constructor() {
    toObservable(this.inspection).pipe(takeUntilDestroyed()).subscribe((inspection) => {
      if (inspection && this.#isFresh) this.#chooseFittingCell(inspection);
    });
    // The switch shows the reach of the override that is there.
    toObservable(this.cellOverrides).pipe(takeUntilDestroyed()).subscribe((overrides) => {
      const shown = this.#ownOverride() ?? overrides.at(-1);
      if (shown) this.reach.set(shown.reach);
    });
    // A page that is gone, or captured anew, has other elements.
    toObservable(this.#structure).pipe(skip(1), takeUntilDestroyed()).subscribe(() => {
      const pages = this.#site.site()?.pages ?? [];
      if (!pages.some(({ id }) => id === this.pageId())) this.showPage(pages[0]?.id ?? 0);
      this.target.set(null);
    });
    this.#wishes.pipe(concatMap((value) => this.#fulfil(value)), takeUntilDestroyed()).subscribe();
  }

  /** Opens a hidden part, or closes it. */
  toggleOpen(partId: number): void {
    this.#site.toggleOpen(partId);
  }

  /** Chooses an element or pseudo-element of the page shown. */
  choose(element: number, pseudo = ''): void {
    this.refusal.set('');
    this.target.set({ pageId: this.pageId(), element, pseudo });
    this.#isFresh = true;
  }

  /** Shows an element of a page with a cell of it chosen; what is not there is passed over. */
  showSpot({ page, element, pseudo, property, state }: { readonly page: number; readonly element: number; readonly pseudo: string; readonly property: string; readonly state: string }): void {
    if (!this.#site.site()?.pages.some(({ id }) => id === page)) return;
    this.showPage(page);
    this.choose(element, pseudo);
    if (property === '') return;
    this.#isFresh = false;
    this.cell.set({ row: rowOfProperty(property), state: OVERRIDE_STATES.find((name) => name === state) ?? 'rest' });
  }

  showPage(pageId: number): void {
    if (pageId === this.pageId()) return;
    this.target.set(null);
    this.refusal.set('');
    this.pageId.set(pageId);
  }

  chooseCell(cell: CellChoice): void {
    this.refusal.set('');
    this.cell.set(cell);
  }

  /** Starts at rest; keeps the row where the new target paints in it, else turns to one it does paint. */
  #chooseFittingCell(inspection: Inspection): void {
    this.#isFresh = false;
    const { row } = this.cell();
    const paints = (name: GridRowName): boolean => inspection.grid.find((entry) => entry.row === name)?.cells[0].css != null;
    this.cell.set({ row: paints(row) ? row : GRID_ROWS.find((name) => name !== 'text' && paints(name)) ?? 'text', state: 'rest' });
  }

  /** Chooses how far overrides reach; one that the chosen cell has already is written anew for it. */
  setReach(reach: Reach): void {
    if (reach === this.reach()) return;
    this.reach.set(reach);
    const override = this.#ownOverride();
    if (override) this.setValue(override.value);
  }

  /** The override of the chosen cell that was made on the target itself. */
  #ownOverride(): Override | null {
    const target = this.target();
    return this.cellOverrides().findLast((override) => override.pageId === target?.pageId && override.element === target.element && override.pseudo === target.pseudo) ?? null;
  }

  /** Puts a value into the chosen cell; wishes are fulfilled one after the other. */
  setValue(value: OverrideValue): void {
    this.#wishes.next(value);
  }

  /** Takes our overrides out of the chosen cell. */
  clearCell(): void {
    const overrides = this.cellOverrides();
    if (overrides.length === 0) return;
    const { row, state } = this.cell();
    const label = `Clear ${state} ${row} of ${this.inspection()?.name ?? 'an element'}`.slice(0, 200);
    this.#site.change({ label, put: [], drop: overrides.map(({ id }) => id) }).subscribe();
  }

  forcedStates(target: Target, state: OverrideState): Promise<ForcedStates> {
    return this.#engine.remote.forcedStates(target, state);
  }

  /** Walks the lineage: up to the parent, down to what is inside, across among siblings. */
  walk(direction: 'up' | 'down' | 'previous' | 'next'): void {
    const inspection = this.inspection();
    if (!inspection) return;
    if (direction === 'up') {
      const above = inspection.lineage[inspection.lineage.length - 2];
      if (above) this.choose(above.element, above.pseudo);
    } else if (direction === 'down') {
      const [below] = inspection.below;
      if (below) this.choose(below.element, below.pseudo);
    } else {
      void this.#walkAcross(inspection, direction === 'next' ? 1 : -1);
    }
  }

  async #walkAcross(inspection: Inspection, step: 1 | -1): Promise<void> {
    const parent = inspection.lineage[inspection.lineage.length - 2];
    if (!parent) return;
    const { below } = await this.#engine.remote.inspect({ pageId: inspection.pageId, element: parent.element, pseudo: parent.pseudo }, this.width());
    const at = below.findIndex((entry) => entry.element === inspection.element && entry.pseudo === inspection.pseudo);
    const next = below[at + step];
    if (next) this.choose(next.element, next.pseudo);
  }

  async #fulfil(value: OverrideValue): Promise<void> {
    const target = this.target();
    const inspection = this.inspection();
    if (!target || !inspection) return;
    const { row, state } = this.cell();
    this.refusal.set('');
    try {
      const plan = await this.#engine.remote.plan({ ...target, reach: this.reach(), state, row, value, width: this.width() });
      if (!plan.ok) {
        this.refusal.set(plan.reason);
        return;
      }
      const label = describeChange(state, row, inspection.name, valueWords({ palette: this.#site.palette() }, value));
      const request: ChangeRequest = { label, put: plan.put as ChangeRequest['put'], drop: [...plan.drop] };
      await new Promise<void>((done) => this.#site.change(request).subscribe({ complete: done }));
    } catch (error) {
      this.#site.report(new ApiProblem('That could not be written', error instanceof Error ? error.message : String(error)));
    }
  }
}
