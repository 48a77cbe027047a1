import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { PaletteRequest } from '@upper-veneer/contract';
import { colorOfCss } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { toRequest } from '../shared/site/palette-edits';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';

/** Colours of an older brand: what is left of them anywhere, or of shades of them, Proof names and mends. */
@Component({
  selector: 'uv-old-family',
  imports: [Button, ColorChip, FormsModule, InputText],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>Old family</h2><span class="uv-soft" i18n>what is left of it, Proof names under Is ours</span></header>
    <ul>
      @for (css of colors(); track css) {
        <li><uv-color-chip [color]="css" /><code class="uv-mono" [title]="css">{{ css }}</code><p-button label="Take out" i18n-label [text]="true" size="small" [ariaLabel]="wordsOf('palette.take-out-old-family', { css: css })" (onClick)="put(without(css), wordsOf('palette.take-out-old-family', { css: css }))" /></li>
      } @empty { <li class="uv-soft" i18n>None is named. Colours of the brand before this one belong here: all that is within ΔE2000 10 of one counts as left of it.</li> }
    </ul>
    <form (ngSubmit)="add()">
      <input pInputText pSize="small" class="uv-mono" name="color" autocomplete="off" spellcheck="false" placeholder="colour that is to go" i18n-placeholder aria-label="Colour of the old family" i18n-aria-label [attr.aria-invalid]="problem() !== ''" [ngModel]="text()" (ngModelChange)="text.set($event)" />
      <p-button type="submit" label="Name it" i18n-label [outlined]="true" size="small" [disabled]="text().trim() === '' || problem() !== ''" />
    </form>
    <p class="uv-soft" role="status">{{ problem() }}</p>
  `,
  styles: `
    :host { display: grid; gap: 8px; margin-top: 20px; }
    header { display: flex; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; font-size: 13.5px; }
    ul { margin: 0; padding: 0; list-style: none; background: var(--uv-paper); border: 1px solid var(--uv-line); }
    li { display: grid; grid-template-columns: 36px minmax(0, 1fr) auto; align-items: center; gap: 8px; min-height: 34px; padding: 2px 6px 2px 10px; border-bottom: 1px solid var(--uv-line); }
    li.uv-soft { display: block; padding: 8px 10px; }
    code { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    form { display: flex; gap: 6px; }
    form input { flex: 1; min-width: 0; }
  `,
})
export class OldFamily {
  protected readonly wordsOf = wordsOf;

  readonly changed = output<PaletteRequest>();
  readonly #site = inject(SiteStore);
  protected readonly colors = computed(() => this.#site.palette().former ?? []);
  protected readonly text = signal('');
  protected readonly problem = computed(() => {
    const css = this.text().trim();
    if (css === '') return '';
    if (!colorOfCss(css)) return wordsOf('palette.no-colour', { css: css.slice(0, 60) });
    return this.colors().includes(css) ? wordsOf('palette.named-already', { css }) : '';
  });

  protected add(): void {
    const css = this.text().trim();
    if (css === '' || this.problem() !== '') return;
    this.put([...this.colors(), css], wordsOf('palette.old-family', { css }));
    this.text.set('');
  }

  protected without(css: string): readonly string[] {
    return this.colors().filter((own) => own !== css);
  }

  protected put(former: readonly string[], label: string): void {
    this.changed.emit(toRequest(label.slice(0, 200), { ...this.#site.palette(), former }));
  }
}
