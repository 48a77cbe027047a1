import { spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { brandStandingOf, colorOfCss } from '@upper-veneer/core';
import type { PictureInks } from '../../shared/picture/picture-api';
import { SiteStore } from '../../shared/site/site-store';

/** The distinct inks of a picture with their shares, each a press away from the palette. */
@Component({
  selector: 'uv-ink-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (ink of rows(); track ink.hex) {
        <li>
          <i [style.background]="ink.hex"></i><span class="uv-mono">{{ ink.hex }}</span>
          <span class="bar" [title]="ink.words"><span class="uv-grain" [style.width.%]="ink.share * 100"></span></span>
          @if (ink.swatch) {
            <span class="name" [title]="ink.swatch">{{ ink.swatch }}</span>
          } @else {
            <button
              type="button" [attr.aria-label]="wordsOf('palette.add-palette', { hex: ink.hex })"
              (click)="added.emit(ink.hex)" i18n>Add</button>
          }
        </li>
      }
    </ul>
    <p class="uv-soft">{{ summary() }}</p>
  `,
  styles: `
    ul { display: grid; gap: 5px; margin: 0; padding: 0; list-style: none; }
    li { display: grid; grid-template-columns: 26px 66px minmax(0, 1fr) 62px; align-items: center; gap: 8px; }
    i { height: 22px; border: 1px solid color-mix(in srgb, var(--uv-ink) 35%, transparent); }
    .bar { height: 8px; background: var(--uv-line); }
    .bar span { display: block; height: 100%; min-width: 2px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; text-align: right; }
    button { justify-self: end; padding: 1px 10px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); font-size: 12.5px; cursor: pointer; }
    button:hover { border-color: var(--uv-ink); }
    p { margin-top: 6px; font-size: 12px; }
  `,
})
export class InkList {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly inks = input.required<PictureInks>();
  /** Emits a colour for the palette. */
  readonly added = output<string>();

  protected readonly rows = computed(() =>
    this.inks()
      .inks.slice(0, 16)
      .map((ink) => {
        const color = colorOfCss(ink.hex);
        const standing = color ? spoken(brandStandingOf(color, this.#site.palette())) : null;
        return {
          ...ink,
          swatch: standing?.kind === 'brand' ? standing.nearest : '',
          words: wordsOf('palette.inked-pixels-lies-along', {
            percent: (100 * ink.share).toFixed(1),
            case: ink.isGround ? 'yes' : 'no',
          }),
        };
      }),
  );
  protected readonly summary = computed(() => {
    const { inks, edgePixels, clearPixels } = this.inks();
    const count =
      inks.length === 0
        ? wordsOf('palette.no-distinct-ink')
        : wordsOf('palette.ink-inks', {
            inks: inks.length,
            case: inks.length > 16 ? 'yes' : 'no',
            words: wordsOf('palette.16-largest-shown'),
          });
    return wordsOf('palette.edge-pixels-set-aside', {
      count,
      edgePixels,
      case: clearPixels > 0 ? 'yes' : 'no',
    });
  });
}
