import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { css } from '@codemirror/lang-css';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState, type Extension } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { foldKeymap } from '@codemirror/language';
import { colorChips } from './color-chips';
import { CSS_LOOK } from './css-theme';
import { foldSections } from './fold-sections';

/** What every view of a sheet has; the text cannot be typed in. */
export const SHEET_VIEW: readonly Extension[] = [
  lineNumbers(),
  css(),
  colorChips,
  search({ top: true }),
  highlightSelectionMatches(),
  keymap.of([...searchKeymap, ...foldKeymap]),
  EditorState.readOnly.of(true),
  CSS_LOOK,
];

/** A stylesheet to read: sections that fold, a chip beside each colour, search. */
@Component({
  selector: 'uv-sheet-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: ':host { display: block; min-width: 0; min-height: 0; overflow: hidden; }',
})
export class SheetText {
  readonly css = input.required<string>();
  readonly label = input('CSS');
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  #view: EditorView | null = null;

  constructor() {
    afterNextRender(() => {
      this.#view = new EditorView({
        parent: this.#host.nativeElement,
        state: EditorState.create({
          doc: untracked(this.css),
          extensions: [
            ...SHEET_VIEW,
            foldSections,
            EditorView.contentAttributes.of({ 'aria-label': untracked(this.label), tabindex: '0' }),
          ],
        }),
      });
    });
    effect(() => {
      const text = this.css();
      const view = this.#view;
      if (view && view.state.doc.toString() !== text)
        view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
    });
    inject(DestroyRef).onDestroy(() => this.#view?.destroy());
  }
}
