import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Select } from 'primeng/select';
import { PageDrawing } from '../../shared/picture/page-drawing';
import type { PickedColor } from '../../shared/picture/picture-api';
import { PictureDesk } from '../../shared/picture/picture-desk';
import { SiteStore } from '../../shared/site/site-store';
import { Loupe } from './loupe';

const WIDTH = 1280;

/** Colours off a page of the site, drawn as a picture so that the loupe can read its pixels. */
@Component({
  selector: 'uv-page-source',
  imports: [Button, Dialog, FormsModule, Loupe, Select],
  providers: [PictureDesk],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="from">
      <p-select [options]="$any(site.site()?.pages ?? [])" optionLabel="name" optionValue="id" [ngModel]="pageId()" (ngModelChange)="open($event)" placeholder="Choose a page" i18n-placeholder size="small" ariaLabel="Page under the loupe" i18n-ariaLabel />
      <p-button label="Larger" i18n-label [outlined]="true" size="small" [disabled]="!desk.picture()" (onClick)="isLarge.set(true)" />
    </div>
    @if (desk.problem(); as text) { <p class="problem" role="alert">{{ text }}</p> }
    @if (desk.progress() !== null) { <p class="uv-soft" role="status" i18n>Drawing the page…</p> }
    @if (desk.picture() && !isLarge()) { <uv-loupe (picked)="picked.emit($event)" /> }
    @if (!desk.picture() && desk.progress() === null) {
      <p
        class="uv-soft"
        i18n>A page is drawn here as a picture. Point to read a pixel or a square of it, or draw a box around thin text to get its true colour.</p>
    }
    <p-dialog appendTo="self" [visible]="isLarge()" (visibleChange)="isLarge.set($event)" [modal]="true" [draggable]="false" closeAriaLabel="Close" i18n-closeAriaLabel [style]="{ width: '96vw', maxWidth: '1240px' }" [header]="desk.picture()?.name ?? ''">
      @if (isLarge()) { <div class="large"><uv-loupe (picked)="picked.emit($event)" startMode="text" fit="width" /></div> }
    </p-dialog>
  `,
  styles: `
    :host { display: grid; gap: 8px; align-content: start; }
    .from { display: flex; gap: 6px; }
    .from p-select { flex: 1; min-width: 0; }
    .problem { color: var(--uv-fails); overflow-wrap: anywhere; }
    p { font-size: 12.5px; }
  `,
})
export class PageSource {
  protected readonly site = inject(SiteStore);
  protected readonly desk = inject(PictureDesk);
  readonly picked = output<PickedColor>();

  protected readonly pageId = signal<number | null>(null);
  protected readonly isLarge = signal(false);

  protected open(pageId: number): void {
    this.pageId.set(pageId);
    const site = this.site.site();
    const page = site?.pages.find(({ id }) => id === pageId);
    if (!site || !page) return;
    const framed = {
      url: `/frame/sites/${site.id}/pages/${pageId}/?v=${site.draft.structure}`,
      veneerPlace: site.veneerPlace,
      frameCss: this.site.veneer().frameCss,
      amendments: new Map(),
      scheme: 'light' as const,
    };
    void this.desk.openDrawn(page.name, async () => {
      const drawing = await PageDrawing.open(framed, page.name, WIDTH);
      try {
        return await drawing.draw();
      } finally {
        drawing.close();
      }
    });
  }
}
