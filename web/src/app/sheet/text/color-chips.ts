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

/** A small sample of a colour before its value. */
class Chip extends WidgetType {
  constructor(readonly hex: string) {
    super();
  }

  override eq(other: Chip): boolean {
    return other.hex === this.hex;
  }

  toDOM(): HTMLElement {
    const chip = document.createElement('span');
    chip.className = 'cm-uv-chip';
    chip.style.background = this.hex;
    chip.title = this.hex;
    return chip;
  }
}

/** Shows a chip beside each colour on the lines that are drawn, once they are found. */
export function colorChips(find: FindColors): Extension {
  return ViewPlugin.fromClass(
    class {
      #colors: readonly SheetColor[] = [];
      /** Counts texts, so that colours of an older one are not shown. */
      #turn = 0;
      decorations: DecorationSet = Decoration.none;

      constructor(view: EditorView) {
        this.#find(view);
      }

      update({ docChanged, view }: ViewUpdate): void {
        if (docChanged) {
          this.#colors = [];
          this.#find(view);
        }
        this.decorations = this.#drawn(view);
      }

      destroy(): void {
        this.#turn += 1;
      }

      #find(view: EditorView): void {
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
        for (const { start, hex } of this.#colors)
          if (visibleRanges.some(({ from, to }) => start >= from && start < to))
            builder.add(start, start, Decoration.widget({ widget: new Chip(hex), side: -1 }));
        return builder.finish();
      }
    },
    { decorations: (plugin) => plugin.decorations },
  );
}
