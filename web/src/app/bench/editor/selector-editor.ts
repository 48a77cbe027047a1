import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { formatSpecificity, type Override, type SelectorCheck } from '@upper-veneer/core';
import { combineLatest, debounceTime } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';

/** The selector of an override, edited by hand and checked while typing. */
@Component({
  selector: 'uv-selector-editor',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.escape)': 'closed.emit()' },
  template: `
    <form (ngSubmit)="use()">
      <input class="uv-mono" name="selector" aria-label="Selector" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="text()" (ngModelChange)="text.set($event)" [attr.aria-invalid]="(check()?.problem ?? '') !== ''" />
      <button type="submit" [disabled]="!isUsable()" i18n>Use</button>
      @if (override().isByHand) { <button type="button" (click)="written.emit('')" i18n>Write it for me</button> }
      <button type="button" (click)="closed.emit()" i18n>Close</button>
    </form>
    <p role="status">{{ words() }}</p>
  `,
  styles: `
    :host { display: block; padding: 7px 12px; background: #1a1a1a; color: #f2f2f2; }
    form { display: flex; gap: 5px; }
    input { flex: 1; min-width: 0; padding: 3px 7px; border: 1px solid #777; border-radius: 3px; background: #000; color: #f2f2f2; font-size: 12.5px; }
    button { padding: 2px 8px; border: 1px solid #777; border-radius: 3px; background: #333; color: #f2f2f2; font-size: 12px; white-space: nowrap; cursor: pointer; }
    button:disabled { color: #999; cursor: default; }
    input:focus-visible, button:focus-visible { outline: 2px solid #fff; box-shadow: 0 0 0 4px #000; }
    p { min-height: 34px; margin-top: 4px; font-size: 12px; color: #d8d8d8; overflow-wrap: anywhere; }
  `,
})
export class SelectorEditor {
  readonly #engine = inject(Engine);
  readonly override = input.required<Override>();
  /** Emits the selector to be used; empty to have it written again. */
  readonly written = output<string>();
  readonly closed = output();

  protected readonly text = linkedSignal(() => this.override().selector);
  protected readonly check = toSignal<Spoken<SelectorCheck> | null, null>(
    combineLatest([toObservable(this.text), toObservable(this.override)]).pipe(
      debounceTime(80),
      askEngine(
        this.#engine,
        ([text, override], engine): Promise<Spoken<SelectorCheck> | null> => engine.checkSelector(override, text),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly isUsable = computed(
    () => this.check()?.problem === '' && this.text().trim() !== '' && this.text().trim() !== this.override().selector,
  );
  protected readonly words = computed(() => {
    const check = this.check();
    if (!check) return '';
    if (check.problem !== '') return `▲ ${check.problem}`;
    return [
      wordsOf('bench.page-pages', { elements: check.elements, pages: check.pages }),
      check.specificity
        ? wordsOf('bench.specificity', { formatSpecificity: formatSpecificity(check.specificity) })
        : '',
      check.missing.length > 0 ? wordsOf('bench.misses-reach', { missing: check.missing.length }) : '',
      check.extra.length > 0 ? wordsOf('bench.takes-more', { extra: check.extra.length }) : '',
      check.losesTo === ''
        ? wordsOf('bench.wins-all-matches')
        : wordsOf('bench.loses-against', { losesTo: check.losesTo }),
    ]
      .filter(Boolean)
      .join(' · ');
  });

  protected use(): void {
    if (this.isUsable()) this.written.emit(this.text().trim());
  }
}
