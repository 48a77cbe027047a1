import { Annotation, EditorState, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';

/** Marks a change that nobody typed, which may touch every line. */
export const fromDraft = Annotation.define<boolean>();

/** Tells how long the lines of the palette at the head of the text are. */
export const setHead = StateEffect.define<number>();

const headField = StateField.define<number>({
  create: () => 0,
  update: (head, { effects }) => effects.reduce((now, effect) => (effect.is(setHead) ? effect.value : now), head),
});

/** Keeps the lines that the palette comes to as they are, and shows that they are none to type in. @param refused called when somebody tries. */
export function paletteLinesKept(refused: () => void): Extension {
  return [
    headField,
    EditorState.changeFilter.of((transaction) => {
      const head = transaction.startState.field(headField);
      if (head === 0 || transaction.annotation(fromDraft) === true || !transaction.docChanged) return true;
      let touches = false;
      transaction.changes.iterChangedRanges((from) => (touches ||= from < head));
      if (touches) refused();
      return touches ? [0, head] : true;
    }),
    EditorView.decorations.compute([headField, 'doc'], (state): DecorationSet => {
      const head = Math.min(state.field(headField), state.doc.length);
      if (head === 0) return Decoration.none;
      const last = state.doc.lineAt(head).number;
      return Decoration.set(
        Array.from({ length: last }, (_, i) =>
          Decoration.line({ class: 'cm-uv-palette' }).range(state.doc.line(i + 1).from),
        ),
      );
    }),
  ];
}
