import { say, spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  jobMessage,
  SETTING_JOBS,
  SETTING_STATES,
  stateTold,
  colorOfCss,
  isLengthJob,
  placeMessage,
  selectorProblem,
  type FixedPlace,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SettingsStore } from './settings-store';

/** What no field of the maker reaches, in the colour it has: fields are held readable against it. */
@Component({
  selector: 'uv-fixed-dialog',
  imports: [Button, Dialog, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '640px', maxWidth: '96vw' }" header="What no field does" i18n-header>
      <form (ngSubmit)="add()">
        <p class="uv-soft" i18n>What the maker leaves no choice about. It decides too what can be read beside it, so it is looked at with the fields.</p>
        <ul>
          @for (own of fixed(); track $index; let i = $index) {
            <li><span>{{ words(own) }} <code class="uv-mono">{{ own.css || wordsOf('match.colour-not-known') }}</code></span><p-button label="Take off" i18n-label [text]="true" size="small" (onClick)="drop(i)" [ariaLabel]="wordsOf('match.take-off', { words: words(own) })" /></li>
          } @empty { <li class="uv-soft" i18n>Nothing is named yet.</li> }
        </ul>
        <div class="line">
          <p-select name="job" [options]="jobs" optionLabel="label" optionValue="job" [ngModel]="own().job" (ngModelChange)="set({ job: $event })" size="small" ariaLabel="What of it" i18n-ariaLabel appendTo="self" scrollHeight="220px" />
          <input pInputText pSize="small" name="surface" maxlength="80" placeholder="of what" i18n-placeholder aria-label="Of what" i18n-aria-label autocomplete="off" [ngModel]="own().surface" (ngModelChange)="set({ surface: $event })" />
          <p-select name="state" [options]="states" optionLabel="label" optionValue="state" [ngModel]="own().state" (ngModelChange)="set({ state: $event })" size="small" ariaLabel="In which state" i18n-ariaLabel appendTo="self" />
          <input pInputText pSize="small" class="uv-mono" name="css" maxlength="200" placeholder="colour" aria-label="Its colour" i18n-aria-label autocomplete="off" [ngModel]="own().css" (ngModelChange)="set({ css: $event.trim() })" />
          <input pInputText pSize="small" class="uv-mono" name="selector" maxlength="400" placeholder="selector, if any" i18n-placeholder aria-label="Selector" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="own().selector" (ngModelChange)="set({ selector: $event })" />
          <p-button type="submit" label="Add" i18n-label [outlined]="true" size="small" [disabled]="problem() !== ''" />
        </div>
        @if (own().surface !== '' && problem() !== '') { <p class="problem" role="status">{{ problem() }}</p> }
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 12px; }
    p { margin: 0; font-size: 12.5px; }
    ul { max-height: 180px; margin: 0; padding: 0; list-style: none; border-top: 1px solid var(--uv-line); overflow: auto; }
    li { display: flex; align-items: center; justify-content: space-between; gap: 8px; min-height: 34px; border-bottom: 1px solid var(--uv-line); }
    .line { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 6px; }
    .line > * { min-width: 0; width: 100%; }
    .problem { padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); }
    @media (max-width: 600px) { .line { grid-template-columns: minmax(0, 1fr); } }
  `,
})
export class FixedDialog {
  protected readonly wordsOf = wordsOf;

  readonly #store = inject(SettingsStore);
  readonly closed = output();

  protected readonly states = SETTING_STATES.map((state) => ({ state, label: say(stateTold(state)) }));
  protected readonly jobs = SETTING_JOBS.map((job) => ({
    job,
    label: isLengthJob(job)
      ? job === 'corner'
        ? wordsOf('match.corner-radius')
        : wordsOf('match.edge-width')
      : say(jobMessage(job)),
  }));
  protected readonly fixed = computed(() => this.#store.sheet()?.fixed ?? []);
  protected readonly own = signal<FixedPlace>({
    surface: '',
    job: 'text',
    state: 'rest',
    selector: '',
    property: '',
    css: '',
  });
  protected readonly problem = computed(() => {
    const { surface, css, selector } = this.own();
    if (surface.trim() === '') return wordsOf('match.does-not-say-what');
    if (css !== '' && !colorOfCss(css)) return wordsOf('match.no-colour', { css: css.slice(0, 40) });
    return selector === '' ? '' : (spoken(selectorProblem(selector)) ?? '');
  });

  protected words(place: FixedPlace): string {
    return say(placeMessage(place));
  }

  protected set(part: Partial<FixedPlace>): void {
    this.own.update((own) => ({ ...own, ...part }));
  }

  protected add(): void {
    if (this.problem() !== '') return;
    const own = { ...this.own(), surface: this.own().surface.trim() };
    this.#store.change(wordsOf('match.name-as-fixed', { what: say(placeMessage(own)) }), (sheet) => ({
      ...sheet,
      fixed: [...sheet.fixed, own],
    }));
    this.set({ surface: '', css: '', selector: '' });
  }

  protected drop(at: number): void {
    this.#store.change(wordsOf('match.take-fixed-place-off'), (sheet) => ({
      ...sheet,
      fixed: sheet.fixed.filter((_, i) => i !== at),
    }));
  }
}
