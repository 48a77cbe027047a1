import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output } from '@angular/core';

const KEY_STEP = 0.05;

/** The line up to which a page is shown otherwise, as without the veneer: dragged, or moved by the arrow keys. */
@Component({
  selector: 'uv-peel-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[style.left.%]': '100 * at()' },
  template: `<button type="button" role="slider" [attr.aria-label]="label()" aria-valuemin="0" aria-valuemax="100" [attr.aria-valuenow]="Math.round(100 * at())" aria-orientation="horizontal"
    (pointerdown)="onDown($event)" (pointermove)="onMove($event)" (keydown)="onKey($event)"></button><span>{{ left() }}</span>`,
  styles: `
    :host { position: absolute; top: 0; bottom: 0; width: 0; z-index: 2; }
    button { position: absolute; inset: 0 auto 0 -7px; width: 14px; padding: 0; border: 0; background: linear-gradient(#000, #000) center / 2px 100% no-repeat, linear-gradient(#fff, #fff) center / 6px 100% no-repeat; cursor: ew-resize; touch-action: none; }
    span { position: absolute; right: 8px; top: 6px; padding: 1px 7px; background: #000; color: #fff; font-size: 12px; box-shadow: 0 0 0 1px #fff; pointer-events: none; }
  `,
})
export class PeelLine {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  /** What the line is, and what is to its left, in a word. */
  readonly label = input(wordsOf('screen.without-veneer-up-here'));
  readonly left = input('without');
  /** 0–1 from the left. */
  readonly at = input.required<number>();
  readonly moved = output<number>();
  protected readonly Math = Math;

  protected onDown(event: PointerEvent): void {
    if (event.target instanceof Element) event.target.setPointerCapture(event.pointerId);
  }

  protected onMove(event: PointerEvent): void {
    const bounds = this.#host.nativeElement.parentElement?.getBoundingClientRect();
    if (event.buttons === 0 || !bounds) return;
    this.#move((event.clientX - bounds.left) / bounds.width);
  }

  protected onKey(event: KeyboardEvent): void {
    const step = ({ ArrowLeft: -KEY_STEP, ArrowRight: KEY_STEP, Home: -1, End: 1 } as Record<string, number>)[
      event.key
    ];
    if (step === undefined) return;
    event.preventDefault();
    this.#move(this.at() + step);
  }

  #move(at: number): void {
    this.moved.emit(Math.min(1, Math.max(0, at)));
  }
}
