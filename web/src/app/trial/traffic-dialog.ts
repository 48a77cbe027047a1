import { wordsOf } from '@upper-veneer/words';
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
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { TrialsStore } from '../shared/trials/trials-store';
import { WEEKDAYS } from './trial-words';

const DAY_MS = 24 * 3600 * 1000;

/** Made-up visitors: how many a day, at which rates, more or fewer by the day of the week. */
@Component({
  selector: 'uv-traffic-dialog',
  imports: [Button, Dialog, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '560px', maxWidth: '96vw' }" header="Make traffic up" i18n-header>
      <form (ngSubmit)="make()">
        <p class="uv-soft" i18n>To see how a trial goes before it meets visitors. It stands beside what is really counted, told apart from it, and can be taken away again.</p>
        <div class="row">
          <label><ng-container i18n>From</ng-container><input pInputText pSize="small" type="date" name="from" [ngModel]="from()" (ngModelChange)="from.set($event)" /></label>
          <label><ng-container i18n>Days</ng-container><input pInputText pSize="small" name="days" inputmode="numeric" [ngModel]="days()" (ngModelChange)="days.set($event)" /></label>
          <label><ng-container i18n>Visitors a day</ng-container><input pInputText pSize="small" name="visitors" inputmode="numeric" [ngModel]="visitors()" (ngModelChange)="visitors.set($event)" /></label>
          <label><ng-container i18n>Drawn as number</ng-container><input pInputText pSize="small" name="seed" inputmode="numeric" [ngModel]="seed()" (ngModelChange)="seed.set($event)" title="The same number draws the same visitors" i18n-title /></label>
        </div>
        <div class="row">
          @for (look of trial().looks; track look.variation; let i = $index) {
            <label [title]="look.name">
              <ng-container i18n>Rate of {{ look.variation }}, %</ng-container>
              <input
                pInputText pSize="small" [name]="'rate' + i" inputmode="decimal" [ngModel]="rates()[i]"
                (ngModelChange)="setRate(i, $event)" />
            </label>
          }
        </div>
        <fieldset><legend i18n>As many as usual on</legend>
          @for (day of weekdays; track day; let i = $index) {
            <label>{{ day.slice(0, 3) }}<input
              pInputText pSize="small" [name]="'day' + i" inputmode="decimal"
              [attr.aria-label]="wordsOf('trial.times-as-many', { day: day })" [ngModel]="shares()[i]"
              (ngModelChange)="setShare(i, $event)" /></label>
          }
        </fieldset>
        @if (problem() !== '') { <p class="problem" role="alert">{{ problem() }}</p> }
        <div class="acts">
          @if (hasTraffic()) { <p-button label="Take it away" i18n-label [text]="true" size="small" (onClick)="drop()" /> }
          <p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" label="Make it up" i18n-label size="small" [disabled]="problem() !== ''" />
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 12px; }
    p { margin: 0; font-size: 12.5px; }
    .row { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 10px; }
    input { width: 100%; min-width: 0; }
    label { display: grid; min-width: 0; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    fieldset { display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 6px; margin: 0; padding: 8px 12px; border: 1px solid var(--uv-line-strong); border-radius: 3px; }
    legend { padding: 0 4px; font-size: 12.5px; color: var(--uv-soft); }
    .problem { padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); }
    .acts { display: flex; justify-content: flex-end; gap: 8px; }
    @media (max-width: 600px) { .row, fieldset { grid-template-columns: 1fr 1fr; } }
  `,
})
export class TrafficDialog {
  protected readonly wordsOf = wordsOf;

  readonly #trials = inject(TrialsStore);
  readonly trial = input.required<TrialDocument>();
  readonly closed = output();

  protected readonly weekdays = WEEKDAYS;
  protected readonly from = signal(new Date(Date.now() - 13 * DAY_MS).toISOString().slice(0, 10));
  protected readonly days = signal('14');
  protected readonly visitors = signal('1200');
  protected readonly seed = signal('7');
  protected readonly rates = linkedSignal<readonly string[]>(() => {
    const { base, smallest } = this.trial().plan;
    return this.trial().looks.map((_, i) => (100 * (base + (i === 0 ? 0 : smallest))).toFixed(1));
  });
  protected readonly shares = signal<readonly string[]>(['0.7', '0.8', '1', '1', '1.1', '1.4', '1.2']);
  protected readonly hasTraffic = computed(() => this.trial().counts.some(({ source }) => source === 'made-up'));
  readonly #wish = computed(() => ({
    from: this.from(),
    days: Number(this.days()),
    visitors: Number(this.visitors()),
    seed: Number(this.seed()),
    rates: this.rates().map((rate) => Number(rate.replace(',', '.')) / 100),
    weekdays: this.shares().map((share) => Number(share.replace(',', '.'))),
  }));
  protected readonly problem = computed(() => {
    const { from, days, visitors, seed, rates, weekdays } = this.#wish();
    if (!/^\d{4}-\d{2}-\d{2}$/.test(from)) return wordsOf('trial.first-day-none');
    if (!(Number.isInteger(days) && days >= 1 && days <= 120)) return wordsOf('trial.days-are-whole-number');
    if (!(Number.isInteger(visitors) && visitors >= 1 && visitors <= 20_000))
      return wordsOf('trial.visitors-are-whole-number');
    if (!(Number.isInteger(seed) && seed >= 0 && seed < 2 ** 31)) return wordsOf('trial.number-drawn-as-whole');
    if (!rates.every((rate) => rate >= 0 && rate <= 1)) return wordsOf('trial.rates-are-percentages-from');
    return weekdays.every((share) => share >= 0 && share <= 5) ? '' : wordsOf('trial.days-week-take-0');
  });

  protected setRate(at: number, rate: string): void {
    this.rates.update((before) => before.map((own, i) => (i === at ? rate : own)));
  }

  protected setShare(at: number, share: string): void {
    this.shares.update((before) => before.map((own, i) => (i === at ? share : own)));
  }

  protected make(): void {
    if (this.problem() !== '') return;
    this.#trials
      .act((api, siteId) => api.makeTraffic(siteId, this.trial().id, { ...this.#wish() }))
      .subscribe(() => this.closed.emit());
  }

  protected drop(): void {
    this.#trials.act((api, siteId) => api.dropTraffic(siteId, this.trial().id)).subscribe(() => this.closed.emit());
  }
}
