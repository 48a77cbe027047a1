import { RangeSetBuilder, type Extension } from '@codemirror/state';
import {
  Decoration,
  ViewPlugin,
  WidgetType,
  type DecorationSet,
  type EditorView,
  type ViewUpdate,
} from '@codemirror/view';
import { colorsInSheet, type SheetColor } from '@upper-veneer/core';

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

/** Shows a chip beside each colour on the lines that are drawn. */
export const colorChips: Extension = ViewPlugin.fromClass(
  class {
    #colors: readonly SheetColor[];
    decorations: DecorationSet;

    constructor(view: EditorView) {
      this.#colors = colorsInSheet(view.state.doc.toString());
      this.decorations = this.#drawn(view);
    }

    update({ docChanged, viewportChanged, view }: ViewUpdate): void {
      if (docChanged) this.#colors = colorsInSheet(view.state.doc.toString());
      if (docChanged || viewportChanged) this.decorations = this.#drawn(view);
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
