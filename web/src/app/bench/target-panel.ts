import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { rowTold, type Inspection } from '@upper-veneer/core';
import { InTurn } from '../shared/drawing/in-turn';
import { BenchActs } from './store/bench-acts';
import { BenchAnswers } from './store/bench-answers';
import { BenchSelection } from './store/bench-selection';
import { PageAnswers } from './store/page-answers';
import { BenchVerdict } from './store/bench-verdict';
import { CellEditor } from './editor/cell-editor';
import { ReachGroups } from './editor/reach-groups';
import { ReachScope } from './editor/reach-scope';
import { ReachSwitch } from './editor/reach-switch';
import { AsPaintedColor } from './grid/as-painted';
import { LookMenu } from './grid/look-menu';
import { PliesList } from './grid/plies-list';
import { StatesGrid } from './grid/states-grid';
import { BenchFlash } from './page/bench-flash';
import { CompanionsList } from './verdict/companions-list';

/** What "everywhere" gathers, by the name of the element. */
const KIND_OF: Readonly<Record<string, string>> = { a: 'link', button: 'button', input: 'field', p: 'paragraph' };

/** What is chosen: how far a change of it reaches, all its states, what the chosen cell becomes and what competes there. */
@Component({
  selector: 'uv-target-panel',
  imports: [
    AsPaintedColor,
    CellEditor,
    CompanionsList,
    InTurn,
    LookMenu,
    PliesList,
    ReachGroups,
    ReachScope,
    ReachSwitch,
    StatesGrid,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './target-panel.html',
  styleUrl: './target-panel.scss',
})
export class TargetPanel {
  readonly inspection = input.required<Spoken<Inspection>>();

  protected readonly selection = inject(BenchSelection);
  protected readonly answers = inject(BenchAnswers);
  protected readonly ofPage = inject(PageAnswers);
  protected readonly verdict = inject(BenchVerdict);
  protected readonly acts = inject(BenchActs);
  protected readonly flash = inject(BenchFlash);

  protected readonly pliesHeading = computed(() => {
    const { row, state } = this.selection.cell();
    const { words, kind } = this.selection.rowProperty();
    const lead = this.selection.propertyAt() === 0 && kind === 'color';
    return lead
      ? wordsOf('bench.why-this-colour', {
          stateWord: this.answers.stateWord(state).toLowerCase(),
          what: say(rowTold(row)).toLowerCase(),
        })
      : wordsOf('bench.why-as', { stateWord: this.answers.stateWord(state).toLowerCase(), what: say(words) });
  });
  protected readonly kindWord = computed(() => {
    const selector = this.inspection().lineage.at(-1)?.label ?? '';
    const tag = /^[a-z0-9]+/.exec(selector)?.[0] ?? '';
    return /^h[1-6]$/.test(tag) ? 'heading' : (KIND_OF[tag] ?? '');
  });

  protected flashPly(selector: string): void {
    void this.flash.hold({ kind: 'ply', pageId: this.selection.pageId(), selector, property: this.answers.property() });
  }
}
