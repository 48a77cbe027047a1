import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { Button } from 'primeng/button';
import { CensusStore } from '../../shared/census/census-store';

/** Colours the site paints that the palette does not have, most of it first. */
@Component({
  selector: 'uv-site-source',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @switch (census.state().status) {
      @case ('counting') { <p class="uv-soft" role="status">{{ doing() }}…</p> }
      @case ('counted') {
        <p class="uv-soft">{{ rows().length === 0 ? wordsOf('palette.every-colour-site-palette') : wordsOf('palette.painted-site-not-palette') }}</p>
        <ul>
          @for (color of rows(); track color.hex) {
            <li><i [style.background]="color.hex"></i><span class="uv-mono">{{ color.hex }}</span><span class="uv-soft">{{ color.uses[0].use }}, {{ color.elements }}×</span><button type="button" [attr.aria-label]="wordsOf('palette.lay-shelf', { hex: color.hex })" (click)="picked.emit({ hex: color.hex, basis: wordsOf('palette.painted-on-site') })" i18n>Shelf</button><button type="button" [attr.aria-label]="wordsOf('palette.add-palette', { hex: color.hex })" (click)="added.emit(color.hex)" i18n>Add</button></li>
          }
        </ul>
      }
      @default { <p class="uv-soft" i18n>The census counts every colour the site paints.</p><p-button label="Count the colours" i18n-label [outlined]="true" size="small" (onClick)="census.count()" /> }
    }
  `,
  styles: `
    :host { display: grid; gap: 8px; align-content: start; }
    p { font-size: 12.5px; }
    ul { display: grid; gap: 4px; margin: 0; padding: 0; list-style: none; }
    li { display: grid; grid-template-columns: 26px 76px minmax(0, 1fr) auto auto; align-items: center; gap: 8px; font-size: 12.5px; }
    i { height: 22px; border: 1px solid color-mix(in srgb, var(--uv-ink) 35%, transparent); }
    li .uv-soft { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    button { padding: 1px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); cursor: pointer; }
    button:hover { border-color: var(--uv-ink); }
  `,
})
export class SiteSource {
  protected readonly wordsOf = wordsOf;

  protected readonly census = inject(CensusStore);
  readonly picked = output<{ readonly hex: string; readonly basis: string }>();
  readonly added = output<string>();

  protected readonly rows = computed(() =>
    this.census
      .colors()
      .filter(({ standing, exception, hex }) => standing.kind !== 'brand' && exception === '' && hex.length === 7)
      .slice(0, 60),
  );
  protected readonly doing = computed(() => {
    const state = this.census.state();
    return state.status === 'counting' ? state.doing : '';
  });
}
