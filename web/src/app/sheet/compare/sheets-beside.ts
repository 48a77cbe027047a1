import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterRenderEffect,
  inject,
  input,
} from '@angular/core';
import { MergeView } from '@codemirror/merge';
import { EditorState, type Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { injectFindColors, sheetView } from '../text/sheet-text';

/** Two sheets side by side, line by line; what is the same in both can be left out. */
@Component({
  selector: 'uv-sheets-beside',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: `
    :host { display: block; min-width: 0; min-height: 0; overflow: auto; background: var(--uv-paper); }
    :host ::ng-deep .cm-mergeView { min-height: 100%; }
    :host ::ng-deep .cm-mergeViewEditor + .cm-mergeViewEditor { border-left: 1px solid var(--uv-line-strong); }
  `,
})
export class SheetsBeside {
  readonly before = input.required<string>();
  readonly after = input.required<string>();
  readonly beforeLabel = input.required<string>();
  readonly afterLabel = input.required<string>();
  readonly onlyDiffering = input(false);

  constructor() {
    const find = injectFindColors();
    const host = inject<ElementRef<HTMLElement>>(ElementRef);
    let view: MergeView | null = null;
    afterRenderEffect(() => {
      view?.destroy();
      const labelled = (label: string): Extension[] => [
        ...sheetView(find),
        EditorView.lineWrapping,
        EditorState.phrases.of({ '$ unchanged lines': wordsOf('sheet.lines-same') }),
        EditorView.contentAttributes.of({ 'aria-label': label, tabindex: '0' }),
      ];
      view = new MergeView({
        parent: host.nativeElement,
        a: { doc: this.before(), extensions: labelled(this.beforeLabel()) },
        diffConfig: { scanLimit: 20_000, timeout: 400 },
        b: { doc: this.after(), extensions: labelled(this.afterLabel()) },
        ...(this.onlyDiffering() ? { collapseUnchanged: { margin: 2, minSize: 5 } } : {}),
      });
    });
    inject(DestroyRef).onDestroy(() => view?.destroy());
  }
}
