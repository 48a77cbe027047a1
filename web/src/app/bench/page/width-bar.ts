import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { InputText } from 'primeng/inputtext';
import { SelectButton } from 'primeng/selectbutton';
import { WordHint } from '../../shared/ui/word-hint';
import { MOST_WIDTH, WIDTHS, readWidth, turnedWidth } from './page-widths';

/** Viewport width of the page: the usual ones, turned, typed, or picked at a breakpoint of the page on the ruler. */
@Component({
  selector: 'uv-width-bar',
  imports: [FormsModule, InputText, SelectButton, WordHint],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-selectbutton
      [options]="widths" optionLabel="label" optionValue="width" [ngModel]="width()"
      (ngModelChange)="chosen.emit($event)" [allowEmpty]="false" size="small" aria-label="Viewport width" i18n-aria-label
    />
    <button
      type="button" class="turn" [disabled]="turned() === width()" (click)="chosen.emit(turned())" uvWord="turn"
      [isPlain]="false"
     i18n>Turn</button>
    <form (ngSubmit)="use()">
      <input
        pInputText pSize="small" class="uv-mono" inputmode="numeric" name="width" aria-label="Viewport width in px" i18n-aria-label
        [ngModel]="text()" (ngModelChange)="text.set($event)" (blur)="use()"
      />
    </form>
    @if (breakpoints().length > 0) {
      <div class="ruler" #ruler role="slider" tabindex="0" aria-label="Breakpoints of the site" i18n-aria-label [attr.aria-valuemin]="breakpoints()[0]" [attr.aria-valuemax]="breakpoints().at(-1)" [attr.aria-valuenow]="width()" [attr.aria-valuetext]="wordsOf('bench.px-rules-change-px', { width: width(), breakpoints: breakpoints().join(', ') })"
        [title]="wordsOf('bench.rules-change-px', { breakpoints: breakpoints().join(', ') })" (click)="pick($event, ruler)" (keydown)="step($event)">
        <span class="track"></span>
        @for (mark of marks(); track mark.at) { <span class="mark" [style.left.%]="mark.left" [class.passed]="mark.at <= width()"></span> }
        <span class="here" [style.left.%]="here()"></span>
      </div>
    }
  `,
  styles: `
    :host { display: flex; align-items: center; gap: 5px; flex: none; }
    .turn { padding: 3px 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .turn:disabled { color: var(--uv-soft); cursor: default; }
    input { width: 46px; padding-inline: 3px; text-align: right; }
    .ruler { position: relative; width: 54px; height: 26px; cursor: pointer; }
    .track { position: absolute; inset: 12px 0 auto; height: 2px; background: var(--uv-line-strong); }
    .mark { position: absolute; top: 5px; width: 1px; height: 16px; background: var(--uv-soft); }
    .mark.passed { width: 3px; transform: translateX(-1px); }
    .ruler:hover .mark { background: var(--uv-ink); }
    .here { position: absolute; top: 9px; width: 8px; height: 8px; transform: translateX(-4px) rotate(45deg); background: var(--uv-ink); border: 1px solid var(--uv-paper); pointer-events: none; }
  `,
})
export class WidthBar {
  protected readonly wordsOf = wordsOf;

  readonly width = input.required<number>();
  readonly breakpoints = input<readonly number[]>([]);
  readonly chosen = output<number>();

  protected readonly widths = WIDTHS.map((width) => ({ width, label: String(width) }));
  protected readonly turned = computed(() => turnedWidth(this.width()));
  protected readonly text = linkedSignal(() => String(this.width()));
  readonly #span = computed(() => Math.max(1400, ...this.breakpoints(), Math.min(this.width(), MOST_WIDTH)));
  protected readonly here = computed(() => (100 * this.width()) / this.#span());
  protected readonly marks = computed(() => this.breakpoints().map((at) => ({ at, left: (100 * at) / this.#span() })));

  /** The breakpoint nearest to where the ruler was pressed. */
  protected pick(event: MouseEvent, ruler: HTMLElement): void {
    const { left, width } = ruler.getBoundingClientRect();
    const at = ((event.clientX - left) / width) * this.#span();
    this.chosen.emit(
      this.breakpoints().reduce((best, mark) => (Math.abs(mark - at) < Math.abs(best - at) ? mark : best)),
    );
  }

  /** From one breakpoint to the next. */
  protected step(event: KeyboardEvent): void {
    const next = this.#markFor(event.key);
    if (next === undefined) return;
    event.preventDefault();
    this.chosen.emit(next);
  }

  #markFor(key: string): number | undefined {
    const marks = this.breakpoints();
    switch (key) {
      case 'ArrowRight':
      case 'ArrowUp':
        return marks.find((mark) => mark > this.width());
      case 'ArrowLeft':
      case 'ArrowDown':
        return marks.findLast((mark) => mark < this.width());
      case 'Home':
        return marks.at(0);
      case 'End':
        return marks.at(-1);
      default:
        return undefined;
    }
  }

  protected use(): void {
    const width = readWidth(this.text());
    if (width === null) this.text.set(String(this.width()));
    else if (width !== this.width()) this.chosen.emit(width);
    else this.text.set(String(width));
  }
}
