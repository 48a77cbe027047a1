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
import { Engine } from '../../shared/engine/engine';
import { colorChips, type FindColors, type PressChip } from './color-chips';
import { CSS_LOOK } from './css-theme';
import { foldSections } from './fold-sections';

/** What every view of a sheet has. */
export function sheetReading(find: FindColors, press: PressChip | null = null): Extension[] {
  return [
    lineNumbers(),
    css(),
    colorChips(find, press),
    search({ top: true }),
    highlightSelectionMatches(),
    keymap.of([...searchKeymap, ...foldKeymap]),
    CSS_LOOK,
  ];
}

/** The same, of a text that cannot be typed in. */
export function sheetView(find: FindColors): Extension[] {
  return [...sheetReading(find), EditorState.readOnly.of(true)];
}

/** Colours of a sheet as the worker finds them; none where it fails, which is told. */
export function injectFindColors(): FindColors {
  const engine = inject(Engine);
  return (text) =>
    engine.remote.colorsInSheet(text).catch((error: unknown) => {
      engine.tell(error);
      return [];
    });
}

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
    const find = injectFindColors();
    afterNextRender(() => {
      this.#view = new EditorView({
        parent: this.#host.nativeElement,
        state: EditorState.create({
          doc: untracked(this.css),
          extensions: [
            ...sheetView(find),
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
