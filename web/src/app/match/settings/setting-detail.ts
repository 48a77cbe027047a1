import { say, spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  colorOfValue,
  hexOfSetting,
  nearestPresets,
  placeMessage,
  readHouse,
  settingProblem,
  type OutOfReach,
  type OverrideValue,
  type PlannedField,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SiteStore } from '../../shared/site/site-store';
import { Messages } from '../../shared/spoken/messages';
import { ApiProblem } from '../../shared/api/api-problem';
import { ColorChip } from '../../shared/ui/color-chip';
import { ValuePicker } from '../../shared/ui/value-picker';
import { SettingsStore } from './settings-store';

/** The field chosen: what it is to hold by hand, what it is the same as, what it affects; and what no field reaches. */
@Component({
  selector: 'uv-setting-detail',
  imports: [Button, ColorChip, FormsModule, InputText, Select, ValuePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (planned(); as own) {
      <header>
        @if (own.field.notation !== 'px') {
          <uv-color-chip [color]="presentHex()" /><span aria-hidden="true">→</span><uv-color-chip [color]="own.hex" />
        }
        <h2 [title]="own.field.name">{{ own.field.name }}</h2>
      </header>
      <p class="uv-soft reason">{{ own.reason }}</p>
      <div class="acts">
        @if (own.becomes.kind !== 'leave') {
          <p-button label="Leave alone" i18n-label [outlined]="true" size="small" (onClick)="store.settle(own.field, { kind: 'leave' })" />
        }
        @if (own.isSettled) {
          <p-button label="Hand back" i18n-label [outlined]="true" size="small" (onClick)="store.settle(own.field, null)" />
        } @else { <p-button label="Keep so" i18n-label [outlined]="true" size="small" (onClick)="store.settle(own.field, own.becomes)" /> }
        <p-button label="The field…" i18n-label [outlined]="true" size="small" (onClick)="edited.emit(own)" />
      </div>
      @switch (own.field.notation) {
        @case ('preset') {
          <h3 i18n>The maker’s presets</h3>
          <ul class="presets">
            @for (entry of presets(); track entry.preset.name) {
              <li>
                <button
                  type="button" [attr.aria-pressed]="entry.preset.name === own.text"
                  (click)="settle({ kind: 'literal', css: entry.preset.css })">
                  <uv-color-chip [color]="entry.preset.css" />
                  <span>{{ entry.preset.name }}</span>
                  @if (entry.figure) {
                    <span class="uv-soft" i18n>ΔE {{ entry.figure }}</span>
                  }
                </button>
              </li>
            }
          </ul>
        }
        @case ('px') {
          <label class="length"><span i18n>Length</span><input pInputText pSize="small" [ngModel]="own.text" maxlength="12" (change)="setLength($any($event.target).value)" /></label>
        }
        @default {
          <uv-value-picker [canFlash]="false" [palette]="site.palette()" [current]="current()" [cell]="own.field.id" (picked)="settle($event)" />
        }
      }
      @if (others().length > 0 && own.field.notation !== 'px') {
        <div class="same"><span i18n>Same as</span>
          <p-select [options]="others()" optionLabel="name" optionValue="id" [ngModel]="sameAs()" (ngModelChange)="tie($event)" [showClear]="true" placeholder="none" size="small" ariaLabel="Same as" i18n-ariaLabel appendTo="body" />
        </div>
      }
      <h3 i18n>Affects</h3>
      <ul class="list">
        @for (words of places(); track $index) {
          <li>{{ words }}</li>
        } @empty {
          <li class="uv-soft" i18n>Nobody said yet; what it affects decides the role it gets and what must be read with it.</li>
        }
      </ul>
      @if (places().length > 1) { <p class="uv-soft note" i18n>◆ One field feeds {{ places().length }} places: they change together.</p> }
    }
    <h3 i18n>What no field does</h3>
    <ul class="list">
      @for (entry of beyond(); track $index) {
        <li>
          {{ entry.words }}:
          <span class="uv-soft">{{ entry.answer }}</span>
          @if (entry.isReached) {
            <button type="button" class="link" (click)="bench.emit(entry.selector)" i18n>Bench</button>
          }
        </li>
      }
    </ul>
    <button type="button" class="link" (click)="named.emit()">{{ beyond().length > 0 ? wordsOf('match.name-more-or-take') : wordsOf('match.name-what-maker-leaves') }}</button>
    @if (unshown().length > 0) {
      <p class="uv-soft note" i18n>Not drawn in the pictures, since nobody said where it is in the document: {{ unshown().join(', ') }}.</p>
    }
  `,
  styles: `
    :host { display: block; padding: 10px 14px 14px; }
    header { display: flex; align-items: center; gap: 8px; }
    header uv-color-chip { width: 26px; height: 20px; }
    h2 { font-weight: 700; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    h3 { margin: 12px 0 5px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    .reason { margin: 5px 0 8px; font-size: 12.5px; }
    .acts { display: flex; flex-wrap: wrap; gap: 5px; margin-bottom: 8px; --p-button-sm-padding-y: 3px; --p-button-sm-padding-x: 8px; --p-button-sm-font-size: 12.5px; }
    uv-value-picker { margin: 0 -14px; padding-inline: 14px; }
    .presets { display: grid; gap: 3px; margin: 0; padding: 0; list-style: none; }
    .presets button { display: flex; align-items: center; gap: 8px; width: 100%; min-height: 28px; padding: 2px 6px; border: 1px solid transparent; border-radius: 3px; background: none; text-align: left; cursor: pointer; }
    .presets button:hover { border-color: var(--uv-line-strong); }
    .presets button[aria-pressed='true'] { border-color: var(--uv-ink); font-weight: 700; }
    .presets uv-color-chip { width: 20px; height: 16px; }
    .presets .uv-soft { margin-left: auto; font-weight: 400; font-size: 12px; }
    .length, .same { display: grid; grid-template-columns: 70px minmax(0, 1fr); align-items: center; gap: 8px; margin-top: 8px; }
    .list { margin: 0; padding: 0; list-style: none; font-size: 12.5px; }
    .list li { padding: 2px 0; overflow-wrap: anywhere; }
    .link { min-height: 24px; padding: 0; border: 0; background: none; color: var(--uv-ink); font-size: 12.5px; text-decoration: underline; cursor: pointer; }
    li .link { margin-left: 6px; }
    .note { margin: 6px 0 0; font-size: 12.5px; }
  `,
})
export class SettingDetail {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SettingsStore);
  protected readonly site = inject(SiteStore);
  readonly #messages = inject(Messages);
  readonly beyond = input.required<readonly Spoken<OutOfReach>[]>();
  readonly unshown = input.required<readonly string[]>();
  readonly edited = output<Spoken<PlannedField>>();
  /** Emits when what no field does is to be named. */
  readonly named = output();
  /** Emits the selector of what is to be overridden on the Bench; empty for the part itself. */
  readonly bench = output<string>();

  protected readonly planned = this.store.chosenField;
  protected readonly presentHex = computed(() => {
    const own = this.planned();
    return own ? hexOfSetting(own.field, own.field.present) : null;
  });
  protected readonly places = computed(
    () => this.planned()?.field.places.map((place) => say(placeMessage(place))) ?? [],
  );
  protected readonly current = computed<OverrideValue | null>(() => {
    const own = this.planned();
    return own?.becomes.kind === 'value' ? own.becomes.value : null;
  });
  protected readonly presets = computed(() => {
    const own = this.planned();
    if (!own) return [];
    const meant = own.preset ? colorOfValue({ kind: 'literal', css: own.preset.meant }, this.site.palette()) : null;
    if (!meant) return own.field.presets.map((preset) => ({ preset, figure: '' }));
    return nearestPresets(own.field, meant).map(({ preset, deltaE }) => ({ preset, figure: deltaE.toFixed(1) }));
  });
  protected readonly others = computed(() =>
    (this.store.plan()?.fields ?? [])
      .filter(({ field }) => field.id !== this.planned()?.field.id && field.notation !== 'px')
      .map(({ field: { id, name } }) => ({ id, name })),
  );
  protected readonly sameAs = computed(() => {
    const id = this.planned()?.field.id ?? '';
    return (
      this.store
        .sheet()
        ?.equal.find((list) => list.includes(id))
        ?.find((other) => other !== id) ?? null
    );
  });

  protected settle(value: OverrideValue): void {
    const own = this.planned();
    if (own && (value.kind === 'role' || value.kind === 'swatch' || value.kind === 'literal'))
      this.store.settle(own.field, { kind: 'value', value });
  }

  protected setLength(text: string): void {
    const own = this.planned();
    if (!own) return;
    const problem = spoken(settingProblem(own.field, text));
    if (problem !== null)
      this.#messages.report(new ApiProblem(wordsOf('match.not-set'), `"${text.slice(0, 40)}" ${problem}`));
    else this.store.settle(own.field, { kind: 'value', value: { kind: 'literal', css: readHouse('corner', text) } });
  }

  protected tie(id: string | null): void {
    const own = this.planned();
    const other = this.store.plan()?.fields.find(({ field }) => field.id === id)?.field ?? null;
    if (own) this.store.tie(own.field, other);
  }
}
