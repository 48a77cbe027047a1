import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { ConversionKind } from '@upper-veneer/contract';
import { sampleSize, selectorProblem } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SiteStore } from '../shared/site/site-store';
import { TrialsStore } from '../shared/trials/trials-store';

const KINDS: { readonly kind: ConversionKind; readonly label: string }[] = [
  { kind: 'press', label: wordsOf('trial.press') },
  { kind: 'sent', label: wordsOf('trial.form-sent') },
  { kind: 'reached', label: wordsOf('trial.page-reached') },
];

/** What is to count; `null` stands for the part that must be seen. */
interface Planned {
  readonly kind: ConversionKind;
  readonly target: string | null;
}

/** Plans a trial: which looks, what counts, and how small a difference is worth having. */
@Component({
  selector: 'uv-plan-dialog',
  imports: [Button, Dialog, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '640px', maxWidth: '96vw' }" header="Plan a trial" i18n-header>
      <form (ngSubmit)="plan()">
        <label><ng-container i18n>Name</ng-container><input pInputText pSize="small" name="name" maxlength="120" autocomplete="off" [ngModel]="name()" (ngModelChange)="name.set($event)" /></label>
        <fieldset>
          <legend i18n>Looks, held against the first of them</legend>
          <label class="tick"><input
            type="checkbox" name="draft" [ngModel]="withDraft()" (ngModelChange)="withDraft.set($event)"
            /> <ng-container i18n> As the draft is</ng-container></label>
          @for (own of trials.variations(); track own.id) {
            <label class="tick"><input type="checkbox" [name]="'v' + own.id" [ngModel]="chosen().includes(own.id)" (ngModelChange)="choose(own.id, $event)" /> {{ own.name }} <span class="uv-soft" i18n>revision {{ own.revision }}{{ own.settings.length > 0 ? wordsOf('trial.settings') : '' }}</span><button type="button" class="away" [attr.aria-label]="wordsOf('trial.take-away', { name: own.name })" (click)="drop(own.id); $event.preventDefault()" i18n>Take away</button></label>
          } @empty { <p class="uv-soft" i18n>No variation is kept yet. In Match, “As a variation…” keeps a match without changing the draft.</p> }
        </fieldset>
        <div class="row counted">
          <p-select name="part" [options]="parts()" optionLabel="name" optionValue="selector" [ngModel]="seen()" (ngModelChange)="seen.set($event)" [showClear]="true" placeholder="Any page counts as seen" i18n-placeholder size="small" ariaLabel="Part that must come into view" i18n-ariaLabel appendTo="body" />
        </div>
        <div class="counts" role="group" aria-label="What counts" i18n-aria-label>
          @for (own of conversions(); track $index; let i = $index) {
            <div class="row">
              <p-select [name]="'kind' + i" [options]="kinds" optionLabel="label" optionValue="kind" [ngModel]="own.kind" (ngModelChange)="setConversion(i, $event)" size="small" ariaLabel="What counts" i18n-ariaLabel appendTo="body" />
              @if (own.kind === 'reached') {
                <p-select
                  [name]="'page' + i" [options]="site.captured()" optionLabel="name" optionValue="path"
                  [ngModel]="own.target" (ngModelChange)="setTarget(i, $event)" placeholder="Page" i18n-placeholder
                  size="small" ariaLabel="Page that is reached" i18n-ariaLabel appendTo="body" />
              } @else {
                <input
                  pInputText pSize="small" class="uv-mono" [name]="'target' + i" maxlength="400" placeholder="selector"
                  aria-label="Selector of what is pressed or sent" i18n-aria-label autocomplete="off" spellcheck="false"
                  [ngModel]="targetOf(own)" (ngModelChange)="setTarget(i, $event)" />
              }
              @if (i === 0) {
                <p-button
                  label="Count something else too" i18n-label [text]="true" size="small"
                  [disabled]="conversions().length >= 4" (onClick)="addConversion()" />
              } @else { <p-button label="Leave it out" i18n-label [text]="true" size="small" (onClick)="dropConversion(i)" /> }
            </div>
          }
        </div>
        <div class="row">
          <label><ng-container i18n>Rate now, %</ng-container><input pInputText pSize="small" name="base" inputmode="decimal" [ngModel]="base()" (ngModelChange)="base.set($event)" /></label>
          <label><ng-container i18n>Smallest difference worth having, points</ng-container><input pInputText pSize="small" name="smallest" inputmode="decimal" [ngModel]="smallest()" (ngModelChange)="smallest.set($event)" /></label>
          <label><ng-container i18n>Visitors a day</ng-container><input pInputText pSize="small" name="visitors" inputmode="numeric" [ngModel]="visitors()" (ngModelChange)="visitors.set($event)" /></label>
        </div>
        <p class="size" role="status">{{ sizeWords() }}</p>
        <div class="acts"><p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" label="Plan it" i18n-label size="small" [disabled]="problem() !== '' || isPlanning()" /></div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 12px; }
    label { display: grid; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    fieldset { display: grid; gap: 4px; max-height: 190px; margin: 0; padding: 8px 12px; border: 1px solid var(--uv-line-strong); border-radius: 3px; overflow: auto; }
    legend { padding: 0 4px; font-size: 12.5px; color: var(--uv-soft); }
    .tick { display: flex; align-items: center; gap: 7px; min-height: 24px; font-size: 13px; color: var(--uv-ink); }
    .tick input { width: 15px; height: 15px; margin: 0; accent-color: var(--uv-ink); }
    .away { margin-left: auto; padding: 0 2px; border: 0; background: none; color: var(--uv-soft); font-size: 12px; text-decoration: underline; cursor: pointer; }
    fieldset p { margin: 0; font-size: 12.5px; }
    input[pInputText] { width: 100%; min-width: 0; }
    .counts { display: grid; gap: 6px; }
    .row { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 10px; align-items: end; }
    .row.counted { grid-template-columns: minmax(0, 1fr); }
    p-select { min-width: 0; width: 100%; }
    .size { margin: 0; padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; }
    @media (max-width: 600px) { .row { grid-template-columns: minmax(0, 1fr); } }
  `,
})
export class PlanDialog {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly trials = inject(TrialsStore);
  readonly closed = output();
  readonly planned = output<number>();

  protected readonly kinds = KINDS;
  protected readonly name = signal(wordsOf('trial.blend-or-stand-out'));
  /** The newest two at first; those that come while the dialog is open are among them. */
  readonly #newest = computed(
    () =>
      this.trials
        .variations()
        .slice(0, 2)
        .map(({ id }) => id)
        .reverse(),
    { equal: (a, b) => a.join() === b.join() },
  );
  protected readonly chosen = linkedSignal<readonly number[]>(() => this.#newest());
  protected readonly withDraft = linkedSignal(() => this.#newest().length < 2);
  protected readonly seen = linkedSignal<string | null>(() => this.#partTried());
  /** What counts; where no target is named, it is the part itself. */
  protected readonly conversions = signal<readonly Planned[]>([{ kind: 'press', target: null }]);
  protected readonly base = signal('4');
  protected readonly smallest = signal('1');
  protected readonly visitors = signal('1200');
  protected readonly isPlanning = signal(false);
  /** Selector of the part whose settings the newest variation fills; `null` where that is none. */
  readonly #partTried = computed(() => {
    const partId = this.trials.variations().at(0)?.settings.at(0)?.partId;
    return this.site.site()?.parts.find(({ id }) => id === partId)?.selector ?? null;
  });
  protected readonly parts = computed(() =>
    (this.site.site()?.parts ?? []).map(({ name, selector }) => ({ name: wordsOf('trial.seen', { name }), selector })),
  );
  readonly #rates = computed(() => ({
    base: Number(this.base().replace(',', '.')) / 100,
    smallest: Number(this.smallest().replace(',', '.')) / 100,
  }));
  readonly #looks = computed(() => [...(this.withDraft() ? [null] : []), ...this.chosen()]);
  readonly #size = computed(() => {
    const { base, smallest } = this.#rates();
    if (!(base >= 0.0001 && smallest >= 0.0001 && base + smallest < 1)) return null;
    const questions = Math.max(1, this.#looks().length - 1) * this.conversions().length;
    return sampleSize({ base, smallest, alpha: 0.05 / questions, power: 0.8 });
  });
  protected readonly problem = computed(() => {
    if (this.name().trim() === '') return wordsOf('trial.has-no-name');
    if (this.#looks().length < 2) return wordsOf('trial.two-looks-or-more');
    if (this.#looks().length > 6) return wordsOf('trial.six-looks-most');
    for (const own of this.conversions()) {
      const target = this.targetOf(own);
      if (target === '') return wordsOf('trial.does-not-say-what');
      const reason = own.kind === 'reached' ? null : spoken(selectorProblem(target));
      if (reason !== null) return reason;
    }
    return this.#size() === null ? wordsOf('trial.rate-difference-are-no') : '';
  });
  protected readonly sizeWords = computed(() => {
    const size = this.#size();
    if (this.problem() !== '' || size === null) return this.problem();
    const daily = Number(this.visitors());
    const days = daily > 0 ? Math.ceil((size * this.#looks().length) / daily) : 0;
    return wordsOf('trial.each-look-be-seen', {
      size,
      case: days > 0 ? 'yes' : 'no',
      days,
      daily,
    });
  });

  protected choose(id: number, isChosen: boolean): void {
    this.chosen.update((before) => (isChosen ? [...before, id] : before.filter((other) => other !== id)));
  }

  protected drop(id: number): void {
    this.trials.act((api, siteId) => api.dropVariation(siteId, id)).subscribe();
  }

  protected targetOf({ target }: Planned): string {
    return target ?? this.seen() ?? '';
  }

  protected setConversion(at: number, kind: ConversionKind): void {
    const target = kind === 'reached' ? (this.site.captured().at(0)?.path ?? '') : null;
    this.#replace(at, { kind, target });
  }

  protected setTarget(at: number, target: string): void {
    this.#replace(at, { ...this.conversions()[at], target });
  }

  protected addConversion(): void {
    this.conversions.update((before) => [...before, { kind: 'press', target: '' }]);
  }

  protected dropConversion(at: number): void {
    this.conversions.update((before) => before.filter((_, i) => i !== at));
  }

  #replace(at: number, planned: Planned): void {
    this.conversions.update((before) => before.map((own, i) => (i === at ? planned : own)));
  }

  protected plan(): void {
    if (this.problem() !== '') return;
    this.isPlanning.set(true);
    this.trials
      .act((api, siteId) =>
        api.planTrial(siteId, {
          name: this.name().trim(),
          variations: this.#looks().map((variationId) => ({ variationId })),
          plan: { ...this.#rates(), alpha: 0.05, power: 0.8 },
          conversions: this.conversions().map((own) => ({ kind: own.kind, target: this.targetOf(own) })),
          seen: this.seen() ?? '',
        }),
      )
      .subscribe({
        next: ({ trials }) => this.planned.emit(trials[0].id),
        complete: () => this.isPlanning.set(false),
      });
  }
}
