import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  untracked,
} from '@angular/core';
import {
  BLACK,
  MOST_CHROMA,
  NUDGES,
  colorOfCss,
  deltaE2000,
  fromLch,
  hexOf,
  lchOf,
  type Color,
  type Lch,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { ColorChip } from './color-chip';

/** How long a nudge waits for the next before it is kept, ms: keys held down are one change. */
const PAUSE_MS = 500;
const STOPS = 12;

/** Moves a colour finely in lightness, chroma and hue, by dragging or with the arrow keys; where it came from stays beside it. */
@Component({
  selector: 'uv-nudge-color',
  imports: [Button, ColorChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (axis of axes(); track axis.key) {
      <label>
        <span>{{ axis.label }}</span>
        <input
          type="range" [min]="0" [max]="axis.most" [step]="axis.step" [value]="axis.value"
          [style.background]="axis.track" [attr.aria-label]="axis.label" [attr.aria-valuetext]="axis.figure"
          (input)="move(axis.key, $event)" (change)="keepSoon()"
        />
        <span class="uv-mono">{{ axis.figure }}</span>
      </label>
    }
    <p>
      <uv-color-chip [color]="origin()" />
      <span aria-hidden="true">→</span>
      <uv-color-chip [color]="hex()" />
      <span class="uv-mono">{{ hex() }}</span>
      <span class="uv-soft">{{ words() }}</span>
      @if (isMoved()) {
        <p-button label="Back" i18n-label [outlined]="true" size="small" [ariaLabel]="wordsOf('screen.back', { origin: origin() })" (onClick)="back()" />
      }
    </p>
  `,
  styles: `
    :host { display: grid; gap: 5px; font-size: 12.5px; }
    label { display: grid; grid-template-columns: 72px minmax(0, 1fr) 62px; align-items: center; gap: 10px; min-height: 24px; }
    label .uv-mono { text-align: right; }
    input { appearance: none; width: 100%; height: 16px; margin: 0; border: 1px solid var(--uv-line-strong); border-radius: 0; cursor: pointer; }
    input::-webkit-slider-thumb { appearance: none; width: 10px; height: 22px; border: 2px solid #000; border-radius: 1px; background: #fff; box-shadow: 0 0 0 1px #fff; }
    input::-moz-range-thumb { width: 8px; height: 20px; border: 2px solid #000; border-radius: 1px; background: #fff; }
    p { display: flex; align-items: center; gap: 7px; min-height: 30px; margin: 0; }
    uv-color-chip { width: 26px; height: 18px; }
    p-button { margin-left: auto; }
  `,
})
export class NudgeColor {
  protected readonly wordsOf = wordsOf;

  readonly css = input.required<string>();
  /** What it is nudged from: another one begins anew. */
  readonly of = input<unknown>(null);
  /** Emits the colour once it rests. */
  readonly nudged = output<string>();

  #waiting: ReturnType<typeof setTimeout> | undefined;
  readonly #given = computed<Color>(() => colorOfCss(this.css()) ?? BLACK);
  protected readonly origin = linkedSignal<unknown, string>({
    source: this.of,
    computation: () => hexOf(untracked(this.#given)),
  });
  /** Finer than eight bits a channel, so that many small steps add up. */
  readonly #lch = linkedSignal<Color, Lch>({
    source: this.#given,
    computation: (given, before) =>
      before && hexOf(fromLch(before.value, given)) === hexOf(given) ? before.value : lchOf(given),
  });
  /** What was asked for last: it may still be on its way. */
  readonly #asked = linkedSignal<Color, string>({ source: this.#given, computation: (given) => hexOf(given) });
  protected readonly hex = computed(() => hexOf(fromLch(this.#lch(), this.#given())));
  protected readonly isMoved = computed(() => this.hex() !== this.origin());
  protected readonly words = computed(() => {
    const from = colorOfCss(this.origin());
    const to = colorOfCss(this.hex());
    return this.isMoved() && from && to
      ? wordsOf('screen.e-from', { deltaE2000: deltaE2000(from, to).toFixed(1), origin: this.origin() })
      : '';
  });
  protected readonly axes = computed(() => {
    const lch = this.#lch();
    const axis = (key: keyof Lch, label: string, most: number, figure: string) => ({
      key,
      label,
      most,
      figure,
      step: NUDGES[key],
      value: lch[key],
      track: `linear-gradient(to right, ${stopsOf(lch, key, most).join(', ')})`,
    });
    return [
      axis('lightness', wordsOf('screen.lightness'), 1, `${(100 * lch.lightness).toFixed(2)} %`),
      axis('chroma', wordsOf('screen.chroma'), MOST_CHROMA, lch.chroma.toFixed(4)),
      axis('hue', wordsOf('screen.hue'), 360, `${lch.hue.toFixed(1)}°`),
    ];
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      if (this.#waiting !== undefined) this.#keep();
    });
  }

  protected move(key: keyof Lch, event: Event): void {
    this.#lch.set({ ...this.#lch(), [key]: Number((event.target as HTMLInputElement).value) });
    this.keepSoon();
  }

  protected keepSoon(): void {
    clearTimeout(this.#waiting);
    this.#waiting = setTimeout(() => this.#keep(), PAUSE_MS);
  }

  protected back(): void {
    const origin = colorOfCss(this.origin());
    if (origin) this.#lch.set(lchOf(origin));
    this.#keep();
  }

  #keep(): void {
    clearTimeout(this.#waiting);
    this.#waiting = undefined;
    if (this.hex() === this.#asked()) return;
    this.#asked.set(this.hex());
    this.nudged.emit(this.hex());
  }
}

/** Colours along one axis, hex, from 0 to the most of it. */
function stopsOf(lch: Lch, key: keyof Lch, most: number): string[] {
  return Array.from({ length: STOPS + 1 }, (_, i) => hexOf(fromLch({ ...lch, [key]: (most * i) / STOPS }, BLACK)));
}
