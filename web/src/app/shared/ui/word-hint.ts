import { wordsOf } from '@upper-veneer/words';
import { DOCUMENT, Directive, ElementRef, computed, inject, input } from '@angular/core';

/** The product's own words, in plain ones. */
export const OWN_WORDS = {
  ply: wordsOf('screen.plies-are-declarations-compete'),
  peel: wordsOf('screen.peel-shows-page-without'),
  flash: wordsOf('screen.flash-shows-loud-test'),
  turn: wordsOf('screen.turn-lays-window-its'),
  spill: wordsOf('screen.spill-anything-change-alters'),
  stray: wordsOf('screen.stray-painted-colour-no'),
  reach: wordsOf('screen.reach-which-elements-which'),
  veneer: wordsOf('screen.veneer-all-overrides-site'),
  specificity: wordsOf('screen.ids-classes-tags-higher'),
} as const;
export type OwnWord = keyof typeof OWN_WORDS;

/** Marks a word of the product and says what it means: when pointed at, and when pressed, by pointer or key. */
@Directive({
  selector: '[uvWord]',
  host: {
    class: 'uv-word',
    '[attr.title]': 'meaning()',
    '[attr.tabindex]': 'isPlain() ? 0 : null',
    '[attr.role]': "isPlain() ? 'button' : null",
    '(click)': 'isPlain() && say()',
    '(keydown.enter)': 'isPlain() && say()',
    '(keydown.space)': 'isPlain() && say($event)',
  },
})
export class WordHint {
  readonly uvWord = input.required<OwnWord>();
  /** Whether it stands on a text, which is pressed for nothing else. */
  readonly isPlain = input(true);
  protected readonly meaning = computed(() => OWN_WORDS[this.uvWord()]);
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly #document = inject(DOCUMENT);

  /** Shows the meaning beside the word until something else is pressed, or Escape. */
  protected say(event?: Event): void {
    event?.preventDefault();
    const note = this.#document.createElement('p');
    note.className = 'uv-meaning';
    note.setAttribute('role', 'status');
    note.popover = 'auto';
    const { left, bottom } = this.#host.nativeElement.getBoundingClientRect();
    note.style.cssText = `left: ${Math.max(8, Math.min(left, innerWidth - 308))}px; top: ${bottom + 6}px;`;
    this.#host.nativeElement.after(note);
    note.showPopover();
    note.textContent = this.meaning();
    note.addEventListener('toggle', () => {
      if (!note.matches(':popover-open')) note.remove();
    });
  }
}
