import { wordsOf } from '@upper-veneer/words';
import { roleEntries } from '@upper-veneer/core';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { SheetOptionsRequest, validateBody } from '@upper-veneer/contract';
import type { RoleName } from '@upper-veneer/core';
import { InputText } from 'primeng/inputtext';
import { DraftEdits } from '../shared/site/draft-edits';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import { roleTitle } from '../shared/site/role-words';

/** How the sheet is written: colours as custom properties with a prefix and names of the site's own or as plain values, rules for hover for all devices or those that hover. */
@Component({
  selector: 'uv-sheet-options-panel',
  imports: [FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>Hover</h2>
    <label class="tick"><input
      type="checkbox" [checked]="hoverOnly()" (change)="store({ hoverOnly: !hoverOnly() })"
      /> <ng-container i18n> Only on devices that hover</ng-container></label>
    <p class="hint" i18n>A hover look can stick after a tap. Ticked, ours stand in <code>@media (hover: hover)</code> and do not.</p>
    <h2 i18n>Lines of a rule</h2>
    <label class="tick"><input
      type="checkbox" [checked]="isByLetters()" (change)="store({ isByLetters: !isByLetters() })"
      /> <ng-container i18n> By the letters of their names</ng-container></label>
    <p class="hint" i18n>Else what is seen first stands first. Proved to come to the same either way.</p>
    <h2 i18n>Older engines</h2>
    <label class="field"><span i18n>To reach</span><input pInputText pSize="small" maxlength="60" placeholder="name and version" i18n-placeholder [ngModel]="flatFor()" (ngModelChange)="flatFor.set($event)" (change)="store({ flatFor: flatFor().trim() })" /></label>
    <p class="hint" i18n>Where one is named, no <code>color-mix()</code> is written: sheer colours, those in gradients and shadows too, have flat custom properties of their own.</p>
    <h2 i18n>Colours in the sheet</h2>
    <div class="kinds" role="radiogroup" aria-label="How colours are written" i18n-aria-label>
      <label><input
        type="radio" name="kind" [checked]="!asValues()" (change)="store({ asValues: false })"
        /> <ng-container i18n> Custom properties</ng-container></label>
      <label><input
        type="radio" name="kind" [checked]="asValues()" (change)="store({ asValues: true })"
        /> <ng-container i18n> Plain values</ng-container></label>
    </div>
    @if (!asValues()) {
      <label class="field"><span i18n>Prefix</span><input pInputText pSize="small" class="uv-mono" spellcheck="false" [ngModel]="prefix()" (ngModelChange)="prefix.set($event)" (change)="store({ prefix: prefix().trim() })" /></label>
      @for (row of rows(); track row.role) {
        <label class="field"><span>{{ row.words }}</span><input pInputText pSize="small" class="uv-mono" spellcheck="false" [placeholder]="row.role" [ngModel]="row.name" (change)="rename(row.role, $event)" [title]="row.property" /></label>
      }
    }
    @if (problem(); as words) { <p class="problem" role="alert">{{ words }}</p> }
  `,
  styles: `
    :host { display: block; margin-bottom: 18px; }
    h2 { margin: 4px 0 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    h2 ~ h2 { margin-top: 14px; }
    .kinds { display: flex; gap: 16px; margin-bottom: 6px; }
    .kinds label { display: flex; align-items: center; gap: 6px; }
    .kinds input { margin: 0; accent-color: var(--uv-black); }
    .field { display: grid; grid-template-columns: 110px minmax(0, 1fr); align-items: center; gap: 8px; min-height: 34px; font-size: 12.5px; }
    .tick { display: flex; align-items: center; gap: 6px; min-height: 28px; }
    .tick input { margin: 0; accent-color: var(--uv-black); }
    .hint { margin: 2px 0 0; font-size: 12px; color: var(--uv-soft); }
    .problem { color: var(--uv-fails); font-size: 12px; }
  `,
})
export class SheetOptionsPanel {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #properties = toSignal<ReadonlyMap<RoleName, string>, ReadonlyMap<RoleName, string>>(
    toObservable(this.#site.veneer).pipe(
      askEngine(
        this.#engine,
        (_veneer, engine): Promise<ReadonlyMap<RoleName, string>> => engine.named().then(({ roles }) => roles),
        new Map(),
      ),
    ),
    { initialValue: new Map() },
  );
  readonly #edits = inject(DraftEdits);
  protected readonly asValues = computed(() => this.#site.site()?.asValues ?? false);
  protected readonly hoverOnly = computed(() => this.#site.site()?.hoverOnly ?? false);
  protected readonly isByLetters = computed(() => this.#site.site()?.isByLetters ?? false);
  protected readonly flatFor = linkedSignal(() => this.#site.site()?.flatFor ?? '');
  protected readonly prefix = linkedSignal(() => this.#site.site()?.prefix ?? '');
  protected readonly problem = signal('');
  protected readonly rows = computed(() => {
    const site = this.#site.site();
    if (!site) return [];
    return this.#site.palette().roles.map(({ role }) => ({
      role,
      words: roleTitle(role),
      name: site.names[role] ?? '',
      property: this.#properties().get(role) ?? '',
    }));
  });

  protected rename(role: RoleName, event: Event): void {
    const name = (event.target as HTMLInputElement).value.trim();
    const names: Partial<Record<RoleName, string>> = { ...this.#site.site()?.names };
    if (name === '' || name === role) Reflect.deleteProperty(names, role);
    else names[role] = name;
    this.store({ names });
  }

  protected store(change: {
    readonly prefix?: string;
    readonly asValues?: boolean;
    readonly names?: Partial<Record<RoleName, string>>;
    readonly hoverOnly?: boolean;
    readonly flatFor?: string;
    readonly isByLetters?: boolean;
  }): void {
    const site = this.#site.site();
    if (!site) return;
    const next = {
      prefix: site.prefix,
      asValues: site.asValues,
      names: site.names,
      hoverOnly: site.hoverOnly,
      flatFor: site.flatFor,
      isByLetters: site.isByLetters,
      ...change,
    };
    const label =
      change.hoverOnly !== undefined
        ? change.hoverOnly
          ? wordsOf('sheet.hover-rules-only-where')
          : wordsOf('sheet.hover-rules-all-devices')
        : change.isByLetters !== undefined
          ? wordsOf('sheet.order-lines')
          : change.flatFor !== undefined
            ? wordsOf('sheet.sheet-for', { flatFor: next.flatFor || 'today’s engines' })
            : change.prefix !== undefined
              ? wordsOf('sheet.prefix', { prefix: next.prefix })
              : change.asValues !== undefined
                ? next.asValues
                  ? wordsOf('sheet.colours-as-plain-values')
                  : wordsOf('sheet.colours-as-custom-properties')
                : wordsOf('sheet.names-roles');
    const request = {
      label: label.slice(0, 200),
      prefix: next.prefix,
      asValues: next.asValues,
      names: roleEntries(next.names).map(([role, name]) => ({ role, name })),
      hoverOnly: next.hoverOnly,
      flatFor: next.flatFor,
      isByLetters: next.isByLetters,
    };
    const checked = validateBody(SheetOptionsRequest, request);
    this.problem.set(checked.ok ? '' : `${checked.errors[0].field} ${checked.errors[0].reason}`);
    if (checked.ok) this.#edits.putSheetOptions(request).subscribe();
  }
}
