import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { colorOfCss } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';

/** Colours and places that are left alone, with why; bulk work passes them over. */
@Component({
  selector: 'uv-exceptions-list',
  imports: [Button, ColorChip, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>Exceptions</h2><span class="uv-soft" i18n>left alone by all bulk work</span></header>
    <ul>
      @for (entry of rows(); track $index) {
        <li>
          @if (entry.kind === 'color') {
            <uv-color-chip [color]="entry.target" />
          } @else {
            <span class="uv-soft" i18n>place</span>
          }
          <code class="uv-mono" [title]="entry.target">{{ entry.target }}</code>
          <span>{{ entry.reason }}</span>
          <p-button
            label="End" i18n-label [text]="true" size="small"
            [ariaLabel]="wordsOf('palette.end-exception', { target: entry.target })" (onClick)="end($index)" />
        </li>
      } @empty { <li class="uv-soft" i18n>Nothing is left alone yet. A sale red or a warning belongs here, so that no proposal touches it.</li> }
    </ul>
    <form (ngSubmit)="add()">
      <input pInputText pSize="small" class="uv-mono" name="target" autocomplete="off" spellcheck="false" placeholder="colour, or selector of a place" i18n-placeholder aria-label="Colour or selector to leave alone" i18n-aria-label [ngModel]="target()" (ngModelChange)="target.set($event)" />
      <input pInputText pSize="small" name="reason" autocomplete="off" maxlength="200" placeholder="why" aria-label="Reason" i18n-aria-label [ngModel]="reason()" (ngModelChange)="reason.set($event)" />
      <p-button type="submit" label="Leave alone" i18n-label [outlined]="true" size="small" [disabled]="target().trim() === '' || reason().trim() === ''" />
    </form>
  `,
  styles: `
    :host { display: grid; gap: 8px; }
    header { display: flex; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    ul { margin: 0; padding: 0; list-style: none; background: var(--uv-paper); border: 1px solid var(--uv-line); }
    li { display: grid; grid-template-columns: 36px minmax(0, 1fr) minmax(0, 1.4fr) auto; align-items: center; gap: 8px; min-height: 34px; padding: 2px 6px 2px 10px; border-bottom: 1px solid var(--uv-line); }
    li.uv-soft { display: block; padding: 8px 10px; }
    code { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    form { display: flex; gap: 6px; }
    form input { flex: 1; min-width: 0; }
  `,
})
export class ExceptionsList {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  protected readonly rows = computed(() => this.#site.exceptions());
  protected readonly target = signal('');
  protected readonly reason = signal('');

  protected add(): void {
    const target = this.target().trim();
    const kind = colorOfCss(target) ? 'color' : 'place';
    this.#edits
      .putExceptions({
        label: wordsOf('palette.leave-alone', { target }).slice(0, 200),
        exceptions: [
          ...this.rows()
            .filter((entry) => entry.kind !== kind || entry.target !== target)
            .map((entry) => ({ ...entry })),
          { kind, target, reason: this.reason().trim() },
        ],
      })
      .subscribe(() => {
        this.target.set('');
        this.reason.set('');
      });
  }

  protected end(index: number): void {
    this.#edits
      .putExceptions({
        label: wordsOf('palette.end-exception', { target: this.rows()[index].target }).slice(0, 200),
        exceptions: this.rows()
          .toSpliced(index, 1)
          .map((entry) => ({ ...entry })),
      })
      .subscribe();
  }
}
