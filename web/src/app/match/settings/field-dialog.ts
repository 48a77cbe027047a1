import { say, spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  jobMessage,
  MOST_PLACES,
  SETTING_JOBS,
  SETTING_NOTATIONS,
  SETTING_STATES,
  stateTold,
  colorOfCss,
  isLengthJob,
  selectorProblem,
  settingProblem,
  type SettingField,
  type SettingPlace,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { NOTATION_WORDS } from './setting-words';
import { SettingsStore } from './settings-store';

/** A maker's field as it is: its name, the notation it wants, what stands in it, its presets and all it affects. */
@Component({
  selector: 'uv-field-dialog',
  imports: [Button, Dialog, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '820px', maxWidth: '96vw' }" [header]="isNew() ? wordsOf('match.field-maker') : wordsOf('match.field', { name: field().name })">
      <form (ngSubmit)="keep()">
        <div class="of">
          <label><ng-container i18n>Name over there</ng-container><input pInputText pSize="small" name="name" maxlength="80" autocomplete="off" [ngModel]="own().name" (ngModelChange)="set({ name: $event })" /></label>
          <div class="label"><ng-container i18n>Wants</ng-container><p-select name="notation" [options]="notations" optionLabel="label" optionValue="notation" [ngModel]="own().notation" (ngModelChange)="set({ notation: $event })" size="small" ariaLabel="Notation it wants" i18n-ariaLabel appendTo="self" /></div>
          <label><ng-container i18n>Stands there now</ng-container><input pInputText pSize="small" class="uv-mono" name="present" maxlength="200" autocomplete="off" placeholder="not known" i18n-placeholder [ngModel]="own().present" (ngModelChange)="set({ present: $event.trim() })" /></label>
        </div>
        @if (own().notation === 'preset') {
          <h3 i18n>Presets</h3>
          <label class="presets"><ng-container i18n>One a line: name, then colour</ng-container><textarea pInputText name="presets" rows="4" class="uv-mono" spellcheck="false" placeholder="Snow #ffffff" i18n-placeholder [ngModel]="presetText()" (ngModelChange)="presetText.set($event)"></textarea></label>
        }
        <h3 i18n>Affects</h3>
        <ul>
          @for (place of own().places; track $index; let i = $index) {
            <li>
              <p-select [name]="'job' + i" [options]="jobs" optionLabel="label" optionValue="job" [ngModel]="place.job" (ngModelChange)="setPlace(i, { job: $event })" size="small" ariaLabel="What of it" i18n-ariaLabel appendTo="self" scrollHeight="260px" />
              <input pInputText pSize="small" [name]="'surface' + i" maxlength="80" placeholder="of what, such as: window head" i18n-placeholder aria-label="Of what" i18n-aria-label autocomplete="off" [ngModel]="place.surface" (ngModelChange)="setPlace(i, { surface: $event })" />
              <p-select [name]="'state' + i" [options]="states" optionLabel="label" optionValue="state" [ngModel]="place.state" (ngModelChange)="setPlace(i, { state: $event })" size="small" ariaLabel="In which state" i18n-ariaLabel appendTo="self" />
              <input pInputText pSize="small" class="uv-mono" [name]="'selector' + i" maxlength="400" placeholder="selector in its document" i18n-placeholder aria-label="Selector in its document" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="place.selector" (ngModelChange)="setPlace(i, { selector: $event })" />
              <p-button label="Take off" i18n-label [text]="true" size="small" (onClick)="takeOff(i)" [ariaLabel]="wordsOf('match.take-off-place', { i: i + 1 })" />
            </li>
          } @empty { <li class="uv-soft none" i18n>Nothing yet. Fields that fill and fields that write on one and the same thing are held readable together.</li> }
        </ul>
        <p-button label="Add a place" i18n-label [outlined]="true" size="small" [disabled]="own().places.length >= most" (onClick)="add()" />
        @if (problem() !== '') { <p class="problem" role="alert">{{ problem() }}</p> }
        <div class="acts">
          @if (!isNew()) { <p-button label="Take off the sheet" i18n-label [text]="true" size="small" (onClick)="drop()" /> }
          <p-button label="Cancel" i18n-label [outlined]="true" size="small" (onClick)="closed.emit()" /><p-button type="submit" [label]="isNew() ? wordsOf('match.add-field') : wordsOf('match.keep')" size="small" [disabled]="problem() !== ''" />
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    :host { position: absolute; }
    form { display: grid; gap: 10px; justify-items: start; }
    .of { display: grid; grid-template-columns: 1fr 190px 1fr; gap: 10px; width: 100%; }
    label, .label { display: grid; gap: 3px; font-size: 12.5px; color: var(--uv-soft); }
    p-select { min-width: 0; width: 100%; }
    h3 { margin: 4px 0 -4px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    .presets { width: 100%; }
    ul { display: grid; gap: 6px; width: 100%; margin: 0; padding: 0; list-style: none; }
    li:not(.none) { display: grid; grid-template-columns: 160px minmax(0, 1fr) 130px minmax(0, 1fr) auto; gap: 6px; align-items: center; }
    .problem { margin: 0; padding: 6px 10px; border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; }
    .acts { display: flex; gap: 8px; justify-self: end; }
    @media (max-width: 700px) { .of, li:not(.none) { grid-template-columns: minmax(0, 1fr); } }
  `,
})
export class FieldDialog {
  protected readonly wordsOf = wordsOf;

  readonly #store = inject(SettingsStore);
  readonly field = input.required<SettingField>();
  readonly isNew = input(false);
  readonly closed = output();

  protected readonly most = MOST_PLACES;
  protected readonly notations = SETTING_NOTATIONS.map((notation) => ({ notation, label: NOTATION_WORDS[notation] }));
  protected readonly states = SETTING_STATES.map((state) => ({ state, label: say(stateTold(state)) }));
  protected readonly jobs = SETTING_JOBS.map((job) => ({
    job,
    label: isLengthJob(job)
      ? job === 'corner'
        ? wordsOf('match.corner-radius')
        : wordsOf('match.edge-width')
      : say(jobMessage(job)),
  }));
  protected readonly own = linkedSignal(() => this.field());
  protected readonly presetText = linkedSignal(() =>
    this.field()
      .presets.map(({ name, css }) => `${name} ${css}`)
      .join('\n'),
  );
  readonly #read = computed((): SettingField => {
    const own = this.own();
    const presets = own.notation === 'preset' ? presetsIn(this.presetText()) : [];
    return { ...own, name: own.name.trim(), presets: presets.flatMap((preset) => preset ?? []) };
  });
  protected readonly problem = computed(() => {
    const field = this.#read();
    if (field.name === '') return wordsOf('match.field-has-no-name');
    const others = this.#store.sheet()?.fields ?? [];
    if (others.some(({ id, name }) => id !== field.id && name.toLowerCase() === field.name.toLowerCase()))
      return wordsOf('match.name-another-field', { name: field.name });
    const bad = field.notation === 'preset' ? presetsIn(this.presetText()).indexOf(null) : -1;
    if (bad !== -1) return wordsOf('match.preset-has-no-name', { bad: bad + 1 });
    const present = field.present === '' ? null : spoken(settingProblem(field, field.present));
    if (present !== null) return `"${field.present.slice(0, 40)}" ${present}.`;
    for (const [i, { surface, selector }] of field.places.entries()) {
      if (surface.trim() === '') return wordsOf('match.place-does-not-say', { i: i + 1 });
      const reason = selector === '' ? null : spoken(selectorProblem(selector));
      if (reason !== null) return wordsOf('match.place', { i: i + 1, reason });
    }
    return '';
  });

  protected set(part: Partial<SettingField>): void {
    this.own.update((own) => ({ ...own, ...part }));
  }

  protected setPlace(at: number, part: Partial<SettingPlace>): void {
    this.set({ places: this.own().places.map((place, i) => (i === at ? { ...place, ...part } : place)) });
  }

  protected add(): void {
    const last = this.own().places.at(-1);
    this.set({
      places: [
        ...this.own().places,
        { surface: last?.surface ?? '', job: 'ground', state: 'rest', selector: '', property: '' },
      ],
    });
  }

  protected takeOff(at: number): void {
    this.set({ places: this.own().places.filter((_, i) => i !== at) });
  }

  protected drop(): void {
    this.#store.dropField(this.field());
    this.closed.emit();
  }

  protected keep(): void {
    if (this.problem() !== '') return;
    const field = this.#read();
    if (this.isNew())
      this.#store.change(wordsOf('match.add-sheet', { name: field.name }), (sheet) => ({
        ...sheet,
        fields: [...sheet.fields, field],
      }));
    else this.#store.changeField(wordsOf('match.change-field', { name: field.name }), field.id, () => field);
    this.#store.chosen.set(field.id);
    this.closed.emit();
  }
}

/** Presets of lines that end in a colour; `null` for a line that is none. */
function presetsIn(text: string): ({ readonly name: string; readonly css: string } | null)[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const at = line.lastIndexOf(' ');
      const [name, css] = [line.slice(0, at).trim(), line.slice(at + 1)];
      return at > 0 && name !== '' && name.length <= 80 && colorOfCss(css) ? { name, css } : null;
    });
}
