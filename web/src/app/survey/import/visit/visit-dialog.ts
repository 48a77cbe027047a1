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
import type { SeenDocument } from '@upper-veneer/contract';
import type { VisitPlan } from '@upper-veneer/core';
import { consentSteps, guessConsent } from './consent-steps';
import { SightPicture } from './sight-picture';
import { StepForm } from './step-form';
import { StepList } from './step-list';
import { VisitSession } from './visit-session';

/** A visit planned on the page itself: what a visitor does there, and which pages are kept of it. */
@Component({
  selector: 'uv-visit-dialog',
  imports: [Button, Dialog, FormsModule, Select, SightPicture, StepForm, StepList],
  providers: [VisitSession],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit(session.plan())" [modal]="true" [draggable]="false" closeAriaLabel="Close" [style]="{ width: '1230px', maxWidth: '97vw', height: '94vh', maxHeight: '94vh' }" [contentStyle]="{ flex: '1', minHeight: '0', display: 'grid', padding: '0' }" header="Steps of a visit">
      <div class="visit">
        <section class="page" aria-label="The page">
          <p class="where"><span class="uv-mono">{{ session.sight()?.address ?? session.plan().address }}</span><span class="uv-soft">{{ session.sight()?.width ?? session.plan().width }} px wide</span></p>
          @if (session.sight(); as sight) { <uv-sight-picture [sight]="sight" [chosen]="chosen()" (picked)="chosen.set($event)" [class.waiting]="session.doing() !== ''" /> }
          @else { <div class="empty">@if (session.doing() === '') { <p-button label="Open the page again" size="small" [outlined]="true" (onClick)="session.reopen()" /> }</div> }
          <div class="told" role="status">
            @if (session.doing(); as doing) { <span class="track" role="progressbar" aria-label="The page"><span class="uv-grain"></span></span><span class="now">{{ doing }}…</span><p-button label="Stop" size="small" [outlined]="true" (onClick)="session.stop()" /> }
            @else if (session.problem(); as problem) { <p class="problem"><strong>{{ problem.title }}.</strong> {{ problem.message }}</p> }
            @else { @for (note of session.sight()?.notes ?? []; track note) { <p class="uv-soft">{{ note }}</p> } }
          </div>
        </section>
        <section class="plan" aria-label="The plan">
          <div class="uv-scroll list" tabindex="0" role="region" aria-label="Steps so far"><uv-step-list /></div>
          <div class="form">
            <uv-step-form [chosen]="chosen()" (pickedSeen)="chosen.set($event)" />
            @if (isConsent()) {
              <div class="consent" role="group" aria-label="Consent as three pages">
                <p class="uv-soft">Three pages: before anybody answers, after accepting, after refusing. The buttons are guessed by their words.</p>
                <span class="answer"><label for="uv-accept">Accepts</label><p-select inputId="uv-accept" size="small" [options]="$any(buttons())" optionLabel="name" [ngModel]="accept()" (ngModelChange)="accept.set($event)" placeholder="choose it" appendTo="body" /></span>
                <span class="answer"><label for="uv-refuse">Refuses</label><p-select inputId="uv-refuse" size="small" [options]="$any(buttons())" optionLabel="name" [ngModel]="refuse()" (ngModelChange)="refuse.set($event)" placeholder="choose it" appendTo="body" /></span>
                <div class="line"><p-button label="Go through both" size="small" [disabled]="!accept() || !refuse() || isBusy()" (onClick)="bothAnswers()" /><p-button label="Leave it" size="small" [text]="true" (onClick)="isConsent.set(false)" /></div>
              </div>
            } @else {
              <div class="line"><p-button label="Consent as three pages…" size="small" [outlined]="true" [disabled]="isBusy()" (onClick)="isConsent.set(true)" /><p-button label="Undo" size="small" [text]="true" [disabled]="!session.canUndo() || session.doing() !== ''" (onClick)="session.undo()" /></div>
            }
          </div>
          <div class="acts">
            @if (session.wrong(); as wrong) { <span class="uv-soft">{{ wrong }}.</span> }
            <p-button label="Cancel" [text]="true" (onClick)="closed.emit(session.plan())" />
            <p-button [label]="'Bring in ' + (session.kept().length === 1 ? 'the page' : session.kept().length + ' pages')" [disabled]="session.wrong() !== null || session.doing() !== ''" (onClick)="planned.emit(session.plan())" />
          </div>
        </section>
      </div>
    </p-dialog>
  `,
  styleUrl: './visit-dialog.scss',
})
export class VisitDialog implements OnInit {
  protected readonly session = inject(VisitSession);
  readonly plan = input.required<VisitPlan>();
  readonly planned = output<VisitPlan>();
  /** Emits the plan as it stands, to be gone on with. */
  readonly closed = output<VisitPlan>();
  /** What was pointed at, until the page is another. */
  protected readonly chosen = linkedSignal<unknown, SeenDocument | null>({
    source: this.session.sight,
    computation: () => null,
  });
  protected readonly isConsent = signal(false);
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
