import { stateWords } from '../shared/ui/state-words';
import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  type Becomes,
  type FoundPlace,
  type PlainValue,
  colorOfValue,
  describeHome,
  hexOf,
  placeId,
  propertyTold,
  rowAsFound,
  shadeOfValue,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import type { MatchRow, PlaceView } from '../shared/engine/match-api';
import { SiteStore } from '../shared/site/site-store';
import { NearestBrand } from '../shared/ui/nearest-brand';
import { ColorChip } from '../shared/ui/color-chip';
import { becomesWords } from './match-words';
import { roleWords } from '../shared/site/role-words';

const MOST_LISTED = 60;

/** The rows chosen: what they become by hand, where they are painted, and where they can be changed. */
@Component({
  selector: 'uv-row-detail',
  imports: [Button, ColorChip, NearestBrand, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows()[0]; as lead) {
      <header>
        <uv-color-chip [color]="lead.found.hex" />
        <span aria-hidden="true">→</span>
        <uv-color-chip [color]="lead.css" />
        <h2>{{ rows().length > 1 ? wordsOf('match.colours-counted', { rows: rows().length }) : words() }}</h2>
      </header>
      <p class="uv-soft reason">
        @if (rows().length > 1) {
          <ng-container i18n> What is chosen here goes to all of them. </ng-container>
        } @else {
          {{ lead.reason }}<br /><uv-nearest-brand [css]="lead.found.hex" [palette]="site.palette()" />
        }
      </p>
      <div class="acts">
        <p-button label="Darker" i18n-label [outlined]="true" size="small" [disabled]="!canShade()" (onClick)="step(-4)" />
        <p-button label="Lighter" i18n-label [outlined]="true" size="small" [disabled]="!canShade()" (onClick)="step(4)" />
        <p-button label="Leave alone" i18n-label [outlined]="true" size="small" (onClick)="set.emit({ kind: 'leave' })" />
        <p-button [label]="areLocked() ? wordsOf('match.hand-back') : wordsOf('match.keep-so')" [outlined]="true" size="small" (onClick)="lock.emit(!areLocked())" />
        @if (rows().length === 1) {
          <p-button label="Choose its family" i18n-label [outlined]="true" size="small" (onClick)="family.emit()" />
        }
        @if (rows().length > 1) {
          <p-button label="Merge into one" i18n-label [outlined]="true" size="small" (onClick)="merge.emit(ids())" />
        }
        @if (rows().length === 1 && isRegrouped()) {
          <p-button label="As found again" i18n-label [outlined]="true" size="small" (onClick)="asFound.emit(lead.found.id)" />
        }
        @if (rows().length > 1) {
          <p-button
            [label]="areTied() ? wordsOf('match.may-differ') : wordsOf('match.must-stay-equal')" [outlined]="true" size="small"
            (onClick)="tie.emit(!areTied())"
          />
        }
        <p-button [label]="isOff() ? wordsOf('match.show-again') : wordsOf('match.see-without')" [outlined]="true" size="small" (onClick)="off.emit(!isOff())" />
      </div>
      <h3 i18n>Becomes</h3>
      @if (rows().length > 1) {
        <label class="keeps"><input
          type="checkbox" [checked]="keepsLightness()" (change)="keepsLightness.set(!keepsLightness())"
          /> <ng-container i18n> each as light beside the first as it was found</ng-container></label>
      }
      <ul class="values" aria-label="Values" i18n-aria-label>
        @for (entry of values(); track entry.words) {
          <li>
            <button type="button" [attr.aria-pressed]="entry.isChosen" (click)="give(entry.value)">
              <uv-color-chip [color]="entry.css" />
              <span>{{ entry.words }}</span>
            </button>
          </li>
        }
      </ul>
      @if (rows().length > 1) {
        <h3 i18n>Same as</h3>
        <ul class="values">
          @for (row of rows(); track row.found.id) {
            <li>
              <button type="button" (click)="set.emit(row.becomes)">
                <uv-color-chip [color]="row.css" />
                <span>{{ row.found.hex }}</span>
              </button>
            </li>
          }
        </ul>
      }
      <h3 i18n>Its home</h3>
      <ul class="list">
        @for (home of homes(); track $index) { <li><span>{{ home.words }}</span><span class="uv-soft">{{ home.places }}×</span></li> }
      </ul>
      @if (homes().length > 1) {
        <p class="uv-soft note" i18n>◆ One look with {{ homes().length }} homes: changing one of them leaves the others.</p>
      }
      <h3 i18n>Places</h3>
      @if (ticked().length > 0) {
        <p-button
          class="apart" [label]="wordsOf('match.set-apart-as-row', { ticked: ticked().length })" [outlined]="true" size="small"
          [disabled]="ticked().length >= lead.found.placeCount" (onClick)="setApart(lead.found.id)"
        />
      }
      <ul class="list">
        @for (place of listed(); track $index) {
          <li>
            <span class="place">
              @if (rows().length === 1) {
                <input
                  type="checkbox" [attr.aria-label]="wordsOf('match.tick', { words: toldOf(place) })"
                  [checked]="ticked().includes(idOf(place))" (change)="tick(place)"
                />
              }
              {{ toldOf(place) }}{{ place.state === 'rest' ? '' : ', ' + stateWords(place.state) }}
              @if (place.isHidden) { <span class="uv-soft" i18n>hidden</span> }
            </span>
            <a [routerLink]="'/bench'" [queryParams]="spotOf(place)" i18n>Bench</a>
          </li>
        }
      </ul>
      @if (lead.found.placeCount > listed().length) {
        <p class="uv-soft note" i18n>and {{ lead.found.placeCount - listed().length }} more</p>
      }
    } @else {
      <p class="uv-soft empty" i18n>Choose a row to give it another value, to keep it, or to see where it is painted. Shift and Ctrl choose several; Enter keeps them as they are, Delete leaves them alone.</p>
    }
  `,
  styles: `
    :host { display: block; padding: 10px 14px 14px; }
    header { display: flex; align-items: center; gap: 8px; }
    header uv-color-chip { width: 26px; height: 20px; }
    h2 { font-weight: 700; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    h3 { margin: 12px 0 5px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    .reason { margin: 5px 0 8px; font-size: 12.5px; }
    .acts { display: flex; flex-wrap: wrap; gap: 5px; --p-button-sm-padding-y: 3px; --p-button-sm-padding-x: 8px; --p-button-sm-font-size: 12.5px; }
    ul { margin: 0; padding: 0; list-style: none; }
    .values { display: grid; grid-template-columns: 1fr 1fr; gap: 3px; }
    .values button { display: flex; align-items: center; gap: 7px; width: 100%; min-height: 26px; padding: 2px 6px; border: 1px solid transparent; border-radius: 3px; background: none; text-align: left; font-size: 12.5px; cursor: pointer; overflow: hidden; white-space: nowrap; }
    .values button:hover { border-color: var(--uv-line-strong); }
    .values button[aria-pressed='true'] { border-color: var(--uv-ink); font-weight: 700; }
    .values uv-color-chip { width: 20px; height: 16px; }
    .list li { display: flex; justify-content: space-between; gap: 8px; padding: 2px 0; font-size: 12.5px; }
    .list li > :first-child { overflow-wrap: anywhere; }
    .list a { display: inline-flex; align-items: center; min-height: 24px; color: inherit; }
    .place { display: flex; align-items: center; gap: 6px; }
    .list input { margin: 0; accent-color: var(--uv-black); }
    .note { margin-top: 4px; font-size: 12px; }
    .keeps { display: flex; align-items: center; gap: 6px; min-height: 24px; margin-bottom: 4px; font-size: 12.5px; }
    .keeps input { accent-color: var(--uv-ink); }
    .empty { padding: 6px 0; }
  `,
})
export class RowDetail {
  protected readonly stateWords = stateWords;
  protected readonly wordsOf = wordsOf;

  readonly #engine = inject(Engine);
  protected readonly site = inject(SiteStore);
  readonly rows = input.required<readonly Spoken<MatchRow>[]>();
  readonly equal = input.required<readonly (readonly string[])[]>();
  readonly isOff = input(false);
  readonly set = output<Becomes>();
  readonly lock = output<boolean>();
  readonly tie = output<boolean>();
  readonly off = output<boolean>();
  /** Emits where all rows of the same hue are to be chosen. */
  readonly family = output();
  /** Emits a value that rows take each in a shade of its own. */
  readonly shades = output<PlainValue>();
  protected readonly keepsLightness = signal(true);
  /** Whether places were set apart from rows, or rows merged, by row. */
  readonly regrouped = input<readonly string[]>([]);
  readonly merge = output<readonly string[]>();
  /** Emits places that are to be a row of their own. */
  readonly apart = output<{ readonly row: string; readonly places: readonly string[] }>();
  readonly asFound = output<string>();
  protected readonly ids = computed(() => this.rows().map(({ found }) => found.id));
  protected readonly isRegrouped = computed(() => this.ids().some((id) => this.regrouped().includes(rowAsFound(id))));
  protected readonly ticked = linkedSignal<string, readonly string[]>({
    source: () => this.ids().join(),
    computation: () => [],
  });
  protected readonly idOf = placeId;

  readonly #lead = computed(() => this.rows().at(0) ?? null);
  protected readonly places = toSignal(
    toObservable(this.#lead).pipe(
      askEngine(this.#engine, (row, engine) => row && engine.matchPlaces(row.found.id), [] as readonly PlaceView[]),
    ),
    { initialValue: [] as readonly PlaceView[] },
  );
  protected readonly listed = computed(() => this.places().slice(0, MOST_LISTED));
  protected readonly words = computed(() => {
    const lead = this.#lead();
    return lead ? becomesWords(lead, this.site.palette()) : '';
  });
  protected readonly homes = computed(() =>
    (this.#lead()?.found.homes ?? [])
      .slice(0, 12)
      .map((home) => ({ words: say(describeHome(home)), places: home.places })),
  );
  protected readonly areLocked = computed(() => this.rows().every(({ isLocked }) => isLocked));
  protected readonly areTied = computed(() => {
    const ids = this.rows().map(({ found }) => found.id);
    return this.equal().some((list) => ids.every((id) => list.includes(id)));
  });
  protected readonly canShade = computed(() => this.rows().every(({ becomes }) => becomes.kind === 'value'));
  protected readonly values = computed(() => {
    const palette = this.site.palette();
    const now = this.#lead()?.becomes;
    const filled = new Set(palette.roles.map(({ swatchId }) => swatchId));
    const all: { readonly value: PlainValue; readonly words: string }[] = [
      ...palette.roles.map(({ role }) => ({
        value: { kind: 'role' as const, role, shade: 0 },
        words: roleWords(role),
      })),
      ...palette.swatches
        .filter(({ id }) => !filled.has(id))
        .map(({ id, name }) => ({ value: { kind: 'swatch' as const, swatchId: id, shade: 0 }, words: name })),
    ];
    return all.map(({ value, words }) => {
      const color = colorOfValue(value, palette);
      return {
        value,
        words,
        css: color ? hexOf(color) : null,
        isChosen: now?.kind === 'value' && JSON.stringify(now.value) === JSON.stringify(value),
      };
    });
  });

  protected give(value: PlainValue): void {
    if (this.rows().length > 1 && this.keepsLightness()) this.shades.emit(value);
    else this.set.emit({ kind: 'value', value });
  }

  protected step(points: number): void {
    const becomes = this.#lead()?.becomes;
    if (becomes?.kind !== 'value') return;
    const value = shadeOfValue(becomes.value, points, this.site.palette());
    if (value) this.set.emit({ kind: 'value', value });
  }

  protected toldOf({ property, name }: PlaceView): string {
    return wordsOf('match.property-of', { what: say(propertyTold(property)), name });
  }

  protected tick(place: FoundPlace): void {
    const id = placeId(place);
    this.ticked.update((ticked) => (ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id]));
  }

  protected setApart(row: string): void {
    this.apart.emit({ row, places: this.ticked() });
    this.ticked.set([]);
  }

  protected spotOf({
    pageId,
    element,
    pseudo,
    property,
    state,
  }: FoundPlace): Readonly<Record<string, string | number>> {
    return { page: pageId, element, pseudo, property, state };
  }
}
