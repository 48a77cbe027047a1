import type { Spoken } from '@upper-veneer/words';
import { Injectable, computed, inject, signal } from '@angular/core';
import {
  OVERRIDE_STATES,
  ROW_PROPERTIES,
  rowOfProperty,
  type GridRowName,
  type InspectionScope,
  type OverrideState,
  type Reach,
  type RowProperty,
  type SiteWideTarget,
  type Spot,
  type WidthRange,
} from '@upper-veneer/core';
import type { Target } from '../../shared/engine/engine-api';
import { SiteStore } from '../../shared/site/site-store';
import { WIDTHS } from '../page/page-widths';

export interface CellChoice {
  readonly row: GridRowName;
  readonly state: OverrideState;
}

/** What the designer chose to look at, and how far what is changed there reaches. */
@Injectable()
export class BenchSelection {
  readonly #site = inject(SiteStore);

  readonly pageId = signal(this.#site.site()?.pages[0]?.id ?? 0);
  readonly width = signal<number>(WIDTHS[0]);
  readonly target = signal<Target | null>(null);
  /** Whether the target was chosen just now, and no cell of it yet. */
  readonly isFresh = signal(false);
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
  readonly scope = computed<InspectionScope>(() => ({
    pages: this.pages(),
    spared: this.spared(),
    parent: this.parent(),
    carrier: this.carrier(),
    isWhole: this.isWhole(),
    group: this.group(),
  }));

  /** Chooses an element or pseudo-element of the page shown. */
  choose(element: number, pseudo = ''): void {
    this.isFresh.set(true);
    this.#aim({ pageId: this.pageId(), element, pseudo });
  }

  /** Chooses something every page has: links in text, the highlight, the scrollbar, the focus ring. */
  chooseSiteWide({ element, pseudo, row, state, reach, group }: Spoken<SiteWideTarget>): void {
    this.isFresh.set(false);
    this.#aim({ pageId: this.pageId(), element, pseudo });
    this.reach.set(reach);
    this.group.set(group ?? null);
    this.chooseCell({ row, state });
  }

  /** Shows an element of a page with a cell of it chosen; what is not there is passed over. */
  showSpot({
    page,
    element,
    pseudo,
    property,
    state,
  }: {
    readonly page: number;
    readonly element: number;
    readonly pseudo: string;
    readonly property: string;
    readonly state: string;
  }): void {
    if (!this.#site.site()?.pages.some(({ id }) => id === page)) return;
    this.showPage(page);
    this.choose(element, pseudo);
    if (property === '') return;
    this.isFresh.set(false);
    this.chooseCell({ row: rowOfProperty(property), state: OVERRIDE_STATES.find((name) => name === state) ?? 'rest' });
  }

  /** Chooses the element that the chosen property is inherited from, with the same cell. */
  changeThere(element: number): void {
    const { row } = this.cell();
    this.showSpot({
      page: this.pageId(),
      element,
      pseudo: '',
      property: ROW_PROPERTIES[row][0].property,
      state: 'rest',
    });
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
}
