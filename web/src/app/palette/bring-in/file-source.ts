import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { PALETTE_FORMATS, readPaletteFile, type NamedColor, type PaletteFile } from '@upper-veneer/core';
import { spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { Button } from 'primeng/button';
import { SiteStore } from '../../shared/site/site-store';
import { ColorChip } from '../../shared/ui/color-chip';
import { downloadText } from '../../shared/ui/download-text';

const MOST_BYTES = 2 * 1024 * 1024;

/** Palette files, read and written. */
@Component({
  selector: 'uv-file-source',
  imports: [Button, ColorChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  template: `
    <p-button label="Read a palette file…" i18n-label [outlined]="true" size="small" (onClick)="field.click()" />
    <input #field type="file" accept=".json,.tokens,.gpl,.css,.txt" hidden aria-label="Palette file" i18n-aria-label (change)="choose(field)" />
    <p class="uv-soft" i18n>W3C design tokens, GIMP palettes and CSS custom properties; the kind is told by what is in it.</p>
    @if (problem(); as text) { <p class="problem" role="alert">{{ text }}</p> }
    @if (read(); as file) {
      <div class="found">
        <span i18n>{{ file.colors.length }} {file.colors.length, plural, =1 {colour} other {colours}} in {{ name() }}</span>
        @if (file.colors.length > 0) {
          <p-button label="Add all" i18n-label size="small" (onClick)="added.emit(file.colors)" />
        }
      </div>
      <ul class="uv-scroll">
        @for (color of file.colors; track $index) {
          <li>
            <uv-color-chip [color]="color.css" />
            <span class="name" [title]="color.name">{{ color.name }}</span>
            <span class="uv-mono">{{ color.css }}</span>
            <button
              type="button" [attr.aria-label]="wordsOf('palette.add', { name: color.name })"
              (click)="added.emit([color])" i18n>Add</button>
          </li>
        }
      </ul>
      @for (problem of file.problems; track $index) { <p class="problem">{{ problem.where }}: {{ problem.reason }}</p> }
    }
    <h3 i18n>Write this palette</h3>
    <div class="formats">
      @for (format of formats; track format.name) {
        <p-button
          [label]="format.name" [outlined]="true" size="small" [disabled]="site.palette().swatches.length === 0"
          (onClick)="write(format)" />
      }
    </div>
  `,
  styles: `
    :host { display: grid; gap: 8px; align-content: start; }
    p { font-size: 12.5px; }
    .problem { padding: 5px 8px; border-left: 4px solid var(--uv-fails); background: var(--uv-paper); overflow-wrap: anywhere; }
    .found { display: flex; align-items: center; justify-content: space-between; font-weight: 600; }
    ul { max-height: 240px; margin: 0; padding: 0; list-style: none; border: 1px solid var(--uv-line); background: var(--uv-paper); }
    li { display: grid; grid-template-columns: auto minmax(0, 1fr) auto auto; align-items: center; gap: 8px; padding: 3px 8px; border-bottom: 1px solid var(--uv-line); font-size: 12.5px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    li button { padding: 0 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: none; cursor: pointer; }
    h3 { margin-top: 8px; font-weight: 700; }
    .formats { display: flex; flex-wrap: wrap; gap: 6px; }
  `,
})
export class FileSource {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  /** Emits colours with their names for the palette. */
  readonly added = output<readonly NamedColor[]>();

  protected readonly formats = PALETTE_FORMATS;
  protected readonly read = signal<Spoken<PaletteFile> | null>(null);
  protected readonly name = signal('');
  protected readonly problem = signal('');

  protected choose(field: HTMLInputElement): void {
    const file = field.files?.[0];
    field.value = '';
    if (file) void this.#open(file);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    const file = event.dataTransfer?.files[0];
    if (file) void this.#open(file);
  }

  protected write(format: (typeof PALETTE_FORMATS)[number]): void {
    const site = this.site.site();
    const text = format.write(this.site.palette(), {
      title: site?.name ?? '',
      prefix: site?.prefix ?? 'brand',
      names: site?.names,
    });
    downloadText(
      `${
        (site?.name ?? 'palette')
          .toLowerCase()
          .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
          .replaceAll(/^-|-$/g, '') || 'palette'
      }${format.extension}`,
      format.mediaType,
      text,
    );
  }

  async #open(file: File): Promise<void> {
    this.read.set(null);
    this.name.set(file.name);
    this.problem.set(file.size > MOST_BYTES ? wordsOf('palette.larger-than-2-mb', { name: file.name }) : '');
    if (this.problem() !== '') return;
    const result = spoken(readPaletteFile(file.name, await file.text()));
    this.read.set(result);
    if (result.colors.length === 0 && result.problems.length === 0)
      this.problem.set(wordsOf('palette.holds-no-colour-any', { name: file.name }));
  }
}
