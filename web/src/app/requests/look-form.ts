import { say, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  ROW_PROPERTIES,
  propertyTold,
  rolesInOrder,
  type OverrideState,
  type OverrideValue,
  type RequestLook,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SiteStore } from '../shared/site/site-store';
import { roleWords } from '../shared/site/role-words';

/** Properties that a wish is mostly about. */
const PROPERTIES = [
  'color',
  'background-color',
  'border-color',
  'outline-color',
  'fill',
  'text-decoration-color',
  'border-radius',
  'font-family',
  'font-size',
  'font-weight',
  'text-transform',
  'max-width',
  'display',
].filter((property) => Object.values(ROW_PROPERTIES).some((rows) => rows.some((row) => row.property === property)));

/** Names the look that a wish comes to: of which elements, what, in which state. */
@Component({
  selector: 'uv-look-form',
  imports: [Button, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (isOpen()) {
      <form (ngSubmit)="name()">
        <input pInputText pSize="small" name="selector" class="uv-mono wide" placeholder="selector" aria-label="Selector of the elements" i18n-aria-label autocomplete="off" spellcheck="false" [ngModel]="selector()" (ngModelChange)="selector.set($event)" />
        <p-select name="property" [options]="properties" optionLabel="label" optionValue="property" [ngModel]="property()" (ngModelChange)="property.set($event)" size="small" ariaLabel="What of them" i18n-ariaLabel />
        <p-select name="state" [options]="states" optionLabel="label" optionValue="state" [ngModel]="state()" (ngModelChange)="state.set($event)" size="small" ariaLabel="In which state" i18n-ariaLabel />
        <p-select name="role" [options]="values()" optionLabel="label" optionValue="key" [ngModel]="key()" (ngModelChange)="key.set($event)" size="small" ariaLabel="Colour of the palette" i18n-ariaLabel />
        @if (key() === '') {
          <input
            pInputText pSize="small" name="css" class="uv-mono" placeholder="value" aria-label="CSS value"
            i18n-aria-label autocomplete="off" [ngModel]="css()" (ngModelChange)="css.set($event)" />
        }
        <span class="acts"><p-button type="submit" label="Name it" i18n-label size="small" [disabled]="!look()" /><p-button label="Cancel" i18n-label [text]="true" size="small" (onClick)="isOpen.set(false)" /></span>
      </form>
    } @else { <button type="button" class="link" (click)="isOpen.set(true)" i18n>Name a look to prove it by…</button> }
  `,
  styles: `
    form { display: grid; grid-template-columns: 1fr 1fr; gap: 6px; padding: 8px; background: var(--uv-bar); }
    .wide, .acts { grid-column: 1 / -1; }
    .acts { display: flex; gap: 6px; }
    p-select { min-width: 0; width: 100%; }
    .link { min-height: 24px; padding: 0; border: 0; background: none; color: var(--uv-soft); font-size: 12.5px; text-decoration: underline; cursor: pointer; }
  `,
})
export class LookForm {
  readonly #site = inject(SiteStore);
  readonly named = output<RequestLook>();
  protected readonly isOpen = signal(false);
  protected readonly selector = signal('');
  protected readonly property = signal('color');
  protected readonly state = signal<OverrideState | null>(null);
  protected readonly key = signal('');
  protected readonly css = signal('');
  protected readonly properties = PROPERTIES.map((property) => ({ property, label: say(propertyTold(property)) }));
  protected readonly states: { state: OverrideState | null; label: string }[] = [
    { state: null, label: wordsOf('requests.every-state') },
    { state: 'rest', label: wordsOf('requests.rest') },
    { state: 'hover', label: wordsOf('requests.hovered') },
    { state: 'focus', label: wordsOf('requests.focused') },
    { state: 'current', label: wordsOf('requests.as-current-page') },
    { state: 'disabled', label: wordsOf('requests.disabled') },
  ];
  protected readonly values = computed(() => {
    const palette = this.#site.palette();
    return [
      { key: '', label: wordsOf('requests.css-value') },
      ...rolesInOrder(palette)
        .filter((role) => palette.roles.some((fill) => fill.role === role))
        .map((role) => ({ key: `role ${role}`, label: roleWords(role) })),
      ...palette.swatches.map(({ id, name }) => ({ key: `swatch ${id}`, label: name })),
    ];
  });
  protected readonly look = computed((): RequestLook | null => {
    const [selector, css] = [this.selector().trim(), this.css().trim()];
    const value = this.#valueOf(this.key(), css);
    return selector === '' || !value ? null : { selector, property: this.property(), value, state: this.state() };
  });

  #valueOf(key: string, css: string): OverrideValue | null {
    if (key === '') return css === '' ? null : { kind: 'literal', css };
    const palette = this.#site.palette();
    const role = palette.roles.find((fill) => key === `role ${fill.role}`);
    if (role) return { kind: 'role', role: role.role, shade: 0 };
    const swatch = palette.swatches.find(({ id }) => key === `swatch ${id}`);
    return swatch ? { kind: 'swatch', swatchId: swatch.id, shade: 0 } : null;
  }

  protected name(): void {
    const look = this.look();
    if (!look) return;
    this.named.emit(look);
    this.isOpen.set(false);
    this.selector.set('');
    this.css.set('');
  }
}
