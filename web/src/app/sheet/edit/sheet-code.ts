import { type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  effect,
  inject,
  input,
  output,
  untracked,
} from '@angular/core';
import { closeBrackets, closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { lintGutter, lintKeymap, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { foldEffect } from '@codemirror/language';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import type { SheetColor, SheetProblem } from '@upper-veneer/core';
import { Engine } from '../../shared/engine/engine';
import { foldSections } from '../text/fold-sections';
import { injectFindColors, sheetReading } from '../text/sheet-text';
import { completeCss } from './complete-css';
import { fromDraft, paletteLinesKept, setHead } from './palette-lines';

const SEVERITY: Readonly<Record<Spoken<SheetProblem>['level'], Diagnostic['severity']>> = {
  stops: 'error',
  fails: 'warning',
  look: 'info',
};

/** A stylesheet to type in: completion, what is wrong by line, a chip beside each colour. */
@Component({
  selector: 'uv-sheet-code',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: ':host { display: block; min-width: 0; min-height: 0; overflow: hidden; }',
})
export class SheetCode {
  readonly text = input.required<string>();
  /** Length of the lines at the head that the palette comes to. */
  readonly head = input.required<number>();
  readonly problems = input<readonly Spoken<SheetProblem>[]>([]);
  readonly typed = output<string>();
  /** Emits where the caret stands, UTF-16 units. */
  readonly moved = output<number>();
  readonly pressed = output<{ readonly color: SheetColor; readonly at: DOMRect }>();
  /** Emits when the text is to be taken over. */
  readonly taken = output();
  /** Emits when somebody types into the lines of the palette. */
  readonly refused = output();
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  #view: EditorView | null = null;
  #isPutAway = false;

  constructor() {
    const engine = inject(Engine);
    const find = injectFindColors();
    afterNextRender(() => {
      const press = (color: SheetColor, at: DOMRect): void => this.pressed.emit({ color, at });
      this.#view = new EditorView({
        parent: this.#host.nativeElement,
        state: EditorState.create({
          doc: untracked(this.text),
          extensions: [
            history(),
            closeBrackets(),
            completeCss(() => engine.remote.sheetWords()),
            keymap.of([
              { key: 'Mod-s', preventDefault: true, run: () => (this.taken.emit(), true) },
              { key: 'Mod-.', preventDefault: true, run: (view) => this.#pressAtCaret(view, find, press) },
              ...closeBracketsKeymap,
              ...completionKeymap,
              ...lintKeymap,
              ...historyKeymap,
              ...defaultKeymap,
            ]),
            sheetReading(find, press),
            foldSections,
            lintGutter(),
            EditorView.lineWrapping,
            paletteLinesKept(() => this.refused.emit()),
            EditorView.updateListener.of(({ docChanged, selectionSet, state, transactions }) => {
              if (docChanged && !transactions.some((own) => own.annotation(fromDraft)))
                this.typed.emit(state.doc.toString());
              if (docChanged || selectionSet) this.moved.emit(state.selection.main.head);
            }),
            EditorView.contentAttributes.of({ 'aria-label': wordsOf('sheet.css-draft-type') }),
          ],
        }),
      });
      const head = untracked(this.head);
      this.#view.dispatch({ effects: setHead.of(head) });
      this.#putAway(head);
    });
    effect(() => this.#lay(this.text(), this.head()));
    effect(() => this.#tell(this.problems()));
    inject(DestroyRef).onDestroy(() => this.#view?.destroy());
  }

  /** Puts the caret somewhere, and shows it. */
  goTo(start: number, end = start): void {
    const view = this.#view;
    if (!view) return;
    const { length } = view.state.doc;
    view.dispatch({
      selection: { anchor: Math.min(start, length), head: Math.min(end, length) },
      effects: EditorView.scrollIntoView(Math.min(start, length), { y: 'center' }),
    });
    view.focus();
  }

  /** Writes something in place of a piece of the text. */
  replace(start: number, end: number, css: string): void {
    const view = this.#view;
    view?.dispatch({ changes: { from: start, to: end, insert: css }, selection: { anchor: start + css.length } });
    view?.focus();
  }

  /** Folds the lines of the palette away, which are none to type in, and puts the caret after them. */
  #putAway(head: number): void {
    const view = this.#view;
    if (!view || head === 0 || this.#isPutAway) return;
    this.#isPutAway = true;
    const { to } = view.state.doc.line(1);
    const after = Math.min(head + 2, view.state.doc.length);
    view.dispatch({ effects: to < head ? foldEffect.of({ from: to, to: head }) : [], selection: { anchor: after } });
  }

  /** Takes another text in, as a step the editor can undo; what is alike at both ends stays where it is. */
  #lay(text: string, head: number): void {
    const view = this.#view;
    if (!view) return;
    const now = view.state.doc.toString();
    const effects = [setHead.of(head)];
    if (now === text) {
      view.dispatch({ effects });
      return;
    }
    let start = 0;
    while (start < now.length && start < text.length && now[start] === text[start]) start += 1;
    let [from, to] = [now.length, text.length];
    while (from > start && to > start && now[from - 1] === text[to - 1]) {
      from -= 1;
      to -= 1;
    }
    view.dispatch({
      changes: { from: start, to: from, insert: text.slice(start, to) },
      effects,
      annotations: fromDraft.of(true),
    });
    this.#putAway(head);
  }

  #tell(problems: readonly Spoken<SheetProblem>[]): void {
    const view = this.#view;
    if (!view) return;
    const { length } = view.state.doc;
    const told = problems.flatMap(({ level, words, mend, start, end }): Diagnostic[] =>
      start > length
        ? []
        : [
            {
              from: start,
              to: Math.min(Math.max(end, start), length),
              severity: SEVERITY[level],
              message: mend === '' ? words : `${words}. ${mend}.`,
            },
          ],
    );
    view.dispatch(setDiagnostics(view.state, told));
  }

  #pressAtCaret(
    view: EditorView,
    find: (css: string) => Promise<readonly SheetColor[]>,
    press: (color: SheetColor, at: DOMRect) => void,
  ): boolean {
    const { head } = view.state.selection.main;
    const { from, to } = view.state.doc.lineAt(head);
    void find(view.state.doc.toString()).then((colors) => {
      const here = colors.filter(({ start }) => start >= from && start <= to);
      const color = here.find(({ start, end }) => start <= head && head <= end) ?? here.at(0);
      const at = color && view.coordsAtPos(color.start);
      if (color && at) press(color, new DOMRect(at.left, at.top, 1, at.bottom - at.top));
    });
    return true;
  }
}
