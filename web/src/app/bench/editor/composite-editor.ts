import { say, spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  colorOfCss,
  colorOfValue,
  hexOf,
  readComposite,
  strengthOf,
  valueProblem,
  valueTold,
  withOverlay,
  type CompositeValue,
  type OverrideValue,
  type Palette,
  type PlainValue,
  type RowProperty,
} from '@upper-veneer/core';
import { InputText } from 'primeng/inputtext';
import { Slider } from 'primeng/slider';
import { ValuePicker } from '../../shared/ui/value-picker';

/** A gradient, an overlay over a picture, or a shadow: its colours one by one, bound to the palette, and its text. */
@Component({
  selector: 'uv-composite-editor',
  imports: [FormsModule, InputText, Slider, ValuePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="Colours in it" i18n-aria-label>
      @for (stop of stops(); track $index) {
        <button
          type="button" [class.current]="$index === at()" [attr.aria-pressed]="$index === at()" (click)="at.set($index)"
        >
          <span class="chip" [style.background]="stop.hex"></span>
          <span>{{ stop.words }}</span>
        </button>
      } @empty { <span class="uv-soft">{{ property().kind === 'shadow' ? wordsOf('bench.no-shadow') : wordsOf('bench.no-gradient-or-picture') }}</span> }
    </div>
    <div class="acts">
      @if (shown() !== 'none') { <button type="button" (click)="picked.emit({ kind: 'literal', css: 'none' })" i18n>Clear it</button> }
      @if (property().kind === 'image') {
        <button type="button" (click)="gradient()" i18n>Two-colour gradient</button>
        <button type="button" (click)="overlay()">{{ hasPicture() ? wordsOf('bench.overlay-over-picture') : wordsOf('bench.plain-layer') }}</button>
      } @else {
        <button type="button" (click)="shadow()">{{ property().property === 'text-shadow' ? wordsOf('bench.soft-shadow') : wordsOf('bench.low-shadow') }}</button>
      }
    </div>
    @if (percent() !== null) {
      <div class="strength">
        <span i18n>Strength {{ percent() }} %</span>
        <p-slider
          [ngModel]="percent()" (ngModelChange)="strength.set($event)" (onSlideEnd)="setStrength()" [min]="5"
          [max]="100" [step]="5" ariaLabel="Strength of the overlay" i18n-ariaLabel
        />
      </div>
    }
    @if (percent() === null && stopStrength() !== null) {
      <div class="strength">
        <span i18n>This colour {{ stopStrength() }} %</span>
        <p-slider
          [ngModel]="stopStrength()" (ngModelChange)="wantedStrength.set($event)" (onSlideEnd)="setStopStrength()"
          [min]="0" [max]="100" [step]="5" ariaLabel="Strength of the chosen colour" i18n-ariaLabel
        />
      </div>
    }
    @if (stops().length > 0) {
      <uv-value-picker
        [palette]="palette()" [current]="value().colors[at()]" [cell]="at()" (picked)="recolour($event)"
      />
    }
    <form (ngSubmit)="use()">
      <input
        pInputText pSize="small" class="uv-mono" name="text" autocomplete="off" spellcheck="false"
        aria-label="Text of the value; numbers in braces stand for its colours" i18n-aria-label [attr.aria-invalid]="problem() !== ''"
        [ngModel]="text()" (ngModelChange)="text.set($event)"
      />
    </form>
    @if (problem(); as words) { <p class="problem" role="status">{{ words }}</p> }
  `,
  styles: `
    :host { display: grid; gap: 6px; padding: 0 16px 8px; }
    .chips, .acts { display: flex; flex-wrap: wrap; gap: 4px; }
    button { display: flex; align-items: center; gap: 6px; padding: 3px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .chips button.current { outline: 2px solid var(--uv-ink); border-radius: 0; }
    .chip { width: 18px; height: 14px; border: 1px solid color-mix(in srgb, var(--uv-ink) 40%, transparent); }
    uv-value-picker { padding: 4px 0 0; }
    .strength { display: grid; grid-template-columns: 110px 1fr; align-items: center; gap: 12px; font-size: 12px; }
    input { width: 100%; }
    .problem { color: var(--uv-fails); font-size: 12px; overflow-wrap: anywhere; }
  `,
})
export class CompositeEditor {
  protected readonly wordsOf = wordsOf;

  readonly property = input.required<RowProperty>();
  /** Value that shows now, as the browser computes it. */
  readonly shown = input.required<string>();
  readonly current = input<OverrideValue | null>(null);
  readonly palette = input.required<Palette>();
  readonly picked = output<OverrideValue>();

  protected readonly value = computed<CompositeValue>(() => {
    const current = this.current();
    return current?.kind === 'composite'
      ? current
      : readComposite(this.shown() === 'none' ? '' : this.shown(), this.palette());
  });
  /** Which of its colours is chosen. */
  protected readonly at = linkedSignal({
    source: () => this.value().colors.length,
    computation: (count, before?: { readonly value: number }) => Math.min(before?.value ?? 0, Math.max(0, count - 1)),
  });
  protected readonly text = linkedSignal(() => this.value().css);
  protected readonly stops = computed(() =>
    this.value().colors.map((color) => {
      const found = colorOfValue(color, this.palette());
      return { words: say(valueTold({ palette: this.palette() }, color)), hex: found ? hexOf(found) : 'transparent' };
    }),
  );
  protected readonly hasPicture = computed(() => /url\(/.test(this.shown()));
  protected readonly strength = linkedSignal(() =>
    Number(/\{0\} (\d+)%, transparent/.exec(this.value().css)?.[1] ?? NaN),
  );
  protected readonly percent = computed(() => (Number.isNaN(this.strength()) ? null : this.strength()));
  /** How strong the chosen colour is, in percent; `null` where it is not of the palette. */
  protected readonly wantedStrength = linkedSignal<number | null>(() => {
    const stop = this.value().colors[this.at()];
    return stop && stop.kind !== 'literal' ? Math.round(strengthOf(stop) * 100) : null;
  });
  protected readonly stopStrength = this.wantedStrength.asReadonly();
  protected readonly problem = computed(() =>
    this.text() === this.value().css
      ? ''
      : (spoken(valueProblem(this.property().property, { ...this.value(), css: this.text() }, this.palette())) ?? ''),
  );

  protected recolour(color: OverrideValue): void {
    if (color.kind === 'composite' || color.kind === 'house') return;
    this.picked.emit({
      ...this.value(),
      colors: this.value().colors.map((own, i) => (i === this.at() ? asStrongAs(own, color) : own)),
    });
  }

  protected setStopStrength(): void {
    const percent = this.wantedStrength();
    if (percent === null) return;
    this.picked.emit({
      ...this.value(),
      colors: this.value().colors.map((own, i) =>
        i === this.at() && own.kind !== 'literal' ? { ...own, alpha: percent / 100 } : own,
      ),
    });
  }

  protected gradient(): void {
    const [first, second] = this.#twoColors();
    this.picked.emit({ kind: 'composite', css: 'linear-gradient(180deg, {0} 0%, {1} 100%)', colors: [first, second] });
  }

  protected overlay(): void {
    this.picked.emit(withOverlay(this.shown(), this.#role('ink') ?? { kind: 'literal', css: '#000' }, 55));
  }

  protected setStrength(): void {
    const [color] = this.value().colors;
    if (color && this.strength() !== null) this.picked.emit(withOverlay(this.value().css, color, this.strength()));
  }

  protected shadow(): void {
    const isText = this.property().property === 'text-shadow';
    this.picked.emit({
      kind: 'composite',
      css: isText
        ? '0 1px 2px color-mix(in srgb, {0} 40%, transparent)'
        : '0 2px 6px color-mix(in srgb, {0} 30%, transparent)',
      colors: [this.#role('ink') ?? { kind: 'literal', css: '#000' }],
    });
  }

  protected use(): void {
    const css = this.text().trim();
    if (css === '' || this.problem() !== '') return;
    const kept = this.value().colors;
    // Colours typed as such are lifted out and take their place after those that stand in braces already.
    this.picked.emit(kept.length > 0 ? { kind: 'composite', css, colors: kept } : readComposite(css, this.palette()));
  }

  #role(role: 'ink' | 'accent'): PlainValue | null {
    return this.palette().roles.some((fill) => fill.role === role) ? { kind: 'role', role, shade: 0 } : null;
  }

  #twoColors(): [PlainValue, PlainValue] {
    const accent = this.#role('accent');
    if (accent?.kind === 'role') return [accent, { ...accent, shade: -12 }];
    const [first, second] = this.palette().swatches;
    return [
      first ? { kind: 'swatch', swatchId: first.id, shade: 0 } : { kind: 'literal', css: '#000' },
      second ? { kind: 'swatch', swatchId: second.id, shade: 0 } : { kind: 'literal', css: '#fff' },
    ];
  }
}

/** A colour as see-through as the one it stands in for: a sheer stop stays sheer when it is bound to the palette. */
function asStrongAs(before: PlainValue, next: PlainValue): PlainValue {
  if (next.kind === 'literal' || (next.alpha ?? null) !== null) return next;
  const alpha = before.kind === 'literal' ? (colorOfCss(before.css)?.alpha ?? 1) : strengthOf(before);
  return alpha > 0 && alpha < 1 ? { ...next, alpha } : next;
}
