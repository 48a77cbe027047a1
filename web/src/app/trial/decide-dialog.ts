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
import type { TrialDocument } from '@upper-veneer/contract';
import type { TrialJudgement } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { SelectButton } from 'primeng/selectbutton';
import { TrialsStore } from '../shared/trials/trials-store';
import { callWords } from './trial-words';

/** Decides a trial: which look wins, who says so and why; it becomes the draft in one step. */
@Component({
  selector: 'uv-decide-dialog',
  imports: [Button, Dialog, FormsModule, InputText, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '520px', maxWidth: '96vw' }" header="Decide" i18n-header>
      <form (ngSubmit)="decide()">
        <p class="told">{{ call().title }}. <span class="uv-soft">{{ call().text }}</span></p>
        <p-selectbutton name="winner" [options]="looks()" optionLabel="label" optionValue="variation" [ngModel]="winner()" (ngModelChange)="winner.set($event)" [allowEmpty]="false" size="small" aria-label="Which look wins" i18n-aria-label />
        @if (isAgainst()) {
          <p
            class="problem" role="status"
            i18n>◆ What was counted does not say so. It can be decided all the same; the reason is kept with the figures.</p>
        }
        <label><ng-container i18n>Who decides</ng-container><input pInputText pSize="small" name="who" maxlength="80" autocomplete="name" [ngModel]="who()" (ngModelChange)="who.set($event)" /></label>
        <label><ng-container i18n>Why</ng-container><textarea pInputText name="why" rows="3" maxlength="1000" [ngModel]="why()" (ngModelChange)="why.set($event)"></textarea></label>
        <p class="uv-soft" i18n>{{ winnerName() }} becomes the draft, as one step of undo; visitors get it when it is published. The trial ends, and its figures are kept.</p>
        <div class="acts"><p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" label="Decide" i18n-label size="small" [disabled]="who().trim() === '' || why().trim() === ''" /></div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 12px; justify-items: stretch; }
    p { margin: 0; font-size: 12.5px; }
    .told, .problem { padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); }
    label { display: grid; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    textarea { width: 100%; resize: vertical; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; }
  `,
})
export class DecideDialog {
  readonly #trials = inject(TrialsStore);
  readonly trial = input.required<TrialDocument>();
  readonly judged = input.required<TrialJudgement>();
  /** Which conversion it is decided by. */
  readonly conversion = input.required<number>();
  readonly closed = output();

  protected readonly call = computed(() => callWords(this.judged()));
  protected readonly looks = computed(() =>
    this.trial().looks.map(({ variation, name }) => ({ variation, label: `${variation} · ${name}` })),
  );
  readonly #called = computed(() => {
    const { call } = this.judged();
    return call.kind === 'better' ? call.variation : null;
  });
  protected readonly winner = linkedSignal(() => this.#called() ?? this.trial().looks[0].variation);
  protected readonly isAgainst = computed(() => this.winner() !== this.#called());
  protected readonly winnerName = computed(
    () => this.trial().looks.find(({ variation }) => variation === this.winner())?.name ?? '',
  );
  protected readonly who = signal('');
  protected readonly why = signal('');

  protected decide(): void {
    const [who, why] = [this.who().trim(), this.why().trim()];
    if (who === '' || why === '') return;
    this.#trials
      .act((api, siteId) =>
        api.decideTrial(siteId, this.trial().id, { winner: this.winner(), who, why, conversion: this.conversion() }),
      )
      .subscribe(() => this.closed.emit());
  }
}
