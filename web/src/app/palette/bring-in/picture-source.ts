import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { PictureDesk } from '../../shared/picture/picture-desk';
import { SiteStore } from '../../shared/site/site-store';
import type { PickedColor } from '../../shared/picture/picture-api';
import { InkList } from './ink-list';
import { Loupe } from './loupe';

/** Colours out of a picture: its inks, and what the loupe picks. */
@Component({
  selector: 'uv-picture-source',
  imports: [Button, FormsModule, InkList, Loupe, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:paste)': 'paste($event)', '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  template: `
    <div class="from">
      <p-select [options]="$any(stored())" optionLabel="path" optionValue="path" [ngModel]="null" (ngModelChange)="desk.openStored($event)" placeholder="A picture of the site" i18n-placeholder size="small" ariaLabel="A picture of the site" i18n-ariaLabel [filter]="stored().length > 12" filterBy="path" emptyMessage="The site holds no picture" i18n-emptyMessage />
      <p-button label="File…" i18n-label [outlined]="true" size="small" (onClick)="field.click()" />
      <input #field type="file" accept="image/png,image/jpeg,image/webp,image/gif,image/svg+xml,.svg" hidden aria-label="Picture file" i18n-aria-label (change)="choose(field)" />
    </div>
    @if (desk.problem(); as text) { <p class="problem" role="alert">{{ text }}</p> }
    @if (desk.picture(); as picture) {
      <uv-loupe (picked)="picked.emit($event)" />
      <p class="uv-soft name" [title]="picture.name">{{ picture.name }}, {{ picture.width }} × {{ picture.height }}</p>
    } @else {
      <div class="empty"><p i18n>Drop a logo or a screenshot here, or paste one.</p><p class="uv-soft" i18n>PNG, JPEG, WebP, GIF or SVG; it stays in this browser.</p></div>
    }
    @if (desk.progress() !== null) {
      <div class="work" role="status"><span i18n>Counting the inks</span><span class="track" role="progressbar" aria-label="Inks" i18n-aria-label [attr.aria-valuenow]="percent()"><span class="uv-grain" [style.width.%]="percent()"></span></span><p-button label="Stop" i18n-label [text]="true" size="small" (onClick)="desk.stop()" /></div>
    }
    @if (desk.inks(); as inks) { <uv-ink-list [inks]="inks" (added)="added.emit($event)" /> }
  `,
  styles: `
    :host { display: grid; gap: 8px; align-content: start; }
    .from { display: flex; gap: 6px; }
    .from p-select { flex: 1; min-width: 0; }
    .empty { display: grid; gap: 4px; place-content: center; height: 150px; padding: 0 20px; border: 1px dashed var(--uv-line-strong); text-align: center; }
    .problem { padding: 6px 8px; border-left: 4px solid var(--uv-fails); background: var(--uv-paper); font-size: 12.5px; overflow-wrap: anywhere; }
    .name { font-size: 12px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .work { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; align-items: center; gap: 8px; font-size: 12.5px; }
    .track { height: 8px; background: var(--uv-line); }
    .track span { display: block; height: 100%; }
  `,
})
export class PictureSource {
  protected readonly desk = inject(PictureDesk);
  readonly #site = inject(SiteStore);
  readonly picked = output<PickedColor>();
  readonly added = output<string>();

  protected readonly stored = computed(() => this.#site.site()?.pictures ?? []);
  protected readonly percent = computed(() => Math.round(100 * (this.desk.progress() ?? 0)));

  protected choose(field: HTMLInputElement): void {
    const file = field.files?.[0];
    field.value = '';
    if (file) void this.desk.openFile(file, file.name);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    const file = event.dataTransfer?.files[0];
    if (file) void this.desk.openFile(file, file.name);
  }

  protected paste(event: ClipboardEvent): void {
    const file = [...(event.clipboardData?.files ?? [])].find(({ type }) => type.startsWith('image/'));
    if (!file) return;
    event.preventDefault();
    event.stopPropagation();
    void this.desk.openFile(file, file.name || wordsOf('palette.pasted-picture'));
  }
}
