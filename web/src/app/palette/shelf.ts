import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { NearestBrand } from '../shared/ui/nearest-brand';
import { Notations } from '../shared/ui/notations';
import { SiteStore } from '../shared/site/site-store';
import { ShelfStore } from './shelf-store';

/** Colours picked along the way, for the palette or to be dropped. */
@Component({
  selector: 'uv-shelf',
  imports: [NearestBrand, Notations],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2 i18n>Shelf</h2>
      <span class="uv-soft">
        @if (shelf.colors().length > 0) {
          <button type="button" class="clear" (click)="shelf.clear()" i18n>clear</button>
        } @else {
          <ng-container i18n> picked on the way </ng-container>
        }
      </span>
    </header>
    <ul>
      @for (color of shelf.colors(); track color.css) {
        <li>
          <button
            type="button" class="chip" [style.background]="color.css"
            [title]="wordsOf('palette.press-add-palette', { css: color.css, from: color.from })"
            [attr.aria-label]="wordsOf('palette.add-from', { css: color.css, from: color.from })" (click)="added.emit(color)"
          ></button>
          <button
            type="button" class="drop" [attr.aria-label]="wordsOf('palette.take-off-shelf', { css: color.css })"
            (click)="shelf.take(color.css)"
          >×</button>
        </li>
      }
    </ul>
    @if (shelf.colors().at(0); as newest) {
      <uv-notations [css]="newest.css" [title]="newest.from" />
      <uv-nearest-brand [css]="newest.css" [palette]="site.palette()" />
    }
  `,
  styles: `
    :host { display: block; padding: 10px 16px 14px; border-top: 1px solid var(--uv-line-strong); }
    header { display: flex; justify-content: space-between; font-size: 12.5px; }
    h2 { font-weight: 700; }
    ul { display: flex; flex-wrap: wrap; gap: 6px; margin: 8px 0 0; padding: 0; list-style: none; max-height: 112px; overflow: auto; }
    li { display: grid; }
    .chip { width: 31px; height: 31px; padding: 0; border: 1px solid color-mix(in srgb, var(--uv-ink) 35%, transparent); border-radius: 0; cursor: pointer; }
    .drop { width: 31px; height: 24px; padding: 0; border: 0; background: none; color: var(--uv-soft); font-size: 13px; line-height: 1; cursor: pointer; opacity: 0; }
    li:hover .drop, li:focus-within .drop { opacity: 1; }
    uv-notations { margin-top: 8px; }
    .clear { padding: 0; border: 0; background: none; color: inherit; text-decoration: underline; cursor: pointer; }
  `,
})
export class Shelf {
  protected readonly wordsOf = wordsOf;

  protected readonly shelf = inject(ShelfStore);
  protected readonly site = inject(SiteStore);
  readonly added = output<{ readonly css: string; readonly from: string }>();
}
