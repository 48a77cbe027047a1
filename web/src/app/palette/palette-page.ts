import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { ROLE_NAMES, colorOfCss, notationsOf, type RoleName } from '@upper-veneer/core';
import type { PaletteRequest } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { from, switchMap } from 'rxjs';
import type { PaletteReport } from '../shared/engine/engine-api';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import { TypedColorField } from '../shared/ui/typed-color';
import { OtherEyes } from './other-eyes';
import { PairTable } from './pair-table';
import { usesOf, withEdit, withMove, withRole, withSwatch, withoutSwatch } from './palette-edits';
import { ShadeLadder } from './shade-ladder';

const COPIED_MS = 1400;

/** The Palette: brand swatches, the jobs they have, and how they go together. */
@Component({
  selector: 'uv-palette-page',
  imports: [Button, FormsModule, InputText, OtherEyes, PairTable, Select, ShadeLadder, TypedColorField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './palette-page.html',
  styleUrl: './palette-page.scss',
})
export class PalettePage {
  protected readonly store = inject(SiteStore);
  readonly #engine = inject(Engine);

  protected readonly palette = this.store.palette;
  protected readonly selectedId = linkedSignal<number>(() => this.palette().swatches[0]?.id ?? 0);
  protected readonly swatch = computed(() => this.palette().swatches.find(({ id }) => id === this.selectedId()) ?? this.palette().swatches[0] ?? null);
  protected readonly chosenId = computed(() => this.swatch()?.id ?? 0);
  protected readonly name = linkedSignal(() => this.swatch()?.name ?? '');
  protected readonly copied = signal('');
  protected readonly isEditing = linkedSignal({ source: () => this.swatch()?.id, computation: () => false });

  protected readonly rows = computed(() => this.palette().swatches.map((swatch) => ({
    ...swatch,
    uses: usesOf(this.palette(), this.store.overrides(), swatch.id).length,
    roles: this.palette().roles.filter(({ swatchId }) => swatchId === swatch.id).map(({ role }) => role.replace('-', ' ')).join(' · ') || 'no role',
  })));
  protected readonly notations = computed(() => {
    const color = colorOfCss(this.swatch()?.css ?? '');
    return color ? notationsOf(color) : [];
  });
  protected readonly uses = computed(() => usesOf(this.palette(), this.store.overrides(), this.swatch()?.id ?? 0));
  protected readonly roles = computed(() => ROLE_NAMES.map((role) => ({ role, label: role.replace('-', ' '), swatchId: this.palette().roles.find((fill) => fill.role === role)?.swatchId ?? null })));
  protected readonly report = toSignal<PaletteReport | null, null>(toObservable(this.palette).pipe(switchMap((palette) => from(this.#engine.remote.judgePalette(palette)))), { initialValue: null });

  protected add(css: string): void {
    this.#store(withSwatch(this.palette(), css), true);
  }

  protected rename(): void {
    const swatch = this.swatch();
    const name = this.name().trim();
    if (swatch && name !== '' && name !== swatch.name) this.#store(withEdit(this.palette(), swatch.id, { name }));
    else this.name.set(swatch?.name ?? '');
  }

  protected recolor(css: string): void {
    const swatch = this.swatch();
    this.isEditing.set(false);
    if (swatch) this.#store(withEdit(this.palette(), swatch.id, { css }));
  }

  protected move(by: -1 | 1): void {
    const swatch = this.swatch();
    const request = swatch ? withMove(this.palette(), swatch.id, by) : null;
    if (request) this.#store(request);
  }

  protected remove(): void {
    const swatch = this.swatch();
    if (swatch) this.#store(withoutSwatch(this.palette(), swatch.id));
  }

  protected fill(role: RoleName, swatchId: number | null): void {
    this.#store(withRole(this.palette(), role, swatchId));
  }

  protected copy(css: string): void {
    void navigator.clipboard.writeText(css).then(() => {
      this.copied.set(css);
      setTimeout(() => this.copied.set(''), COPIED_MS);
    });
  }

  #store(request: PaletteRequest, selectLast = false): void {
    const selected = this.selectedId();
    this.store.putPalette(request).subscribe((draft) => this.selectedId.set(selectLast ? draft.swatches.at(-1)?.id ?? selected : selected));
  }
}
