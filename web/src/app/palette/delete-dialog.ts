import { stateWords } from '../shared/ui/state-words';
import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { PaletteRequest } from '@upper-veneer/contract';
import type { Swatch } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Select } from 'primeng/select';
import { rolesFilledBy, usesOf, withoutSwatch } from '../shared/site/palette-edits';
import { SiteStore } from '../shared/site/site-store';

/** Asks before a swatch goes that is used: lists where, and who takes its place. */
@Component({
  selector: 'uv-delete-dialog',
  imports: [Button, Dialog, FormsModule, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog appendTo="self" [visible]="true" (visibleChange)="closed.emit()" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '540px' }" [header]="wordsOf('palette.delete', { name: swatch().name })">
      <div class="form">
        @if (roles().length > 0) { <p i18n>It fills {{ roles().join(', ') }}.</p> }
        @if (uses().length > 0) {
          <p i18n>It is used in {{ uses().length }} {uses().length, plural, =1 {place} other {places}}:</p>
          <ul class="uv-scroll">
            @for (use of uses(); track use.id) {
              <li>
                <code class="uv-mono" [title]="use.selector">{{ use.selector }}</code>
                <span>{{ use.property }}{{ use.state === 'rest' ? '' : ', ' + stateWords(use.state) }}</span>
                <span class="uv-soft">{{ use.where }}</span>
              </li>
            }
          </ul>
        }
        <div class="heir"><ng-container i18n>Let </ng-container><p-select
          [options]="heirs()" optionLabel="name" optionValue="id" [ngModel]="heir()" (ngModelChange)="heir.set($event)"
          size="small" ariaLabel="What takes its place" i18n-ariaLabel
          /> <ng-container i18n> take its place</ng-container></div>
        <p class="uv-soft">{{ heir() === null ? wordsOf('palette.places-keep-its-colour') : wordsOf('palette.places-roles-change-once') }}</p>
        <div class="acts"><p-button label="Cancel" i18n-label [text]="true" (onClick)="closed.emit()" /><p-button [label]="wordsOf('palette.delete', { name: swatch().name })" (onClick)="decided.emit(request())" /></div>
      </div>
    </p-dialog>
  `,
  styles: `
    .form { display: grid; gap: 8px; }
    ul { max-height: 220px; margin: 0; padding: 0; list-style: none; border: 1px solid var(--uv-line); }
    li { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 12px; padding: 4px 8px; border-bottom: 1px solid var(--uv-line); font-size: 12.5px; }
    code { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .heir { display: flex; align-items: center; gap: 8px; }
    .acts { display: flex; justify-content: flex-end; gap: 8px; }
  `,
})
export class DeleteDialog {
  protected readonly stateWords = stateWords;
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly swatch = input.required<Swatch>();
  readonly closed = output();
  readonly decided = output<PaletteRequest>();

  protected readonly heir = signal<number | null>(null);
  protected readonly roles = computed(() => rolesFilledBy(this.#site.palette(), this.swatch().id));
  protected readonly uses = computed(() => {
    const site = this.#site.site();
    return usesOf(this.#site.palette(), this.#site.overrides(), this.swatch().id).map((override) => ({
      ...override,
      where:
        site?.parts.find(({ id }) => id === override.partId)?.name ??
        site?.pages.find(({ id }) => id === override.pageId)?.name ??
        '',
    }));
  });
  protected readonly heirs = computed<{ readonly id: number | null; readonly name: string }[]>(() => [
    { id: null, name: wordsOf('palette.plain-values') },
    ...this.#site.palette().swatches.filter(({ id }) => id !== this.swatch().id),
  ]);
  protected readonly request = computed(() =>
    withoutSwatch(this.#site.palette(), this.#site.overrides(), this.swatch().id, this.heir()),
  );
}
