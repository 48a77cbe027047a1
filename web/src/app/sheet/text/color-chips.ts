import { wordsOf } from '@upper-veneer/words';
import { RangeSetBuilder, type Extension } from '@codemirror/state';
import {
  Decoration,
  ViewPlugin,
  WidgetType,
  type DecorationSet,
  type EditorView,
  type ViewUpdate,
} from '@codemirror/view';
import type { SheetColor } from '@upper-veneer/core';

/** Finds the colours of a sheet, away from the thread that draws. */
export type FindColors = (css: string) => Promise<readonly SheetColor[]>;

/** Called with a colour whose chip was pressed, and where that is, in the coordinates of the window. */
export type PressChip = (color: SheetColor, at: DOMRect) => void;

/** A small sample of a colour before its value. */
class Chip extends WidgetType {
  constructor(
    readonly color: SheetColor,
    readonly press: PressChip | null,
  ) {
    super();
  }

  override eq({ color, press }: Chip): boolean {
    const { hex, start, end } = this.color;
    return (
      color.hex === hex && press === this.press && (press === null || (color.start === start && color.end === end))
    );
  }

  toDOM(): HTMLElement {
    const chip = document.createElement('span');
    chip.className = 'cm-uv-chip';
    chip.style.background = this.color.hex;
    chip.title = this.color.hex || wordsOf('sheet.colour-be-filled');
    chip.textContent = this.color.hex ? '' : '?';
    const { press } = this;
    if (press) {
      chip.classList.add('cm-uv-press');
      chip.addEventListener('mousedown', (event) => {
        event.preventDefault();
        press(this.color, chip.getBoundingClientRect());
      });
    }
    return chip;
  }

  override ignoreEvent(): boolean {
    return this.press !== null;
  }
}

/** In a text longer than this, UTF-16 units, colours are found once typing rests. */
const LONG = 20_000;
const PAUSE_MS = 200;

/** Shows a chip beside each colour on the lines that are drawn, once they are found. */
export function colorChips(find: FindColors, press: PressChip | null = null): Extension {
  return ViewPlugin.fromClass(
    class {
      #colors: readonly SheetColor[] = [];
      /** Counts texts, so that colours of an older one are not shown. */
      #turn = 0;
      #waiting: ReturnType<typeof setTimeout> | undefined;
      decorations: DecorationSet = Decoration.none;

      constructor(view: EditorView) {
        this.#find(view);
      }

      update({ docChanged, changes, view }: ViewUpdate): void {
        if (docChanged) {
          // Until they are found anew, those that stand before and after what was typed move with it.
          this.#colors = this.#colors.flatMap((color) => {
            const [start, end] = [changes.mapPos(color.start, 1), changes.mapPos(color.end, -1)];
            return end - start === color.end - color.start ? [{ ...color, start, end }] : [];
          });
          this.#find(view);
        }
        this.decorations = this.#drawn(view);
      }

      destroy(): void {
        clearTimeout(this.#waiting);
        this.#turn += 1;
      }

      #find(view: EditorView): void {
        clearTimeout(this.#waiting);
        this.#waiting = setTimeout(() => this.#ask(view), view.state.doc.length > LONG ? PAUSE_MS : 0);
      }

      #ask(view: EditorView): void {
        const turn = (this.#turn += 1);
        void find(view.state.doc.toString()).then((colors) => {
          if (turn !== this.#turn) return;
          this.#colors = colors;
          // An empty step has the view ask for its decorations.
          view.dispatch({});
        });
      }

      #drawn({ visibleRanges }: EditorView): DecorationSet {
        const builder = new RangeSetBuilder<Decoration>();
        for (const color of this.#colors)
          if (visibleRanges.some(({ from, to }) => color.start >= from && color.start < to))
            builder.add(color.start, color.start, Decoration.widget({ widget: new Chip(color, press), side: -1 }));
        return builder.finish();
      }
    },
    { decorations: (plugin) => plugin.decorations },
  );
}
