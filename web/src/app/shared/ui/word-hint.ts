import { DOCUMENT, Directive, ElementRef, computed, inject, input } from '@angular/core';

/** The product's own words, in plain ones. */
export const OWN_WORDS = {
  ply: 'Plies are the declarations that compete for one property of one element, stacked as the cascade ranks them; the top one is the one you see.',
  peel: 'Peel shows the page without the veneer, wholly or up to a line you drag.',
  flash:
    'Flash shows it in a loud test colour while you hold the button, to see whether it is the one. It never becomes part of the veneer.',
  turn: 'Turn lays the window on its side: width and height change places.',
  spill: 'Spill is anything a change alters outside its intended reach.',
  stray: 'A stray is a painted colour that is no brand colour.',
  reach: 'Reach is which elements on which pages the rule matches.',
  veneer: 'The veneer is all overrides of a site; it compiles to one stylesheet.',
  specificity: 'Ids, classes, tags: the higher wins where origin and layer are the same.',
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
