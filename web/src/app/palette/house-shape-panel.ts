import { say, spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import type { PaletteRequest } from '@upper-veneer/contract';
import { HOUSE_PARTS, houseTold, houseProblem, readHouse, type HousePart, type HouseShape } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { usesOfPart, withShape } from '../shared/site/palette-edits';
import { SiteStore } from '../shared/site/site-store';
import { ShapeSample } from '../shared/ui/shape-sample';

const HINTS: Readonly<Record<HousePart, string>> = {
  corner: '3px',
  edge: '1px',
  shadow: wordsOf('palette.shadow-hint'),
  'text-family': 'Georgia, serif',
  'heading-family': 'Georgia, serif',
};

/** The house shape: corner radius, edge width, shadow and type families, kept with the palette; Match offers them, overrides follow. */
@Component({
  selector: 'uv-house-shape-panel',
  imports: [Button, FormsModule, InputText, ShapeSample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>House shape</h2><span class="uv-soft" i18n>Match offers it, and overrides bound to it follow</span></header>
    <table>
      <tbody>
        @for (row of rows(); track row.part) {
          <tr>
            <th scope="row">{{ row.words }}</th>
            <td>@if (row.css) { <uv-shape-sample [part]="row.part" [css]="row.css" /> }</td>
            <td class="field">
              <input
                pInputText pSize="small" class="uv-mono" spellcheck="false" autocomplete="off" maxlength="300"
                [placeholder]="row.hint" [attr.aria-label]="wordsOf('palette.house', { words: row.words })"
                [attr.aria-invalid]="problems()[row.part] !== undefined" [ngModel]="texts()[row.part] ?? ''"
                (ngModelChange)="type(row.part, $event)" (change)="keep(row.part)"
              />
              @if (problems()[row.part]; as words) { <span class="problem" role="alert">{{ words }}</span> }
            </td>
            <td class="usual">
              @if (row.usual; as usual) {
                <span class="uv-soft" [title]="usual.value">{{ usual.words }}</span>
                <p-button
                  label="Take" i18n-label [text]="true" size="small"
                  [ariaLabel]="wordsOf('palette.take-as-house', { value: usual.value, words: row.words })"
                  (onClick)="take(row.part, usual.value)"
                />
              }
            </td>
            <td class="uv-soft uses">{{ row.uses }}</td>
          </tr>
        }
      </tbody>
    </table>
    <p class="uv-soft" i18n>What is left empty is not settled: Match leaves it alone, or, blended in, takes what is usual around a part. An emptied one that overrides use stays in them as a plain value.</p>
  `,
  styles: `
    :host { display: grid; gap: 8px; }
    header { display: flex; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    table { width: 100%; border-collapse: collapse; background: var(--uv-paper); }
    th, td { height: 44px; padding: 3px 8px; border: 1px solid var(--uv-line); border-width: 1px 0; text-align: left; font-weight: 400; }
    th { width: 130px; padding-left: 10px; }
    td:nth-child(2) { width: 50px; }
    .field { width: 220px; }
    .field input { width: 100%; }
    .usual { white-space: nowrap; max-width: 0; width: 40%; }
    .usual span { display: inline-block; max-width: calc(100% - 66px); overflow: hidden; text-overflow: ellipsis; vertical-align: middle; font-size: 12.5px; }
    .uses { width: 72px; font-size: 12px; white-space: nowrap; }
    .problem { display: block; font-size: 12px; color: var(--uv-fails); }
    p { margin: 0; font-size: 12px; }
    @media (max-width: 900px) { table, tbody { display: block; } tr { display: grid; grid-template-columns: 1fr auto; padding: 6px; border-bottom: 1px solid var(--uv-line); } th, td { display: block; height: auto; border: 0; } .field, .usual { grid-column: 1 / -1; width: auto; max-width: none; } }
  `,
})
export class HouseShapePanel {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  /** Emits the palette as it is to be. */
  readonly changed = output<PaletteRequest>();

  readonly #usual = toSignal(
    toObservable(this.#site.site).pipe(
      askEngine(this.#engine, (site, engine) => (site ? engine.usualShape() : null), []),
    ),
    { initialValue: [] },
  );
  readonly #shape = computed<HouseShape>(() => this.#site.palette().shape ?? {});
  protected readonly texts = linkedSignal<HouseShape>(() => this.#shape());
  protected readonly problems = signal<Readonly<Partial<Record<HousePart, string | undefined>>>>({});
  protected readonly rows = computed(() =>
    HOUSE_PARTS.map((part) => {
      const usual = this.#usual().find((entry) => entry.part === part);
      const uses = usesOfPart(this.#site.overrides(), part).length;
      return {
        part,
        words: say(houseTold(part)),
        hint: HINTS[part],
        css: this.#shape()[part] ?? '',
        usual:
          usual && usual.value !== this.#shape()[part] && houseProblem(part, usual.value) === null
            ? { value: usual.value, words: wordsOf('palette.usual-here', { value: usual.value, count: usual.count }) }
            : null,
        uses: uses === 0 ? '' : wordsOf('palette.use-uses', { uses }),
      };
    }),
  );

  protected type(part: HousePart, text: string): void {
    this.texts.set({ ...this.texts(), [part]: text });
  }

  protected keep(part: HousePart): void {
    this.take(part, readHouse(part, this.texts()[part] ?? ''));
  }

  protected take(part: HousePart, css: string): void {
    const problem = css === '' ? null : spoken(houseProblem(part, css));
    this.problems.set({
      ...this.problems(),
      [part]: problem === null ? undefined : `"${css.slice(0, 40)}" ${problem}`,
    });
    if (problem !== null || css === (this.#shape()[part] ?? '')) return;
    this.changed.emit(withShape(this.#site.palette(), this.#site.overrides(), part, css));
  }
}
