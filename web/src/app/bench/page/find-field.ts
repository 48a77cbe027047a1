import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { InputText } from 'primeng/inputtext';
import { Engine } from '../../shared/engine/engine';

/** Finds an element of the page by its text or by a selector; Enter goes on to the next. */
@Component({
  selector: 'uv-find-field',
  imports: [FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form role="search" (ngSubmit)="next()"><input pInputText pSize="small" name="wanted" autocomplete="off" spellcheck="false" placeholder="Text or selector" i18n-placeholder aria-label="Find on this page" i18n-aria-label aria-describedby="uv-find-words" [ngModel]="text()" (ngModelChange)="type($event)" /></form>
    <p id="uv-find-words" class="uv-soft" role="status">{{ words() }}</p>
  `,
  styles: `
    :host { display: block; padding: 0 12px 8px; }
    input { width: 100%; }
    p { font-size: 12px; }
    p:empty { display: none; }
  `,
})
export class FindField {
  readonly #engine = inject(Engine);
  readonly pageId = input.required<number>();
  readonly chosen = output<number>();

  protected readonly text = signal('');
  protected readonly words = signal('');
  /** What was found last, and how far Enter has gone through it. */
  #found: { readonly key: string; readonly elements: readonly number[] } | null = null;
  #at = -1;

  protected type(text: string): void {
    this.text.set(text);
    this.words.set('');
  }

  protected async next(): Promise<void> {
    const text = this.text().trim();
    if (text === '') return;
    const key = `${this.pageId()} ${text}`;
    if (this.#found?.key !== key) {
      const { elements } = await this.#engine.remote.find(this.pageId(), text);
      this.#found = { key, elements };
      this.#at = -1;
    }
    const { elements } = this.#found;
    if (elements.length === 0) {
      this.words.set(wordsOf('bench.nothing-this-page'));
      return;
    }
    this.#at = (this.#at + 1) % elements.length;
    this.words.set(wordsOf('bench.place-of', { at: this.#at + 1, elements: elements.length }));
    this.chosen.emit(elements[this.#at]);
  }
}
