import { say, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  colorOfValue,
  shadeTold,
  hexOf,
  stepsThatGoOn,
  type OverrideValue,
  type Palette,
  type RoleName,
  rolesInOrder,
} from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { ColorChip } from './color-chip';
import { HoldButton } from './hold-button';
import { NudgeColor } from './nudge-color';
import { TypedColorField } from './typed-color';
import { roleTitle } from '../site/role-words';

/** Lightness points of the ladder's steps. */
const STEPS = [24, 16, 8, 0, -6, -12, -18, -24] as const;

/** Gives the chosen cell a role, a swatch, a shade of either, or a typed colour. */
@Component({
  selector: 'uv-value-picker',
  imports: [ColorChip, FormsModule, HoldButton, NudgeColor, Select, TypedColorField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="swatches" role="group" aria-label="Swatches" i18n-aria-label>
      @for (swatch of palette().swatches; track swatch.id) {
        <button
          type="button" class="swatch" [class.current]="isSwatch(swatch.id)" [style.background]="swatch.css"
          [attr.aria-label]="swatch.name" [attr.aria-pressed]="isSwatch(swatch.id)"
          [title]="swatch.name + ' ' + swatch.css" (click)="pick({ kind: 'swatch', swatchId: swatch.id, shade: 0 })"
        ></button>
      } @empty { <span class="uv-soft" i18n>The palette is empty; type a colour.</span> }
    </div>
    <div class="ladder" role="group" [attr.aria-label]="wordsOf('screen.shades', { baseName: baseName() })">
      @for (step of ladder(); track step.shade) {
        <button
          type="button" [class.current]="step.isCurrent" [attr.aria-pressed]="step.isCurrent"
          [style.background]="step.hex" [attr.aria-label]="step.words" [title]="step.words + ' ' + step.hex"
          (click)="pick(step.value)"
        ></button>
      }
    </div>
    <div class="typed">
      <p-select
        [options]="roles()" optionLabel="label" optionValue="role" [ngModel]="roleOf()"
        (ngModelChange)="pickRole($event)" placeholder="Role" i18n-placeholder size="small" scrollHeight="420px" ariaLabel="Role" i18n-ariaLabel
      >
        <ng-template #selectedItem let-option>
          <span class="option"><uv-color-chip [color]="option.hex" />{{ option.label }}</span>
        </ng-template>
        <ng-template #item let-option><span class="option"><uv-color-chip [color]="option.hex" />{{ option.label }}</span></ng-template>
      </p-select>
      @if (canFlash() && roleOf(); as role) {
        <uv-hold-button
          [label]="wordsOf('screen.flash-everything-colours', { baseName: baseName() })" (held)="flashed.emit(role)"
          (released)="released.emit()"
        />
      }
      <uv-typed-color [palette]="palette()" (read)="picked.emit({ kind: 'literal', css: $event })" />
      @if (plainHex() !== null) {
        <button
          type="button" class="nudge" title="Lightness, chroma and hue in fine steps" i18n-title [attr.aria-expanded]="isNudging()"
          (click)="isNudging.set(!isNudging())"
         i18n>Nudge</button>
      }
    </div>
    @if (isNudging() && isBound()) {
      <p class="uv-soft bound" i18n>Nudged, it becomes a plain colour, which follows {{ baseName() }} no longer; undo binds it again.</p>
    }
    @if (isNudging() && plainHex(); as hex) {
      <uv-nudge-color [css]="hex" [of]="cell()" (nudged)="picked.emit({ kind: 'literal', css: $event })" />
    }
  `,
  styles: `
    :host { display: grid; gap: 6px; padding: 8px 16px; border-top: 1px solid var(--uv-line); container-type: inline-size; }
    .swatches { display: flex; flex-wrap: wrap; gap: 5px; }
    .swatch { width: 30px; height: 22px; padding: 0; border: 1px solid color-mix(in srgb, var(--uv-ink) 45%, transparent); cursor: pointer; }
    .swatch.current, .ladder button.current { outline: 2px solid var(--uv-ink); outline-offset: 1px; border-radius: 0; }
    .ladder { display: flex; }
    .ladder button { flex: 1; height: 18px; padding: 0; border: 0; cursor: pointer; }
    .ladder button:focus-visible, .ladder button.current { position: relative; z-index: 1; }
    .typed { display: grid; grid-template-columns: 150px auto minmax(0, 1fr) auto; gap: 8px; align-items: start; }
    .typed uv-typed-color { grid-column: 3; }
    @container (max-width: 300px) { .typed { grid-template-columns: minmax(0, 1fr) auto; } .typed uv-typed-color { grid-column: 1; grid-row: 2; } }
    .bound { margin: 0; font-size: 12.5px; }
    .nudge { height: 32px; padding: 0 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .nudge[aria-expanded='true'] { background: var(--uv-black); color: var(--uv-paper); }
    uv-hold-button { align-self: center; }
    p-select { width: 100%; }
    .option { display: flex; align-items: center; gap: 7px; }
  `,
})
export class ValuePicker {
  protected readonly wordsOf = wordsOf;

  readonly palette = input.required<Palette>();
  /** Value of the override in the chosen cell; `null` when there is none. */
  readonly current = input<OverrideValue | null>(null);
  /** What the value is of: nudging begins anew for another. */
  readonly cell = input<unknown>(null);
  /** Whether there is a page to flash a role on. */
  readonly canFlash = input(true);
  readonly picked = output<OverrideValue>();
  /** Emits the role whose flash is held, and when it is let go. */
  readonly flashed = output<RoleName>();
  readonly released = output();

  protected readonly isNudging = signal(false);
  /** The colour in the cell; `null` where it holds none or several. */
  protected readonly plainHex = computed(() => {
    const current = this.current();
    const color = current && colorOfValue(current, this.palette());
    return color ? hexOf(color) : null;
  });

  /** Whether the cell follows a role or a swatch. */
  protected readonly isBound = computed(() => ['role', 'swatch'].includes(this.current()?.kind ?? ''));

  /** What the ladder shades: the value in the cell, or the one picked last. */
  readonly #base = linkedSignal<OverrideValue | null>(() => this.current());

  protected readonly ladder = computed(() => {
    const base = this.#base() ?? this.#firstSwatch();
    if (base?.kind !== 'role' && base?.kind !== 'swatch') return [];
    const current = this.current();
    const plain = colorOfValue({ ...base, shade: 0, alpha: 1 }, this.palette());
    return (plain ? stepsThatGoOn(plain, STEPS) : STEPS).map((shade) => {
      const value: OverrideValue = { ...base, shade };
      const color = colorOfValue(value, this.palette());
      return {
        shade,
        value,
        hex: color ? hexOf(color) : 'transparent',
        isCurrent:
          (current?.kind === 'role' || current?.kind === 'swatch') &&
          sameBase(current, base) &&
          current.shade === shade,
        words:
          shade === 0
            ? this.baseName()
            : `${this.baseName()}, ${say(shadeTold(shade, colorOfValue({ ...base, shade: 0, alpha: 1 }, this.palette())))}`,
      };
    });
  });
  protected readonly baseName = computed(() => {
    const base = this.#base() ?? this.#firstSwatch();
    if (base?.kind === 'role') return roleTitle(base.role);
    return base?.kind === 'swatch' ? (this.palette().swatches.find(({ id }) => id === base.swatchId)?.name ?? '') : '';
  });
  protected readonly roles = computed(() =>
    [...this.palette().roles]
      .sort((a, b) => rolesInOrder(this.palette()).indexOf(a.role) - rolesInOrder(this.palette()).indexOf(b.role))
      .map(({ role }) => {
        const color = colorOfValue({ kind: 'role', role, shade: 0 }, this.palette());
        return { role, label: roleTitle(role), hex: color ? hexOf(color) : null };
      }),
  );
  protected readonly roleOf = computed(() => {
    const current = this.current();
    return current?.kind === 'role' ? current.role : null;
  });

  protected isSwatch(swatchId: number): boolean {
    const current = this.current();
    return current?.kind === 'swatch' && current.swatchId === swatchId && current.shade === 0;
  }

  protected pick(value: OverrideValue): void {
    this.#base.set(value);
    this.picked.emit(value);
  }

  protected pickRole(role: RoleName | null): void {
    if (role) this.pick({ kind: 'role', role, shade: 0 });
  }

  #firstSwatch(): OverrideValue | null {
    const [first] = this.palette().swatches;
    return first ? { kind: 'swatch', swatchId: first.id, shade: 0 } : null;
  }
}

function sameBase(a: OverrideValue, b: OverrideValue): boolean {
  return (
    (a.kind === 'role' && b.kind === 'role' && a.role === b.role) ||
    (a.kind === 'swatch' && b.kind === 'swatch' && a.swatchId === b.swatchId)
  );
}
