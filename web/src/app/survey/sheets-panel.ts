import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import type { OrderedSheet, SheetSummary, VeneerPlace } from '@upper-veneer/core';
import { mdiArrowDown, mdiArrowUp } from '@mdi/js';
import { Icon } from '../shared/ui/icon';
import { Select } from 'primeng/select';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';

/** The stylesheets of a page in the order of the cascade, which can be corrected, with the veneer in its place; and all of the site with their figures. */
@Component({
  selector: 'uv-sheets-panel',
  imports: [FormsModule, Icon, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', '[attr.aria-label]': 'name', tabindex: '0' },
  template: `
    <div class="bar">
      <span><ng-container i18n>Order on </ng-container><p-select [options]="$any(site.captured())" optionLabel="name" optionValue="id" [ngModel]="pageId()" (ngModelChange)="chosenPage.set($event)" size="small" ariaLabel="Page whose stylesheets are shown" i18n-ariaLabel /></span>
      <span><ng-container i18n>The veneer is loaded </ng-container><p-select [options]="$any(places())" optionLabel="label" optionValue="place" [ngModel]="site.site()?.veneerPlace" (ngModelChange)="place($event)" size="small" ariaLabel="Where the veneer is loaded" i18n-ariaLabel /></span>
    </div>
    <p class="uv-soft note">
      <ng-container i18n>Later sheets win ties.</ng-container>
      @if (likePages().length > 1) {
        <ng-container i18n> A change of order holds for all {{ likePages().length }} pages that load these sheets in this order. </ng-container>
      }
    </p>
    <ol>
      @for (row of rows(); track $index) {
        <li [class.veneer]="row.index === -1">
          <span class="place">{{ $index + 1 }}</span>
          <span class="uv-mono name" [title]="row.name">{{ row.name }}</span>
          <span class="uv-soft">{{ row.note }}</span>
          @if (row.index >= 0) {
            <span class="moves">
              <button
                type="button" [disabled]="row.index === 0" [attr.aria-label]="wordsOf('survey.earlier', { name: row.name })"
                (click)="move(row.index, -1)"><uv-icon [path]="icons.up" [size]="14" /></button>
              <button
                type="button" [disabled]="row.index === sheets().length - 1"
                [attr.aria-label]="wordsOf('survey.later', { name: row.name })" (click)="move(row.index, 1)"><uv-icon [path]="icons.down" [size]="14" /></button>
            </span>
          }
        </li>
      }
    </ol>
    <table>
      <thead><tr><th scope="col" i18n>Stylesheet</th><th scope="col" class="comes" i18n>Comes</th><th scope="col" class="number" i18n>Size</th><th scope="col" class="number" i18n>Rules</th><th scope="col" class="number" title="Rules that match no element of any page, in any state, at any width" i18n-title i18n>Unused</th><th scope="col" class="number" i18n>Pages</th></tr></thead>
      <tbody>
        @for (sheet of summaries(); track $index) {
          <tr>
            <td class="cut uv-mono" [title]="sheet.name">{{ sheet.name }}</td>
            <td>{{ words[sheet.origin] }}</td>
            <td class="number">{{ size(sheet.bytes) }}</td>
            <td class="number">{{ sheet.rules }}</td>
            <td class="number" [title]="sheet.isUntried ? wordsOf('survey.trying-all-its-selectors') : ''">{{ unused(sheet) }}</td>
            <td class="number">{{ sheet.pageIds.length }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styleUrl: './facts-table.scss',
  styles: `
    .comes { width: 120px; }
    .bar { display: flex; flex-wrap: wrap; gap: 8px 22px; padding: 9px 10px 4px; }
    .bar span { display: flex; align-items: center; gap: 8px; }
    .note { padding: 0 10px 6px; font-size: 12px; }
    ol { margin: 0 10px 12px; padding: 0; list-style: none; border: 1px solid var(--uv-line); }
    li { display: grid; grid-template-columns: 22px minmax(0, 1fr) auto 56px; align-items: center; gap: 8px; min-height: 30px; padding: 0 4px 0 8px; border-bottom: 1px solid var(--uv-line); border-bottom-width: 2px; font-size: 12.5px; }
    li.veneer { background: var(--uv-black); color: var(--uv-on-black); }
    li.veneer .uv-soft { color: inherit; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .place { color: inherit; opacity: .7; text-align: right; }
    .moves { display: flex; justify-content: flex-end; }
    .moves button { display: grid; place-items: center; width: 26px; height: 26px; padding: 0; border: 0; border-radius: 3px; background: none; cursor: pointer; }
    .moves button:hover:not(:disabled) { background: var(--uv-bar); }
    .moves button:disabled { opacity: .3; cursor: default; }
  `,
})
export class SheetsPanel {
  protected readonly name = wordsOf('survey.stylesheets');
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  readonly #engine = inject(Engine);
  /** Figures from the census. */
  readonly summaries = input.required<readonly SheetSummary[]>();

  protected readonly icons = { up: mdiArrowUp, down: mdiArrowDown };
  protected readonly words: Readonly<Record<SheetSummary['origin'], string>> = {
    file: wordsOf('survey.as-file'),
    'in the page': wordsOf('survey.page'),
    imported: wordsOf('survey.by-import'),
    'shadow tree': wordsOf('survey.shadow-tree'),
  };
  protected readonly chosenPage = signal<number | null>(null);
  protected readonly pageId = computed(() => {
    const pages = this.site.captured();
    return pages.find(({ id }) => id === this.chosenPage())?.id ?? pages.at(0)?.id ?? null;
  });

  /** Sheets of every page, in order. */
  readonly #ordered = toSignal<
    ReadonlyMap<number, readonly OrderedSheet[]>,
    ReadonlyMap<number, readonly OrderedSheet[]>
  >(
    toObservable(this.site.captured).pipe(
      askEngine(
        this.#engine,
        (pages, engine): Promise<ReadonlyMap<number, readonly OrderedSheet[]>> | null =>
          pages.length > 0
            ? Promise.all(pages.map(async ({ id }) => [id, await engine.sheetsInOrder(id)] as const)).then(
                (entries) => new Map(entries),
              )
            : null,
        new Map(),
      ),
    ),
    { initialValue: new Map() },
  );

  protected readonly sheets = computed(() => this.#ordered().get(this.pageId() ?? -1) ?? []);
  protected readonly likePages = computed(() => {
    const key = keyOf(this.sheets());
    return [...this.#ordered()].filter(([, sheets]) => keyOf(sheets) === key).map(([id]) => id);
  });
  protected readonly rows = computed(() => {
    const place = this.site.site()?.veneerPlace ?? 'head-end';
    const sheets = this.sheets().map((sheet, index) => ({
      index,
      name: sheet.path || wordsOf('survey.style-element'),
      note: [sheet.isInBody ? wordsOf('survey.body') : '', sheet.media].filter((text) => text !== '').join(', '),
      sheet,
    }));
    const after = place.startsWith('after:')
      ? sheets.findLastIndex(({ sheet }) => sheet.path === place.slice(6)) + 1
      : 0;
    const firstInBody = sheets.findIndex(({ sheet }) => sheet.isInBody);
    const at = place === 'body-end' ? sheets.length : after || (firstInBody === -1 ? sheets.length : firstInBody);
    return sheets.toSpliced(at, 0, {
      index: -1,
      name: 'veneer.css',
      note: wordsOf('survey.veneer'),
      sheet: { path: '', media: '', isInBody: false },
    });
  });
  protected readonly places = computed<readonly { readonly place: VeneerPlace; readonly label: string }[]>(() => {
    const paths = new Set(
      [...this.#ordered().values()]
        .flat()
        .map(({ path }) => path)
        .filter((path) => path !== ''),
    );
    return [
      { place: 'head-end', label: wordsOf('survey.last-head') },
      { place: 'body-end', label: wordsOf('survey.end-body') },
      ...[...paths].map((path) => ({ place: `after:${path}` as const, label: wordsOf('survey.after', { path }) })),
    ];
  });

  /** Share of its rules that match nothing, as far as they were tried. */
  protected unused({ rules, unused, isUntried }: SheetSummary): string {
    if (rules === 0) return '–';
    return isUntried ? wordsOf('survey.not-tried') : `${((100 * unused) / rules).toFixed(0)} %`;
  }

  protected size(bytes: number): string {
    return bytes < 1024 ? `${bytes} B` : `${(bytes / 1024).toFixed(1)} kB`;
  }

  protected place(veneerPlace: VeneerPlace): void {
    const label = this.places().find((entry) => entry.place === veneerPlace)?.label ?? veneerPlace;
    this.edits
      .putArrangement({ label: wordsOf('survey.veneer-loaded', { label }).slice(0, 200), veneerPlace, sheetOrders: [] })
      .subscribe();
  }

  protected move(index: number, by: -1 | 1): void {
    const order = this.sheets().map((_, i) => i);
    [order[index], order[index + by]] = [order[index + by], order[index]];
    const name = this.sheets()[index].path || wordsOf('survey.style-element-one');
    this.edits
      .putArrangement({
        label: `${name} ${by < 0 ? 'earlier' : 'later'}`.slice(0, 200),
        veneerPlace: this.site.site()?.veneerPlace ?? 'head-end',
        sheetOrders: this.likePages().map((pageId) => ({ pageId, order })),
      })
      .subscribe();
  }
}

function keyOf(sheets: readonly OrderedSheet[]): string {
  return JSON.stringify(sheets);
}
