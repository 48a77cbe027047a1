import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { TypedColor, validateBody } from '@upper-veneer/contract';
import { hexOf, readColorNotation, type Palette } from '@upper-veneer/core';
import { InputText } from 'primeng/inputtext';
import { debounceTime } from 'rxjs';
import { ColorChip } from './color-chip';
import { NearestBrand } from './nearest-brand';

/** A pause in typing after which what stands there is meant, ms. */
const PAUSE_MS = 700;

/** A field that takes a colour in any notation, says how it read it, and asks where it reads two ways. */
@Component({
  selector: 'uv-typed-color',
  imports: [ColorChip, FormsModule, InputText, NearestBrand],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (ngSubmit)="use()">
      <input
        pInputText pSize="small" class="uv-mono" name="typed" autocomplete="off" spellcheck="false"
        placeholder="any notation" i18n-placeholder aria-label="Typed colour" i18n-aria-label aria-describedby="uv-typed-note"
        [attr.aria-invalid]="error() !== ''" [ngModel]="typed()" (ngModelChange)="typed.set($event)"
      />
    </form>
    @if (typed().trim() !== '') {
      <div class="readings" id="uv-typed-note" role="status">
        @if (error(); as text) { <span class="error">{{ text }}</span> }
        @if (readings().length > 1) { <span class="uv-soft ask" i18n>This can be read two ways</span> }
        @for (reading of readings(); track reading.css) {
          <button type="button" class="reading" (click)="take(reading.css)">
            <uv-color-chip [color]="reading.hex" />
            <span class="uv-mono">{{ reading.css }}</span>
            <span class="uv-soft">{{ reading.as }}</span>
            @if (palette(); as brand) { <uv-nearest-brand class="near" [css]="reading.css" [palette]="brand" /> }
          </button>
        }
      </div>
    }
  `,
  styles: `
    :host { display: grid; gap: 4px; }
    input { width: 100%; }
    .readings { display: grid; gap: 2px; }
    .near { margin-left: auto; }
    .reading { display: flex; flex-wrap: wrap; align-items: center; gap: 2px 8px; padding: 3px 5px; border: 1px solid var(--uv-line); background: var(--uv-paper); font-size: 12px; text-align: left; cursor: pointer; }
    .reading:hover { border-color: var(--uv-ink); }
    .ask, .error { font-size: 12px; }
    .error { color: var(--uv-fails); overflow-wrap: anywhere; }
  `,
})
export class TypedColorField {
  /** Beside it the nearest brand colour is said of each reading. */
  readonly palette = input<Palette | null>(null);
  /** Emits the CSS of the reading taken. */
  readonly read = output<string>();

  protected readonly typed = signal('');
  protected readonly readings = computed(() =>
    readColorNotation(this.typed()).map((reading) => ({ ...reading, hex: hexOf(reading.color) })),
  );
  /** Said once the typing pauses, or on Enter: not at every key of a colour half typed. */
  protected readonly error = computed(() =>
    this.#settled() === this.typed() || this.#entered() === this.typed() ? this.#fault() : '',
  );
  readonly #entered = signal('');
  readonly #settled = toSignal(toObservable(this.typed).pipe(debounceTime(PAUSE_MS)), { initialValue: '' });
  readonly #fault = computed(() => {
    if (this.typed().trim() === '') return '';
    const result = validateBody(TypedColor, { text: this.typed() });
    if (!result.ok) return result.errors[0].reason;
    return this.readings().length === 0
      ? wordsOf('screen.no-colour-any-notation', { typed: this.typed().trim().slice(0, 40) })
      : '';
  });

  /** Enter takes the reading when there is just one; two are asked about. */
  protected use(): void {
    this.#entered.set(this.typed());
    const readings = this.readings();
    if (readings.length === 1) this.take(readings[0].css);
  }

  protected take(css: string): void {
    this.read.emit(css);
    this.typed.set('');
  }
}
