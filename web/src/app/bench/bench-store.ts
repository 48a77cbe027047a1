import { Injectable, computed, inject, signal, type WritableSignal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  OVERRIDE_STATES, ROW_PROPERTIES, STATE_WORDS, isOfAnother, isSwitchState, longhandsOfProperty, rowOfProperty, type Amendments, type GridCell, type GridRowName, type Inspection, type Override, type OverrideState, type PartProgress, type Reach, type RowProperty, type SiteWideTarget, type Spot, type VerdictProgress, type WidthRange,
} from '@upper-veneer/core';
import { proxy } from 'comlink';
import { catchError, combineLatest, debounceTime, from, map, of, skip, switchMap } from 'rxjs';
import type { ExplanationView, ForcedStates, Judgement, Target } from '../shared/engine/engine-api';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import type { FramedPage } from '../shared/frame/framed-page';
import { PageLayouts } from './page-layouts';
import { WIDTHS } from './page-widths';

export interface CellChoice {
  readonly row: GridRowName;
  readonly state: OverrideState;
}

/** What the Bench is looking at, and what is known of it. */
@Injectable()
export class BenchStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #layouts = inject(PageLayouts);
  /** Whether the target was chosen just now, and no cell of it yet. */
  #isFresh = false;

  readonly pageId = signal(this.#site.site()?.pages[0]?.id ?? 0);
  readonly width = signal<number>(WIDTHS[0]);
  readonly target = signal<Target | null>(null);
  readonly reach = signal<Reach>('alike');
  /** Selector of the group that is reached, for that reach. */
  readonly group = signal<string | null>(null);
  /** Pages that overrides are kept to; `null` for all. */
  readonly pages = signal<readonly number[] | null>(null);
  /** Single matches left out. */
  readonly spared = signal<readonly Spot[]>([]);
  /** Widths that overrides are kept to; `null` for every width. */
  readonly range = signal<WidthRange | null>(null);
  /** Ancestor whose hover is looked at, where the designer chose one. */
  readonly parent = signal<number | null>(null);
  /** Element whose being switched is looked at, where the designer chose one. */
  readonly carrier = signal<number | null>(null);
  /** Whether states that nothing tells from rest are listed too. */
  readonly isWhole = signal(false);
  readonly cell = signal<CellChoice>({ row: 'fill', state: 'rest' });
  /** Which of the row's properties is changed: its place in the row's list. */
  readonly propertyAt = signal(0);
  /** Spots of a finding that are outlined on the page. */
  readonly shown = signal<readonly Spot[]>([]);

  readonly page = computed(() => this.#site.site()?.pages.find(({ id }) => id === this.pageId()) ?? null);
  readonly opened = this.#site.opened;

  readonly #amendments = toSignal<Amendments, Amendments>(combineLatest([toObservable(this.pageId), toObservable(this.opened)]).pipe(
    switchMap(([pageId, opened]) => (opened.length > 0 ? from(this.#engine.remote.amendments(pageId, opened)) : of([]))),
    map((entries) => new Map(entries)),
  ), { initialValue: new Map() });

  /** The page as the frames show it; another address when it was captured anew. */
  readonly framed = computed<FramedPage>(() => this.framedPage(this.pageId(), this.#amendments()));

  /** A page as the frames show it. */
  framedPage(pageId: number, amendments: Amendments = new Map()): FramedPage {
    return { url: `/frame/sites/${this.#site.site()?.id}/pages/${pageId}/?v=${this.#structure()}`, veneerPlace: this.#site.site()?.veneerPlace ?? 'head-end', frameCss: this.#site.veneer().frameCss, amendments };
  }

  readonly #structure = computed(() => this.#site.site()?.draft.structure ?? 0);

  readonly #question = computed(() => ({
    target: this.target(), width: this.width(), veneer: this.#site.veneer(), laid: this.#layouts.taken(), opened: this.#site.opened(), scope: { pages: this.pages(), spared: this.spared(), parent: this.parent(), carrier: this.carrier(), isWhole: this.isWhole(), group: this.group() },
  }));

  readonly inspection = toSignal<Inspection | null, null>(toObservable(this.#question).pipe(
    switchMap(({ target, width, scope }) => (target ? from(this.#engine.remote.inspect(target, width, scope)).pipe(catchError(() => of(null))) : of(null))),
  ), { initialValue: null });

  /** The property that is changed. */
  readonly rowProperty = computed<RowProperty>(() => {
    const properties = ROW_PROPERTIES[this.cell().row];
    return properties[this.propertyAt()] ?? properties[0];
  });
  /** Where it is changed: the target, or the part of the scrollbar. */
  readonly changed = computed<Target | null>(() => {
    const target = this.target();
    const { pseudo } = this.rowProperty();
    return target && pseudo ? { ...target, pseudo } : target;
  });
  /** Longhand the chosen cell is explained by. */
  readonly property = computed(() => {
    const { property, pseudo } = this.rowProperty();
    const [first] = this.chosenCell()?.longhands ?? [];
    return !pseudo && this.propertyAt() === 0 && first ? first : longhandsOfProperty(property)[0];
  });

  readonly chosenCell = computed<GridCell | null>(() => {
    const { row, state } = this.cell();
    return this.inspection()?.grid.find((entry) => entry.row === row)?.cells.find((entry) => entry.state === state) ?? null;
  });

  readonly #cellQuestion = computed(() => {
    const inspection = this.inspection();
    const { property, pseudo, pseudoState } = this.rowProperty();
    const { state } = this.cell();
    if (!inspection) return null;
    return {
      pageId: inspection.pageId, element: inspection.element, pseudo: pseudo ?? inspection.pseudo, state, parent: otherOf(inspection, state), property, ...(pseudoState ? { pseudoState } : {}), width: this.width(),
    };
  });

  readonly explanation = toSignal<ExplanationView | null, null>(combineLatest([toObservable(this.#cellQuestion), toObservable(this.property)]).pipe(
    switchMap(([cell, property]) => (cell ? from(this.#engine.remote.explain(cell, property, cell, cell.width)).pipe(catchError(() => of(null))) : of(null))),
  ), { initialValue: null });

  /** Elements that take the chosen property from where the target inherits it. */
  readonly followers = toSignal<readonly Spot[], readonly Spot[]>(toObservable(this.explanation).pipe(
    switchMap((explanation) => {
      const source = explanation?.inheritedFrom;
      return source ? from(this.#engine.remote.followers(this.pageId(), source.element, this.property(), this.width())).pipe(catchError(() => of([]))) : of([]);
    }),
  ), { initialValue: [] });

  /** Overrides that decide the chosen cell. */
  readonly cellOverrides = toSignal<readonly Override[], readonly Override[]>(toObservable(this.#cellQuestion).pipe(
    switchMap((cell) => (cell ? from(this.#engine.remote.overridesOfCell(cell)).pipe(catchError(() => of([]))) : of([]))),
  ), { initialValue: [], equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) });

  /** How far the verdict is, where it takes its time; `null` when none is being made. */
  readonly judging = signal<VerdictProgress | null>(null);
  readonly judgement = toSignal<Judgement | null, null>(combineLatest([toObservable(this.cellOverrides), toObservable(this.#site.veneer), toObservable(this.#layouts.taken)]).pipe(
    // They change one after the other when something is stored.
    debounceTime(0),
    switchMap(([overrides]) => (overrides.length > 0 ? from(this.#judge(overrides[overrides.length - 1])).pipe(catchError(() => of(null))) : of(null))),
  ), { initialValue: null });

  readonly progress = toSignal<readonly PartProgress[], readonly PartProgress[]>(combineLatest([toObservable(this.pageId), toObservable(this.width), toObservable(this.#site.veneer), toObservable(this.opened)]).pipe(
    switchMap(([pageId, width]) => from(this.#engine.remote.progress(pageId, width))),
  ), { initialValue: [] });

  readonly siteWide = toSignal<readonly SiteWideTarget[], readonly SiteWideTarget[]>(combineLatest([toObservable(this.pageId), toObservable(this.#structure)]).pipe(
    switchMap(([pageId]) => from(this.#engine.remote.siteWide(pageId)).pipe(catchError(() => of([])))),
  ), { initialValue: [] });

  /** Elements that share the chosen reach, on the page shown; those of a finding while it is pointed at. */
  readonly reached = computed(() => {
    const inspection = this.inspection();
    const count = inspection?.reach.find(({ reach }) => reach === this.reach());
    const spots = this.shown().length > 0 ? this.shown() : count?.places ?? [];
    return spots.filter(({ pageId, element }) => pageId === this.pageId() && element !== inspection?.element).map(({ element }) => element);
  });

  constructor() {
    toObservable(this.inspection).pipe(takeUntilDestroyed()).subscribe((inspection) => {
      // One asked for before the target changed says nothing of the new one.
      const target = this.target();
      if (!inspection || inspection.element !== target?.element || inspection.pageId !== target.pageId || inspection.pseudo !== target.pseudo) return;
      if (this.#isFresh) this.#chooseFittingCell(inspection);
      else if (!inspection.states.includes(this.cell().state)) this.cell.update((cell) => ({ ...cell, state: 'rest' }));
    });
    // The switches show the reach of the override that is there.
    toObservable(this.cellOverrides).pipe(takeUntilDestroyed()).subscribe((overrides) => {
      const shown = this.ownOverride() ?? overrides.at(-1);
      if (!shown) return;
      this.reach.set(shown.reach);
      this.group.set(shown.group ?? null);
      setIfOther(this.range, shown.widths ?? null);
      if (shown !== this.ownOverride()) return;
      setIfOther(this.pages, shown.pages ?? null);
      setIfOther(this.spared, shown.spared ?? []);
    });
    // A page that is gone, or captured anew, has other elements.
    toObservable(this.#structure).pipe(skip(1), takeUntilDestroyed()).subscribe(() => {
      const pages = this.#site.site()?.pages ?? [];
      if (!pages.some(({ id }) => id === this.pageId())) this.showPage(pages[0]?.id ?? 0);
      this.target.set(null);
    });
  }

  async #judge(override: Override): Promise<Judgement | null> {
    const judgement = await this.#engine.remote.judge(override, this.width(), proxy((progress: VerdictProgress) => this.judging.set(progress)));
    this.judging.set(null);
    return judgement;
  }

  stopJudging(): void {
    void this.#engine.remote.stopJudging();
  }

  /** Opens a hidden part, or closes it. */
  toggleOpen(partId: number): void {
    this.#site.toggleOpen(partId);
  }

  /** Chooses an element or pseudo-element of the page shown. */
  choose(element: number, pseudo = ''): void {
    this.#isFresh = true;
    this.#aim({ pageId: this.pageId(), element, pseudo });
  }

  /** Chooses something every page has: links in text, the highlight, the scrollbar, the focus ring. */
  chooseSiteWide({ element, pseudo, row, state, reach, group }: SiteWideTarget): void {
    this.#isFresh = false;
    this.#aim({ pageId: this.pageId(), element, pseudo });
    this.reach.set(reach);
    this.group.set(group ?? null);
    this.chooseCell({ row, state });
  }

  #aim(target: Target): void {
    this.pages.set(null);
    if (this.reach() === 'group') this.reach.set('alike');
    this.group.set(null);
    this.spared.set([]);
    this.parent.set(null);
    this.carrier.set(null);
    this.isWhole.set(false);
    this.shown.set([]);
    this.target.set(target);
  }

  /** Shows an element of a page with a cell of it chosen; what is not there is passed over. */
  showSpot({ page, element, pseudo, property, state }: { readonly page: number; readonly element: number; readonly pseudo: string; readonly property: string; readonly state: string }): void {
    if (!this.#site.site()?.pages.some(({ id }) => id === page)) return;
    this.showPage(page);
    this.choose(element, pseudo);
    if (property === '') return;
    this.#isFresh = false;
    this.chooseCell({ row: rowOfProperty(property), state: OVERRIDE_STATES.find((name) => name === state) ?? 'rest' });
  }

  /** Chooses the element that the chosen property is inherited from, with the same cell. */
  changeThere(element: number): void {
    const { row } = this.cell();
    this.showSpot({ page: this.pageId(), element, pseudo: '', property: ROW_PROPERTIES[row][0].property, state: 'rest' });
  }

  showPage(pageId: number): void {
    if (pageId === this.pageId()) return;
    this.target.set(null);
    this.shown.set([]);
    this.pageId.set(pageId);
  }

  chooseCell(cell: CellChoice): void {
    if (cell.row !== this.cell().row) this.propertyAt.set(0);
    this.shown.set([]);
    this.cell.set(cell);
  }

  /** Starts at rest; keeps the row where the new target paints in it, else turns to one it does paint. */
  #chooseFittingCell(inspection: Inspection): void {
    this.#isFresh = false;
    const { row } = this.cell();
    const paints = (name: GridRowName): boolean => inspection.grid.find((entry) => entry.row === name)?.cells[0].css != null;
    const fallback = inspection.grid.find(({ row: name }) => ['fill', 'edge', 'icon'].includes(name) && paints(name))?.row ?? 'text';
    this.chooseCell({ row: ['text', 'fill', 'edge'].includes(row) && paints(row) ? row : fallback, state: 'rest' });
  }

  /** The override of the chosen cell that was made on the target itself. */
  ownOverride(): Override | null {
    const target = this.changed();
    return this.cellOverrides().findLast((override) => override.pageId === target?.pageId && override.element === target.element && override.pseudo === target.pseudo) ?? null;
  }

  /** What a state is called here: for what another element brings about, how that stands then. */
  stateWord(state: OverrideState): string {
    const words = this.inspection()?.carrier?.heads[state];
    return words ? words.charAt(0).toUpperCase() + words.slice(1) : STATE_WORDS[state];
  }

  forcedStates(target: Target, state: OverrideState): Promise<ForcedStates> {
    return this.#engine.remote.forcedStates(target, { state, parent: otherOf(this.inspection(), state) });
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
    const { below } = await this.#engine.remote.inspect({ pageId: inspection.pageId, element: parent.element, pseudo: parent.pseudo }, this.width(), {});
    const at = below.findIndex((entry) => entry.element === inspection.element && entry.pseudo === inspection.pseudo);
    const next = below[at + step];
    if (next) this.choose(next.element, next.pseudo);
  }
}

/** Sets a signal where the value says something else; equal values from the worker are other objects each time. */
function setIfOther<T>(to: WritableSignal<T>, value: T): void {
  if (JSON.stringify(to()) !== JSON.stringify(value)) to.set(value);
}

/** The element whose state is meant, for states that are not the target's own. */
export function otherOf(inspection: Inspection | null, state: OverrideState): number | null {
  if (!inspection || !isOfAnother(state)) return null;
  return isSwitchState(state) ? inspection.carrier?.element ?? null : inspection.parent;
}
