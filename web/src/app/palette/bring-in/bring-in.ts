import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { NamedColor } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { SelectButton } from 'primeng/selectbutton';
import type { PickedColor } from '../../shared/picture/picture-api';
import { TypedColorField } from '../../shared/ui/typed-color';
import { PictureDesk } from '../../shared/picture/picture-desk';
import { SiteStore } from '../../shared/site/site-store';
import { ShelfStore } from '../shelf-store';
import { FileSource } from './file-source';
import { PageSource } from './page-source';
import { PictureSource } from './picture-source';
import { SiteSource } from './site-source';

interface ScreenPicker {
  open(): Promise<{ readonly sRGBHex: string }>;
}

/** Where colours come into the palette from: a picture, a page, the site's census, typing, a file, the screen. */
@Component({
  selector: 'uv-bring-in',
  imports: [Button, FileSource, FormsModule, PageSource, PictureSource, SelectButton, SiteSource, TypedColorField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <h2 i18n>Bring colours in</h2>
      @if (screenPicker) { <p-button label="Off the screen" i18n-label [text]="true" size="small" (onClick)="pickOffScreen()" /> }
    </div>
    <p-selectbutton
      [options]="sources" optionLabel="label" optionValue="source" [ngModel]="source()"
      (ngModelChange)="source.set($event)" [allowEmpty]="false" size="small" aria-label="Where colours come from" i18n-aria-label
    />
    @switch (source()) {
      @case ('picture') {
        <uv-picture-source
          (picked)="pick($event)" (added)="added.emit({ css: $event, from: desk.picture()?.name ?? wordsOf('palette.from-picture') })"
        />
      }
      @case ('page') { <uv-page-source (picked)="pick($event)" /> }
      @case ('site') { <uv-site-source (picked)="pick($event)" (added)="added.emit({ css: $event, from: wordsOf('palette.painted-on-site') })" /> }
      @case ('typed') {
        <uv-typed-color [palette]="site.palette()" (read)="added.emit({ css: $event, from: wordsOf('palette.from-typing') })" />
        <p class="uv-soft" i18n>Hex with or without #, rgb(), three numbers, hsl, hwb, lab, oklch, a name. What reads two ways is asked.</p>
      }
      @case ('file') { <uv-file-source (added)="named.emit($event)" /> }
    }
  `,
  styles: `
    :host { display: grid; gap: 9px; align-content: start; }
    .head { display: flex; align-items: center; justify-content: space-between; height: 26px; }
    h2 { font-weight: 700; }
    p { font-size: 12.5px; }
  `,
})
export class BringIn {
  protected readonly wordsOf = wordsOf;

  readonly #shelf = inject(ShelfStore);
  protected readonly desk = inject(PictureDesk);
  protected readonly site = inject(SiteStore);
  /** Emits the CSS of a colour for the palette, and where it came from. */
  readonly added = output<{ readonly css: string; readonly from: string }>();
  readonly named = output<readonly NamedColor[]>();

  protected readonly sources = [
    { source: 'picture', label: wordsOf('palette.picture') },
    { source: 'page', label: wordsOf('palette.page') },
    { source: 'site', label: wordsOf('palette.site') },
    { source: 'typed', label: wordsOf('palette.typed') },
    { source: 'file', label: wordsOf('palette.file') },
  ];
  protected readonly source = signal('picture');
  /** The browser's own picker, where it has one. */
  protected readonly screenPicker = (window as { EyeDropper?: new () => ScreenPicker }).EyeDropper;

  protected pick({ hex, basis }: PickedColor): void {
    this.#shelf.put(hex, basis);
  }

  protected pickOffScreen(): void {
    if (!this.screenPicker) return;
    // Leaving it without a colour is no failure.
    void new this.screenPicker().open().then(
      ({ sRGBHex }) => this.#shelf.put(sRGBHex, wordsOf('palette.picked-off-screen')),
      () => undefined,
    );
  }
}
