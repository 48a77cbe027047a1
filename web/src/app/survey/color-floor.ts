import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { WHITE, colorOfCss, compositeOver, hexOf, readableOn } from '@upper-veneer/core';
import type { JudgedColor } from '../shared/census/census-store';
import { THE_REST, layFloor } from './lay-floor';

const BOARD_HEIGHT = 30;

/** The site's colours laid as a floor of boards: the longer its boards, the more of the site a colour covers. */
@Component({
  selector: 'uv-color-floor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (board of boards(); track board.key) {
      @if (board.of === rest) {
        <button type="button" [class.current]="isAmongRest()" [style.left.px]="board.left" [style.top.px]="board.row * boardHeight" [style.width.px]="board.width" [style.background]="restStripes()" [attr.aria-label]="restWords()" [title]="restWords()" (click)="nextOfRest()"></button>
      } @else if (board.isFirst) {
        <button type="button" [class.current]="board.hex === chosenHex()" [class.dim]="isDim(board.hex)" [style.left.px]="board.left" [style.top.px]="board.row * boardHeight" [style.width.px]="board.width" [style.background]="board.ground" [style.color]="board.ink"
          [attr.aria-pressed]="board.hex === chosenHex()" [attr.aria-label]="board.words" [title]="board.words" (click)="chosen.emit(board.hex)">
          @if (board.width > 62) {
            <span class="uv-mono">{{ board.hex }}</span>
          }
        </button>
      } @else {
        <button type="button" class="more" tabindex="-1" aria-hidden="true" [class.current]="board.hex === chosenHex()" [class.dim]="isDim(board.hex)" [style.left.px]="board.left" [style.top.px]="board.row * boardHeight" [style.width.px]="board.width" [style.background]="board.ground" [title]="board.words" (click)="chosen.emit(board.hex)"></button>
      }
    }
  `,
  host: { role: 'group', '[attr.aria-label]': 'name', '[style.height.px]': 'rows() * boardHeight' },
  styles: `
    :host { display: block; position: relative; background: var(--uv-mat); border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; }
    button { position: absolute; height: 29px; padding: 0; border: 0; border-radius: 0; overflow: hidden; box-shadow: 1px 0 0 var(--uv-panel); cursor: pointer; }
    button span { display: block; padding-left: 7px; font-size: 12px; text-align: left; }
    .current { z-index: 1; outline: 2px solid #000; box-shadow: 0 0 0 4px #fff; }
    .dim { opacity: .16; }
    button:focus-visible { z-index: 2; outline: 2px solid #fff; box-shadow: 0 0 0 4px #000; }
  `,
})
export class ColorFloor {
  protected readonly name = wordsOf('survey.colours-by-area');
  readonly colors = input.required<readonly JudgedColor[]>();
  readonly rows = input(5);
  readonly chosenHex = input<string | null>(null);
  /** Colours that are looked for; `null` for all. */
  readonly sought = input<ReadonlySet<string> | null>(null);
  readonly chosen = output<string>();

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly #width = signal(600);
  protected readonly boardHeight = BOARD_HEIGHT;
  protected readonly rest = THE_REST;
  protected readonly boards = computed(() => {
    const colors = this.colors().filter(({ area }) => area > 0);
    const total = colors.reduce((sum, { area }) => sum + area, 0);
    const paint = new Map(
      colors.map((color) => {
        const value = colorOfCss(color.hex);
        const share = (100 * color.area) / total;
        return [
          color.hex,
          {
            ground: value ? hexOf(compositeOver(value, WHITE)) : color.hex,
            ink: value ? hexOf(readableOn(value)) : '#000',
            words: wordsOf('survey.under-0-1-area', {
              hex: color.hex,
              case: share < 0.1 ? 'yes' : 'no',
              share: share.toFixed(1),
              elements: color.elements,
            }),
          },
        ];
      }),
    );
    return layFloor(
      colors.map(({ hex, area }) => ({ key: hex, size: area })),
      this.#width(),
      this.rows(),
    ).map((board) => ({
      ...board,
      key: `${board.of}/${board.row}`,
      hex: board.of,
      ...(paint.get(board.of) ?? { ground: board.of, ink: '#000', words: board.of }),
    }));
  });

  constructor() {
    const destroyRef = inject(DestroyRef);
    afterNextRender(() => {
      const observer = new ResizeObserver(([entry]) => this.#width.set(Math.floor(entry.contentRect.width)));
      observer.observe(this.#host.nativeElement);
      destroyRef.onDestroy(() => observer.disconnect());
    });
  }

  readonly #rest = computed(() => {
    const own = new Set(this.boards().map(({ of }) => of));
    return this.colors().filter(({ area, hex }) => area > 0 && !own.has(hex));
  });
  protected readonly isAmongRest = computed(() => this.#rest().some(({ hex }) => hex === this.chosenHex()));
  protected readonly restStripes = computed(() => {
    const hexes = this.#rest()
      .slice(0, 40)
      .map(({ hex }) => {
        const value = colorOfCss(hex);
        return value ? hexOf(compositeOver(value, WHITE)) : hex;
      });
    return `linear-gradient(90deg, ${hexes.map((hex, i) => `${hex} ${(100 * i) / hexes.length}% ${(100 * (i + 1)) / hexes.length}%`).join(', ')})`;
  });
  protected readonly restWords = computed(() =>
    wordsOf('survey.colour-covers-colours-cover', { rest: this.#rest().length }),
  );

  /** Goes through the colours that share the last board. */
  protected nextOfRest(): void {
    const rest = this.#rest();
    const at = rest.findIndex(({ hex }) => hex === this.chosenHex());
    if (rest.length > 0) this.chosen.emit(rest[(at + 1) % rest.length].hex);
  }

  protected isDim(hex: string): boolean {
    return this.sought()?.has(hex) === false;
  }
}
