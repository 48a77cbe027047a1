import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { VISIT_BOUNDS, stepProblem, type VisitAct, type VisitStep, type SeenElement } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { plainStep, targetOf } from './plain-step';
import { VisitSession } from './visit-session';

const ACTS: readonly { readonly act: VisitAct; readonly label: string }[] = [
  { act: 'press', label: wordsOf('survey.press') },
  { act: 'type', label: wordsOf('survey.type-into') },
  { act: 'choose', label: wordsOf('survey.choose') },
  { act: 'hover', label: wordsOf('survey.hover-over') },
  { act: 'wait', label: wordsOf('survey.wait-for') },
  { act: 'scroll', label: wordsOf('survey.scroll') },
  { act: 'width', label: wordsOf('survey.be-this-wide') },
  { act: 'anew', label: wordsOf('survey.begin-anew') },
];

/** The next step: done to what was pointed at, or written by hand. */
@Component({
  selector: 'uv-step-form',
  imports: [Button, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-form.html',
  styles: `
    .next, .written { display: grid; gap: 6px; }
    .next > label { font-weight: 600; }
    .line { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
    .line input, .line p-select { flex: 1; min-width: 0; }
    p { margin: 0; font-size: 12.5px; overflow-wrap: anywhere; }
    .link { padding: 2px 0; border: 0; background: none; text-decoration: underline; cursor: pointer; font-size: 12.5px; }
  `,
})
export class StepForm {
  protected readonly wordsOf = wordsOf;

  protected readonly session = inject(VisitSession);
  readonly chosen = input<SeenElement | null>(null);
  readonly pickedSeen = output<SeenElement>();
  protected readonly acts = ACTS;
  protected readonly bounds = VISIT_BOUNDS;
  protected readonly simple = ACTS.filter(({ act }) => ['press', 'hover', 'wait', 'scroll'].includes(act));
  protected readonly isByHand = signal(false);
  protected readonly act = signal<VisitAct>('press');
  protected readonly selector = signal('');
  protected readonly words = signal('');
  protected readonly frame = signal('');
  protected readonly width = signal<number | null>(390);
  protected readonly text = linkedSignal({ source: this.chosen, computation: () => '' });
  protected readonly isBusy = computed(() => this.session.doing() !== '' || this.session.sight() === null);
  protected readonly isAimed = computed(() => this.act() !== 'width' && this.act() !== 'anew');
  protected readonly elements = computed(() =>
    (this.session.sight()?.elements ?? []).map((seen) => ({
      seen,
      label: `${seen.name}${KIND[seen.act]}${this.#isPast(seen) ? wordsOf('survey.outside-window') : ''}`,
    })),
  );
  protected readonly chosenOption = computed(() => this.elements().find(({ seen }) => seen === this.chosen()) ?? null);
  readonly #written = computed<VisitStep>(() =>
    plainStep(this.act(), {
      ...(this.isAimed()
        ? { selector: this.selector().trim(), words: this.words().trim(), frame: this.frame().trim() }
        : {}),
      text: this.act() === 'type' || this.act() === 'choose' ? this.text() : '',
      width: this.act() === 'width' ? this.width() : null,
    }),
  );
  protected readonly wrong = computed(() => spoken(stepProblem(this.#written())));

  #isPast({ box: { x, y, width, height } }: SeenElement): boolean {
    const sight = this.session.sight();
    return sight !== null && (x >= sight.width || y >= sight.height || x + width <= 0 || y + height <= 0);
  }

  protected does(act: VisitAct): void {
    const seen = this.chosen();
    if (!seen || this.isBusy()) return;
    this.session.add(
      plainStep(act, { ...targetOf(seen), text: act === 'type' || act === 'choose' ? this.text() : '' }),
    );
  }

  protected addWritten(): void {
    if (this.wrong() === null && !this.isBusy()) this.session.add(this.#written());
  }
}

const KIND: Readonly<Record<SeenElement['act'], string>> = {
  press: '',
  type: ', field',
  choose: ', list',
  wait: wordsOf('survey.no-control'),
};
