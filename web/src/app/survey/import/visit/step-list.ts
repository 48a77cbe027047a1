import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { mdiTrashCanOutline } from '@mdi/js';
import { Icon } from '../../../shared/ui/icon';
import { Checkbox } from 'primeng/checkbox';
import { InputText } from 'primeng/inputtext';
import { describeStep } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { VisitSession } from './visit-session';

/** What is done in a visit, with a picture after each step, and which pages are kept. */
@Component({
  selector: 'uv-step-list',
  imports: [Checkbox, FormsModule, InputText, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-list.html',
  styles: `
    ol { display: grid; margin: 0; padding: 0; list-style: none; }
    li { display: grid; grid-template-columns: 74px minmax(0, 1fr) 24px; gap: 9px; align-items: start; padding: 8px 0; border-bottom: 1px solid var(--uv-line); }
    img, .blank { width: 74px; height: 46px; object-fit: cover; object-position: top; border: 1px solid var(--uv-line-strong); background: var(--uv-mat); }
    .text { display: grid; gap: 4px; min-width: 0; }
    .words { overflow-wrap: anywhere; line-height: 1.25; }
    .number { color: var(--uv-soft); }
    .keep { display: flex; gap: 6px; align-items: center; font-size: 12.5px; }
    .keep input { flex: 1; min-width: 0; }
    button { display: grid; place-items: center; padding: 0; border: 0; border-radius: 3px; background: none; cursor: pointer; }
    button:hover { background: var(--uv-bar); }
    button:disabled { opacity: .4; cursor: default; }
  `,
})
export class StepList {
  protected readonly wordsOf = wordsOf;

  protected readonly session = inject(VisitSession);
  protected readonly icon = mdiTrashCanOutline;
  protected readonly rows = computed(() => {
    const { keep, steps } = this.session.plan();
    const pictures = this.session.pictures();
    return [
      { place: -1, words: wordsOf('survey.page-as-comes'), keep, picture: pictures[0] ?? null, suggestion: '' },
      ...steps.map((step, place) => ({
        place,
        words: spoken(describeStep(step)),
        keep: step.keep,
        picture: pictures[place + 1] ?? null,
        suggestion: wordsOf('survey.step', { title: this.session.title(), place: place + 1 }),
      })),
    ];
  });
}
