import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  CLOSED_TO_VISITED,
  HOUSE_PARTS,
  HOUSE_PROPERTIES,
  houseTold,
  ROW_PROPERTIES,
  rowTold,
  isOpenToVisited,
  isScrollbarRow,
  type Inspection,
  type OverrideValue,
} from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { SiteStore } from '../../shared/site/site-store';
import { BenchActs } from '../store/bench-acts';
import { BenchFlash } from '../page/bench-flash';
import { BenchAnswers } from '../store/bench-answers';
import { BenchSelection } from '../store/bench-selection';
import { CompositeEditor } from './composite-editor';
import { EveryState } from './every-state';
import { MeasureField } from './measure-field';
import { rangesFor } from '../page/page-widths';
import { ValuePicker } from '../../shared/ui/value-picker';

/** What the chosen cell becomes: which of its properties, at which widths, and the value. */
@Component({
  selector: 'uv-cell-editor',
  imports: [CompositeEditor, EveryState, FormsModule, MeasureField, Select, ValuePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="becomes">
      <h2>{{ heading() }}</h2>
      @if (properties().length > 1) {
        <p-select
          [options]="properties()" optionLabel="label" optionValue="at" [ngModel]="selection.propertyAt()"
          (ngModelChange)="selection.propertyAt.set($event)" size="small" scrollHeight="360px" ariaLabel="Property" i18n-ariaLabel
        />
      } @else { <span class="spacer"></span> }
      <p-select
        [options]="ranges()" optionLabel="label" optionValue="key" [ngModel]="rangeKey()"
        (ngModelChange)="chooseRange($event)" size="small" scrollHeight="360px" ariaLabel="Widths it holds at" i18n-ariaLabel
      />
    </div>
    @if (closed()) {
      <p class="icon uv-soft">{{ closed() }}</p>
    } @else {
    @switch (kind()) {
      @case ('color') {
        <uv-value-picker
          [palette]="site.palette()" [current]="current()" [cell]="cellKey()" (picked)="acts.setValue($event)"
          (flashed)="flash.hold({ kind: 'role', role: $event })" (released)="flash.release()"
        />
      }
      @case ('image') {
        <uv-composite-editor
          [property]="selection.rowProperty()" [shown]="shown()" [current]="current()" [palette]="site.palette()"
          (picked)="acts.setValue($event)"
        />
      }
      @case ('shadow') {
        <uv-composite-editor
          [property]="selection.rowProperty()" [shown]="shown()" [current]="current()" [palette]="site.palette()"
          (picked)="acts.setValue($event)"
        />
      }
      @default {
        <uv-measure-field
          class="measure" [property]="selection.rowProperty()" [shown]="shown()" [palette]="site.palette()"
          [families]="families()" (picked)="acts.setValue({ kind: 'literal', css: $event })"
        />
      }
    }
    }
    <div class="acts" role="group" aria-label="Other values" i18n-aria-label>
      @if (selection.cell().state !== 'rest') {
        <button type="button" (click)="acts.asAtRest()" i18n>As at rest</button>
        <button
          type="button" (click)="acts.fillStates(selection.cell().state)"
          [title]="wordsOf('bench.fills-from-rest-step', { stateWord: stateWord() })"
         i18n>Fill from rest</button>
      } @else if (inspection().states.length > 1 && !isOnScrollbar()) {
        <uv-every-state [inspection]="inspection()" />
      }
      @for (house of houses(); track house.part) {
        <button
          type="button" [title]="wordsOf('bench.house-which-follows-when', { words: house.words })"
          (click)="acts.setValue({ kind: 'house', part: house.part })"
         i18n>House {{ house.css }}</button>
      }
      <button type="button" (click)="acts.setValue({ kind: 'literal', css: 'inherit' })" i18n>inherit</button>
      @if (kind() === 'color') {
        <button type="button" (click)="acts.setValue({ kind: 'literal', css: 'transparent' })" i18n>transparent</button>
      }
      @if (answers.cellOverrides().length > 0) { <button type="button" (click)="acts.clearCell()" i18n>Clear</button> }
    </div>
    @if (inspection().icon; as icon) { <p class="icon uv-soft"><strong>{{ icon.kind }}</strong> {{ icon.text }}</p> }
    @if (inspection().avoided.length > 0) {
      <p class="icon uv-soft" i18n><span class="uv-mono">{{ inspection().avoided.join(' ') }}</span> {inspection().avoided.length, plural, =1 {looks} other {look}} made by a build tool and may change with the next build: no selector leans on {inspection().avoided.length, plural, =1 {it} other {them}}.</p>
    }
    @if (inspection().reachability === 'shadow') {
      <p class="icon uv-soft" i18n>It stands behind a shadow root: overrides go through its part names and the custom properties it reads; the rest cannot be reached.</p>
    }
    @if (inspection().reachability === 'framed') {
      <p class="icon uv-soft" i18n>◆ Another document is framed here. CSS of this site does not reach into it: only the frame itself can be overridden.</p>
    }
  `,
  styles: `
    :host { display: block; border-top: 1px solid var(--uv-line); }
    .becomes { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 6px; align-items: center; padding: 6px 16px 4px; }
    .becomes h2 { font-weight: 700; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .becomes p-select { max-width: 142px; }
    uv-value-picker { padding-top: 2px; border-top: 0; }
    .measure { padding: 2px 16px 8px; }
    .acts { display: flex; flex-wrap: wrap; gap: 4px; padding: 0 16px 8px; }
    .acts button { padding: 2px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .acts button:hover { background: var(--uv-bar); }
    .icon { padding: 0 16px 8px; font-size: 12px; }
    .icon strong { color: var(--uv-ink); }
  `,
})
export class CellEditor {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly selection = inject(BenchSelection);
  protected readonly answers = inject(BenchAnswers);
  protected readonly acts = inject(BenchActs);
  protected readonly flash = inject(BenchFlash);
  readonly inspection = input.required<Spoken<Inspection>>();
  readonly families = input<readonly string[]>([]);

  protected readonly isOnScrollbar = computed(() => isScrollbarRow(this.selection.cell().row));
  protected readonly stateWord = computed(() => this.answers.stateWord(this.selection.cell().state).toLowerCase());
  protected readonly heading = computed(() =>
    this.isOnScrollbar()
      ? wordsOf('bench.becomes', { what: say(rowTold(this.selection.cell().row)) })
      : wordsOf('bench.state-becomes', {
          stateWord: this.answers.stateWord(this.selection.cell().state),
          what: say(rowTold(this.selection.cell().row)).toLowerCase(),
        }),
  );
  protected readonly properties = computed(() =>
    ROW_PROPERTIES[this.selection.cell().row].map(({ words }, at) => ({ at, label: say(words) })),
  );
  /** Why the chosen cell cannot be changed; empty where it can. */
  protected readonly closed = computed(() =>
    this.selection.cell().state === 'visited' && !isOpenToVisited(this.selection.rowProperty().property)
      ? say(CLOSED_TO_VISITED)
      : '',
  );
  /** Tells one cell from another: nudging begins anew there. */
  protected readonly cellKey = computed(() => {
    const { row, state } = this.selection.cell();
    return `${this.inspection().pageId}/${this.inspection().element}/${row}/${state}`;
  });
  protected readonly kind = computed(() => this.selection.rowProperty().kind);
  /** Parts of the house shape that are values of the chosen property. */
  protected readonly houses = computed(() => {
    const { shape } = this.site.palette();
    const { property } = this.selection.rowProperty();
    return HOUSE_PARTS.flatMap((part) => {
      const css = shape?.[part];
      return css !== undefined && HOUSE_PROPERTIES[part] === property
        ? [{ part, words: say(houseTold(part)), css: css.length > 24 ? `${css.slice(0, 23)}…` : css }]
        : [];
    });
  });
  protected readonly current = computed<OverrideValue | null>(() => this.answers.cellOverrides().at(-1)?.value ?? null);
  protected readonly shown = computed(() => this.answers.explanation()?.rooted ?? '');
  readonly #ranges = computed(() => {
    const ranges = rangesFor(this.inspection().breakpoints);
    const own = this.selection.range();
    const key = JSON.stringify(own);
    return ranges.some(({ range }) => JSON.stringify(range) === key)
      ? ranges
      : [...ranges, { label: wordsOf('bench.width-range', { min: own?.min ?? '', max: own?.max ?? '' }), range: own }];
  });
  protected readonly ranges = computed(() =>
    this.#ranges().map(({ label, range }) => ({ label, key: JSON.stringify(range) })),
  );
  protected readonly rangeKey = computed(() => JSON.stringify(this.selection.range()));

  protected chooseRange(key: string): void {
    const found = this.#ranges().find(({ range }) => JSON.stringify(range) === key);
    if (found) this.acts.setRange(found.range);
  }
}
