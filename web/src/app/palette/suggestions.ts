import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  resource,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  HARMONIES,
  ROLE_NAMES,
  colorOfCss,
  colorOfValue,
  harmonyOf,
  hexOf,
  proposeRoles,
  readyPalette,
  type Color,
  type Lighting,
  type ReadyPalette,
  type RoleName,
  type Swatch,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { SiteStore } from '../shared/site/site-store';
import { ShelfStore } from './shelf-store';

type Colors = Readonly<Partial<Record<RoleName, Color>>>;

/** Suggestions: a whole set of roles from three colours, harmonies of the chosen swatch, ready palettes that pass. */
@Component({
  selector: 'uv-suggestions',
  imports: [Button, FormsModule, Select, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section>
      <header><h2>All roles from three colours</h2><p-selectbutton [options]="lightings" optionLabel="label" optionValue="lighting" [ngModel]="lighting()" (ngModelChange)="lighting.set($event)" [allowEmpty]="false" size="small" aria-label="Lighting" /></header>
      <div class="start">
        @for (part of parts; track part.key) {
          <span>{{ part.label }} <p-select [options]="$any(choices())" optionLabel="name" optionValue="css" [ngModel]="start()[part.key]" (ngModelChange)="setStart(part.key, $event)" placeholder="choose" size="small" [ariaLabel]="part.label">
            <ng-template #item let-option><span class="option"><i [style.background]="option.css"></i>{{ option.name }}</span></ng-template>
          </p-select></span>
        }
      </div>
      @if (proposal(); as colors) {
        <div class="roles">@for (role of rolesOf(colors); track role.role) { <span class="role"><i [style.background]="role.hex"></i><span>{{ role.label }}</span></span> }</div>
        <div class="acts"><span class="uv-soft">Every pair that is meant to meet reaches its ratio.</span><p-button label="Take these roles" size="small" (onClick)="taken.emit({ colors, label: 'Roles from three colours' })" /></div>
      }
    </section>
    @if (harmonies().length > 0) {
      <section>
        <header><h2>In harmony with {{ swatch()?.name }}</h2><span class="uv-soft">by hue in OKLCH; press to lay on the shelf</span></header>
        <div class="harmonies">@for (row of harmonies(); track row.name) { <div class="harmony"><span class="uv-soft">{{ row.name }}</span><i class="own" [style.background]="swatch()?.css"></i>@for (hex of row.hexes; track $index) { <button type="button" [style.background]="hex" [title]="hex" [attr.aria-label]="'Lay ' + hex + ' on the shelf'" (click)="shelf.put(hex, row.name + ' to ' + (swatch()?.name ?? ''))"></button> }</div> }</div>
      </section>
    }
    <section>
      <header><h2>Ready palettes</h2><span class="uv-soft">{{ readyWords() }}</span></header>
      <ul>@for (ready of shownReady(); track $index) { <li><span class="strip">@for (hex of ready.hexes; track $index) { <i [style.background]="hex"></i> }</span><p-button label="Take" [text]="true" size="small" [ariaLabel]="'Take the palette ' + ready.hexes.join(', ')" (onClick)="taken.emit({ colors: ready.roles, label: 'Take a ready palette' })" /></li> }</ul>
      @if (ready().length > shownReady().length) { <p-button label="More" [text]="true" size="small" (onClick)="many.set(many() + 12)" /> }
    </section>
  `,
  styles: `
    :host { display: grid; gap: 16px; }
    section { display: grid; gap: 7px; }
    header { display: flex; align-items: center; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    .start { display: flex; flex-wrap: wrap; gap: 8px 16px; }
    .start span { display: flex; align-items: center; gap: 7px; }
    .start p-select { width: 130px; }
    i { display: block; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); }
    .option { display: flex; align-items: center; gap: 8px; }
    .option i { width: 18px; height: 14px; }
    .roles { display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 4px; }
    .role { display: grid; font-size: 12px; }
    .role i { height: 30px; }
    .acts { display: flex; align-items: center; justify-content: space-between; font-size: 12px; }
    .harmonies { display: grid; grid-template-columns: 1fr 1fr; gap: 5px 22px; }
    .harmony { display: grid; grid-template-columns: 110px; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); align-items: center; font-size: 12.5px; }
    .harmony button, .harmony i { height: 26px; padding: 0; border: 1px solid color-mix(in srgb, var(--uv-ink) 25%, transparent); border-radius: 0; cursor: pointer; }
    .harmony .own { border: 2px solid var(--uv-ink); cursor: default; }
    ul { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 4px 12px; margin: 0; padding: 0; list-style: none; }
    li { display: flex; align-items: center; }
    .strip { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); flex: 1; height: 24px; }
    .strip i { height: 24px; border-width: 1px 0; }
  `,
})
export class Suggestions {
  readonly #site = inject(SiteStore);
  protected readonly shelf = inject(ShelfStore);
  readonly swatch = input<Swatch | null>(null);
  /** Emits colours by role that are to become the palette's. */
  readonly taken = output<{ readonly colors: Colors; readonly label: string }>();

  protected readonly lightings = [
    { lighting: 'light', label: 'Light' },
    { lighting: 'inverted', label: 'Inverted' },
  ];
  protected readonly parts = [
    { key: 'ground', label: 'Ground' },
    { key: 'ink', label: 'Ink' },
    { key: 'accent', label: 'Accent' },
  ] as const;
  protected readonly lighting = signal<Lighting>('light');
  protected readonly many = signal(12);
  protected readonly choices = computed(() => [
    ...this.#site.palette().swatches.map(({ name, css }) => ({ name, css })),
    ...this.shelf.colors().map(({ css }) => ({ name: `${css} (shelf)`, css })),
  ]);
  protected readonly start = linkedSignal<Readonly<Record<'ground' | 'ink' | 'accent', string | null>>>(() => {
    const palette = this.#site.palette();
    const cssOf = (role: RoleName): string | null =>
      palette.swatches.find(({ id }) => id === palette.roles.find((fill) => fill.role === role)?.swatchId)?.css ?? null;
    return { ground: cssOf('ground'), ink: cssOf('ink'), accent: cssOf('accent') };
  });
  protected readonly proposal = computed<Colors | null>(() => {
    const { ground, ink, accent } = this.start();
    const [under, read, strong] = [ground, ink, accent].map((css) => (css === null ? null : colorOfCss(css)));
    return under && read && strong ? proposeRoles({ ground: under, ink: read, accent: strong }, this.lighting()) : null;
  });
  protected readonly harmonies = computed(() => {
    const color = colorOfValue({ kind: 'swatch', swatchId: this.swatch()?.id ?? 0, shade: 0 }, this.#site.palette());
    return color
      ? HARMONIES.map((name) => ({ name, hexes: harmonyOf(color, name).map(hexOf) })).filter(
          ({ hexes }) => hexes.length > 0,
        )
      : [];
  });
  readonly #sets = resource({
    loader: async () => (await import('nice-color-palettes/500.json')).default as readonly (readonly string[])[],
  });
  protected readonly ready = computed(() => {
    const sets = this.#sets.hasValue() ? this.#sets.value() : [];
    return sets.flatMap((hexes): { readonly hexes: readonly string[]; readonly roles: ReadyPalette['roles'] }[] => {
      const found = readyPalette(hexes.flatMap((hex) => colorOfCss(hex) ?? []));
      return found ? [{ hexes, roles: found.roles }] : [];
    });
  });
  protected readonly shownReady = computed(() => this.ready().slice(0, this.many()));
  protected readonly readyWords = computed(() =>
    this.#sets.hasValue()
      ? `${this.ready().length} of ${this.#sets.value().length} pass: palest under, darkest read, strongest as accent`
      : 'reading',
  );

  protected setStart(key: 'ground' | 'ink' | 'accent', css: string): void {
    this.start.set({ ...this.start(), [key]: css });
  }

  protected rolesOf(colors: Colors): { readonly role: RoleName; readonly label: string; readonly hex: string }[] {
    return ROLE_NAMES.flatMap((role) => {
      const color = colors[role];
      return color ? [{ role, label: role.replace('-', ' '), hex: hexOf(color) }] : [];
    });
  }
}
