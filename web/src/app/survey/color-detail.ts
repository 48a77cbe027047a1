import { stateWords } from '../shared/ui/state-words';
import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { CensusPlace, Use } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { combineLatest } from 'rxjs';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { CENSUS_WIDTH, CensusStore } from '../shared/census/census-store';
import type { FramedPage } from '../shared/frame/framed-page';
import { PageFrame } from '../shared/frame/page-frame';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';
import { Notations } from '../shared/ui/notations';
import { standingWords } from './color-rows';

/** One colour: its places lit up on a page, its declarations, and the ways on from here. */
@Component({
  selector: 'uv-color-detail',
  imports: [Button, ColorChip, FormsModule, InputText, Notations, PageFrame, RouterLink, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (color(); as found) {
      <div class="head">
        <uv-color-chip [color]="found.hex" />
        <div><h2 class="uv-mono">{{ found.hex }}</h2><p class="uv-soft" i18n>{{ words() }} · {{ found.placeCount }} {found.placeCount, plural, =1 {place} other {places}}</p></div>
        <span class="acts">
          @if (found.standing.kind !== 'brand') {
            <p-button label="To the palette" i18n-label [outlined]="true" size="small" (onClick)="wanted.emit(found.hex)" />
          }
          @if (found.exception) {
            <p-button
              label="No exception" i18n-label [text]="true" size="small"
              (onClick)="excepted.emit({ hex: found.hex, reason: '' })" />
          } @else if (!isExcepting()) {
            <p-button label="Leave alone…" i18n-label [text]="true" size="small" (onClick)="isExcepting.set(true)" />
          }
        </span>
        <uv-notations [css]="found.hex" />
      </div>
      @if (isExcepting() && !found.exception) {
        <form class="except" (ngSubmit)="except(found.hex)">
          <input pInputText pSize="small" name="reason" autocomplete="off" maxlength="200" placeholder="Why, for instance: sale red" i18n-placeholder aria-label="Reason to leave the colour alone" i18n-aria-label [ngModel]="reason()" (ngModelChange)="reason.set($event)" />
          <p-button type="submit" label="Make exception" i18n-label size="small" [disabled]="reason().trim() === ''" /><p-button label="Cancel" i18n-label [text]="true" size="small" (onClick)="isExcepting.set(false)" />
        </form>
      }
      <div class="on">
        <p-select [options]="pages()" optionLabel="label" optionValue="id" [ngModel]="pageId()" (ngModelChange)="chosenPage.set($event)" size="small" ariaLabel="Page on which the places are lit" i18n-ariaLabel />
        <span class="uv-soft">{{ litWords() }}</span>
      </div>
      @if (framed(); as page) {
        <uv-page-frame class="preview" [page]="page" [width]="width" [reached]="lit()" [target]="target()" (chosen)="chooseAt($event)" />
      }
      <div class="lists uv-scroll">
        <h2 i18n>Places on this page</h2>
        <ul>
          @for (place of listed(); track $index) {
            <li>
              <button type="button" [class.current]="place === shown()" (click)="chosenPlace.set(place)">
                <span>{{ placeWords(place) }}</span>
                <span class="uv-mono uv-soft">{{ place.property }}</span>
                @if (place.isHidden) {
                  <span class="uv-soft" i18n>hidden</span>
                }
              </button>
              <a [routerLink]="'/bench'" [queryParams]="spotOf(place)" i18n>Bench</a>
            </li>
          }
        </ul>
        @if (hiddenCount() > 0) { <p class="uv-soft note" i18n>and {{ hiddenCount() }} more</p> }
        <h2 i18n>Declared by</h2>
        <ul>
          @for (entry of found.declarations.slice(0, 40); track $index) {
            <li class="declaration"><code class="uv-mono" [title]="entry.selector">{{ entry.selector || entry.sheet }}</code><code class="uv-mono uv-soft">{{ entry.declaration }}</code><span class="uv-soft">{{ entry.line ? entry.sheet + ' ' + entry.line : entry.sheet }} · {{ entry.places }}×</span></li>
          }
        </ul>
      </div>
    } @else {
      <div class="empty"><h2 i18n>No colour chosen</h2><p class="uv-soft" i18n>Choose a board or a row. The places it is painted light up on the page here, and lead to the Bench.</p></div>
    }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr); grid-template-rows: auto auto auto 256px minmax(0, 1fr); min-height: 0; background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); }
    .head { grid-row: 1; display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: 10px; align-items: center; padding: 10px 12px; }
    .head uv-color-chip { width: 34px; height: 34px; }
    .head uv-notations { grid-column: 1 / -1; }
    h2 { font-size: 16px; font-weight: 700; }
    .head p { font-size: 12px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .acts { display: grid; justify-items: end; }
    .except { grid-row: 2; display: flex; gap: 6px; padding: 0 12px 8px; }
    .except input { flex: 1; min-width: 0; }
    .on { grid-row: 3; display: flex; align-items: center; gap: 10px; padding: 6px 12px; border-top: 1px solid var(--uv-line); font-size: 12px; }
    .preview { grid-row: 4; }
    .lists { grid-row: 5; padding: 8px 12px 12px; border-top: 1px solid var(--uv-line-strong); }
    h2 { margin: 4px 0; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    ul { margin: 0 0 8px; padding: 0; list-style: none; font-size: 12.5px; }
    li { display: flex; align-items: center; border-bottom: 1px solid var(--uv-line); }
    li button { flex: 1; display: flex; gap: 10px; min-width: 0; padding: 3px 4px; border: 0; background: none; text-align: left; white-space: nowrap; overflow: hidden; cursor: pointer; }
    li button:hover, li button.current { background: var(--uv-paper); }
    li a { padding: 3px 8px; color: inherit; }
    .declaration { display: grid; padding: 4px; }
    .declaration code { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 12px; }
    .note { font-size: 12px; }
    .empty { display: grid; gap: 8px; padding: 24px 20px; grid-row: 1 / -1; align-self: start; }
  `,
})
export class ColorDetail {
  readonly #site = inject(SiteStore);
  readonly #census = inject(CensusStore);
  readonly hex = input.required<string | null>();
  /** Emits a colour that is to become a swatch. */
  readonly wanted = output<string>();
  /** Emits a colour and why it is left alone; an empty reason ends that. */
  readonly excepted = output<{ readonly hex: string; readonly reason: string }>();

  protected readonly width = CENSUS_WIDTH;
  protected readonly reason = signal('');
  protected readonly isExcepting = signal(false);
  protected readonly chosenPage = signal<number | null>(null);
  protected readonly chosenPlace = signal<CensusPlace | null>(null);

  protected readonly color = computed(() => this.#census.colors().find(({ hex }) => hex === this.hex()) ?? null);
  protected readonly words = computed(() => {
    const color = this.color();
    return color ? standingWords(color) : '';
  });
  protected readonly places = toSignal<readonly CensusPlace[], readonly CensusPlace[]>(
    combineLatest([toObservable(this.hex), toObservable(this.#census.census)]).pipe(
      askEngine(
        inject(Engine),
        ([hex, census]): Promise<readonly CensusPlace[]> | null => (hex && census ? this.#census.places(hex) : null),
        [],
      ),
    ),
    { initialValue: [] },
  );
  /** The pages it is on, the one with most of it first. */
  protected readonly pages = computed(() => {
    const counts = new Map<number, number>();
    for (const { pageId } of this.places()) counts.set(pageId, (counts.get(pageId) ?? 0) + 1);
    return (this.#site.site()?.pages ?? [])
      .flatMap(({ id, name }) =>
        counts.has(id) ? [{ id, count: counts.get(id) ?? 0, label: `${name} (${counts.get(id)})` }] : [],
      )
      .sort((a, b) => b.count - a.count);
  });
  protected readonly pageId = computed(() => {
    const chosen = this.chosenPage();
    return this.pages().some(({ id }) => id === chosen) ? chosen : (this.pages().at(0)?.id ?? null);
  });
  protected readonly own = computed(() => this.places().filter(({ pageId }) => pageId === this.pageId()));
  protected readonly listed = computed(() => this.own().slice(0, MOST_LISTED));
  protected readonly hiddenCount = computed(() => this.own().length - this.listed().length);
  protected readonly lit = computed(() => [
    ...new Set(
      this.own()
        .filter(({ isHidden }) => !isHidden)
        .map(({ element }) => element),
    ),
  ]);
  protected readonly shown = computed(() => {
    const chosen = this.chosenPlace();
    return chosen && this.own().includes(chosen) ? chosen : (this.own().find(({ isHidden }) => !isHidden) ?? null);
  });
  protected readonly target = computed(() => {
    const place = this.shown();
    return place ? { pageId: place.pageId, element: place.element, pseudo: place.pseudo } : null;
  });
  protected readonly litWords = computed(() => {
    const hidden = new Set(
      this.own()
        .filter(({ isHidden }) => isHidden)
        .map(({ element }) => element),
    ).size;
    return wordsOf('survey.lit-up-hidden', { lit: this.lit().length, hidden });
  });
  protected readonly framed = computed<FramedPage | null>(() => {
    const site = this.#site.site();
    const pageId = this.pageId();
    return site && pageId !== null
      ? {
          url: `/frame/sites/${site.id}/pages/${pageId}/?v=${site.draft.structure}`,
          veneerPlace: site.veneerPlace,
          frameCss: this.#site.veneer().frameCss,
          amendments: new Map(),
          scheme: 'light',
        }
      : null;
  });

  protected except(hex: string): void {
    this.excepted.emit({ hex, reason: this.reason().trim() });
    this.isExcepting.set(false);
    this.reason.set('');
  }

  protected chooseAt(element: number): void {
    const place = this.own().find((candidate) => candidate.element === element);
    if (place) this.chosenPlace.set(place);
  }

  protected spotOf({
    pageId,
    element,
    pseudo,
    property,
    state,
  }: CensusPlace): Readonly<Record<string, string | number>> {
    return { page: pageId, element, pseudo, property, state };
  }

  /** What it paints there, in which state and of which pseudo-element. */
  protected placeWords({ use, state, pseudo }: CensusPlace): string {
    return `${this.useWords(use)}${state === 'rest' ? '' : `, ${stateWords(state)}`}${pseudo ? ` ::${pseudo}` : ''}`;
  }

  protected useWords(use: Use): string {
    return wordsOf(`use.${use}`);
  }
}

const MOST_LISTED = 120;
