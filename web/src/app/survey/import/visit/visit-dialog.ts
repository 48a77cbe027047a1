import { spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  type OnInit,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Select } from 'primeng/select';
import type { SeenElement, VisitPlan } from '@upper-veneer/core';
import { GrainBar } from '../../../shared/ui/grain-bar';
import { consentSteps, guessConsent } from './consent-steps';
import { SightPicture } from './sight-picture';
import { StepForm } from './step-form';
import { StepList } from './step-list';
import { VisitSession } from './visit-session';

/** A visit planned on the page itself: what a visitor does there, and which pages are kept of it. */
@Component({
  selector: 'uv-visit-dialog',
  imports: [Button, Dialog, FormsModule, GrainBar, Select, SightPicture, StepForm, StepList],
  providers: [VisitSession],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './visit-dialog.html',
  styleUrl: './visit-dialog.scss',
})
export class VisitDialog implements OnInit {
  protected readonly wordsOf = wordsOf;

  protected readonly session = inject(VisitSession);
  readonly plan = input.required<VisitPlan>();
  readonly planned = output<VisitPlan>();
  /** Emits the plan as it stands, to be gone on with. */
  readonly closed = output<VisitPlan>();
  /** What was pointed at, until the page is another. */
  protected readonly chosen = linkedSignal<unknown, SeenElement | null>({
    source: this.session.sight,
    computation: () => null,
  });
  protected readonly isConsent = signal(false);
  protected readonly notes = computed(() => spoken(this.session.sight()?.notes ?? []));
  protected readonly isBusy = computed(() => this.session.doing() !== '' || this.session.sight() === null);
  protected readonly buttons = computed(() =>
    (this.session.sight()?.elements ?? []).filter(({ act }) => act === 'press'),
  );
  readonly #guess = computed(() => guessConsent(this.buttons()));
  protected readonly accept = linkedSignal(() => this.#guess().accept);
  protected readonly refuse = linkedSignal(() => this.#guess().refuse);

  ngOnInit(): void {
    this.session.begin(this.plan());
  }

  protected bothAnswers(): void {
    const [accept, refuse] = [this.accept(), this.refuse()];
    if (!accept || !refuse) return;
    this.isConsent.set(false);
    // The page before anybody answers is kept by the steps.
    if (this.session.plan().steps.length === 0) this.session.keep(-1, null);
    this.session.addAll(consentSteps(this.session.title(), accept, refuse));
  }
}
