import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

import { OWN_WORDS } from './word-hint';

/** A button that acts while it is held: by pointer, or by the space bar or Enter. */
@Component({
  selector: 'uv-hold-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button type="button" [attr.aria-label]="label()" [title]="wordsOf('screen.hold', { label: label(), meaning: meaning })" (pointerdown)="hold()" (pointerup)="release()" (pointerleave)="release()" (pointercancel)="release()"
    (keydown.space)="onKey($event)" (keydown.enter)="onKey($event)" (keyup)="release()" (blur)="release()" i18n>Flash</button>`,
  styles: `
    button { padding: 0 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 11.5px; cursor: pointer; touch-action: none; }
    button:active { background: var(--uv-black); color: var(--uv-on-black); }
  `,
})
export class HoldButton {
  protected readonly wordsOf = wordsOf;

  protected readonly meaning = OWN_WORDS.flash;
  /** What is flashed, for those who hear it. */
  readonly label = input.required<string>();
  readonly held = output();
  readonly released = output();

  #isHeld = false;

  protected hold(): void {
    this.#isHeld = true;
    this.held.emit();
  }

  /** Lets go once: a button that is not held loses the focus as another is pressed. */
  protected release(): void {
    if (!this.#isHeld) return;
    this.#isHeld = false;
    this.released.emit();
  }

  protected onKey(event: Event): void {
    event.preventDefault();
    if (!(event as KeyboardEvent).repeat) this.hold();
  }
}
