import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  deliver,
  sectionOf,
  sectionsOf,
  sheetOptionsOf,
  type Delivered,
  type DeliveryFacts,
  type DeliveryWay,
  type TidySheet,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { SiteStore } from '../../shared/site/site-store';
import { downloadText } from '../../shared/ui/download-text';
import { WAYS } from './ways';

const COPIED_MS = 1600;
/** Larger files are not read, bytes. */
const MOST_BYTES = 8 * 1024 * 1024;

/** Where the sheet goes: the text for each place, the steps, and what usually goes wrong there. */
@Component({
  selector: 'uv-where-it-goes',
  imports: [Button, Checkbox, FormsModule, InputText, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>Where it goes</h2>
    <ul>
      @for (row of rows(); track row.way) {
        <li [class.open]="row.way === open()">
          <button type="button" class="row" [attr.aria-expanded]="row.way === open()" (click)="open.set(row.way === open() ? null : row.way)"><strong>{{ row.name }}</strong><span class="uv-soft">{{ row.note }}</span></button>
          <p-button [label]="copied() === row.way ? wordsOf('sheet.copied') : wordsOf('sheet.copy')" [outlined]="true" size="small" [ariaLabel]="wordsOf('sheet.copy-for', { name: row.name })" [disabled]="row.delivered.text === ''" (onClick)="copy(row.delivered)" />
          @if (row.way === open()) {
            <div class="steps">
              <p class="uv-soft">{{ factsOf(row.delivered) }}</p>
              @switch (row.way) {
                @case ('box') {
                  <div class="check">
                    <p-checkbox [binary]="true" inputId="uv-plain" [ngModel]="isPlain()" (ngModelChange)="isPlain.set($event)" />
                    <label for="uv-plain" i18n>plain values, it strips custom properties</label>
                  </div>
                }
                @case ('embed') {
                  <p-select
                    [options]="sections()" optionLabel="name" optionValue="id" [ngModel]="part()"
                    (ngModelChange)="part.set($event)" size="small" ariaLabel="Part that is embedded" i18n-ariaLabel />
                }
                @case ('end') {
                  <div class="file"><label for="uv-existing" i18n>The file as it is now</label><input id="uv-existing" type="file" accept=".css,text/css" (change)="read($event)" /></div>
                  @if (existing(); as own) { <p class="uv-soft" i18n>{{ own.name }}, {{ figure(own.text.length) }} characters</p> }
                }
              }
              @if (problem(); as words) { <p class="problem" role="alert">{{ words }}</p> }
              <ol>@for (step of row.steps; track $index) { <li>{{ step }}</li> }</ol>
              @if (row.delivered.link; as link) { <code class="uv-mono">{{ link }}</code> }
              @if (nameOf(row.delivered); as name) {
                <p-button
                  [label]="wordsOf('sheet.download', { name: name })" [outlined]="true" size="small"
                  [disabled]="row.delivered.text === ''" (onClick)="download(row.delivered, name)" />
              }
              <h3 i18n>What usually goes wrong</h3>
              <ul class="wrong">@for (words of row.wrong; track $index) { <li>{{ words }}</li> }</ul>
            </div>
          }
        </li>
      } @empty { <li class="uv-soft wait" i18n>The texts come once the sheet is tidied.</li> }
    </ul>
    <label class="field"><span i18n>Made for</span><input pInputText pSize="small" maxlength="80" autocomplete="off" placeholder="theme and version, for the head comment" i18n-placeholder [ngModel]="target()" (ngModelChange)="target.set($event)" /></label>
    <label class="field"><span i18n>Site’s root</span><input pInputText pSize="small" class="uv-mono" maxlength="200" autocomplete="off" spellcheck="false" [ngModel]="root()" (ngModelChange)="root.set($event)" /></label>
    @if (placeWords(); as words) { <p class="uv-soft place">◆ {{ words }}</p> }
  `,
  styles: `
    h2 { margin: 14px 16px 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    h3 { margin-top: 8px; font-size: 12.5px; font-weight: 700; }
    :host > ul { margin: 0 0 10px; padding: 0; border-bottom: 1px solid var(--uv-line); list-style: none; }
    :host > ul > li { display: grid; grid-template-columns: minmax(0, 1fr) auto; align-items: center; gap: 0 8px; padding: 0 16px 0 0; border-top: 1px solid var(--uv-line); }
    .wait { padding: 8px 16px; font-size: 12.5px; }
    .open { background: var(--uv-paper); }
    .row { display: grid; gap: 1px; padding: 7px 0 7px 16px; border: 0; background: none; color: inherit; font-size: 13px; text-align: left; cursor: pointer; }
    .row strong { font-weight: 600; }
    .row:hover strong { text-decoration: underline; }
    .row .uv-soft { font-size: 12.5px; }
    .steps { display: grid; grid-column: 1 / -1; gap: 6px; padding: 0 0 12px 16px; font-size: 12.5px; }
    .wrong { list-style: disc; }
    .steps ol, .wrong { display: grid; gap: 3px; margin: 0; padding-left: 18px; }
    .steps code { padding: 6px 8px; border: 1px solid var(--uv-line); font-size: 12px; overflow-wrap: anywhere; user-select: all; }
    .check, .field { display: flex; align-items: center; gap: 8px; font-size: 12.5px; }
    .field { padding: 3px 16px; }
    .field span { flex: 0 0 76px; }
    .field input { flex: 1; min-width: 0; }
    .file { display: grid; gap: 3px; }
    .file input { max-width: 100%; }
    .place { margin: 6px 16px; font-size: 12.5px; }
    .problem { color: var(--uv-fails); }
  `,
})
export class WhereItGoes {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly tidy = input.required<TidySheet | null>();

  readonly #site = inject(SiteStore);
  protected readonly open = signal<DeliveryWay | null>(null);
  protected readonly copied = signal<DeliveryWay | null>(null);
  protected readonly target = signal('');
  protected readonly root = signal('/');
  protected readonly isPlain = signal(false);
  protected readonly existing = signal<{ readonly name: string; readonly text: string } | null>(null);
  protected readonly problem = signal('');
  /** Sections that have something in them. */
  protected readonly sections = computed(() => {
    const parts = this.#site.site()?.parts ?? [];
    const filled = new Set(
      [...(this.tidy()?.rules ?? []), ...this.#site.ownCss()].map(({ partId }) => sectionOf(partId, { parts })),
    );
    return sectionsOf({ parts }).filter(({ id }) => filled.has(id));
  });
  protected readonly part = linkedSignal(() => this.sections().at(0)?.id ?? null);
  readonly #facts = computed((): DeliveryFacts | null => {
    const [site, tidy] = [this.#site.site(), this.tidy()];
    if (!site || !tidy) return null;
    const root = this.root().trim();
    return {
      rules: tidy.rules,
      options: {
        ...sheetOptionsOf(site),
        parts: site.parts,
        palette: this.#site.palette(),
        ownCss: this.#site.ownCss(),
      },
      site: site.name,
      revision: this.#site.draft()?.equalsRevision ?? null,
      date: new Date().toISOString().slice(0, 10),
      target: this.target().trim(),
      root: root === '' ? '/' : root.endsWith('/') ? root : `${root}/`,
      partId: this.part(),
      isPlain: this.isPlain(),
      existing: this.existing()?.text ?? '',
    };
  });
  protected readonly rows = computed(() => {
    const facts = this.#facts();
    return facts ? WAYS.map((way) => ({ ...way, delivered: deliver(way.way, facts) })) : [];
  });
  /** From where the sheet was made to win. */
  protected readonly placeWords = computed(() => {
    const place = this.#site.site()?.veneerPlace ?? 'head-end';
    if (place === 'head-end') return '';
    return place === 'body-end'
      ? wordsOf('sheet.sheet-written-win-from')
      : wordsOf('sheet.sheet-written-win-right', { place: place.slice('after:'.length) });
  });

  protected factsOf({ bytes, rules, important, inOneLighting }: Delivered): string {
    const size = wordsOf('sheet.rule-rules-kb-important', { rules, bytes: (bytes / 1024).toFixed(1), important });
    if (inOneLighting === 0) return size;
    const colors = wordsOf('sheet.colour-colours', { inOneLighting });
    return wordsOf('sheet.own-css-stay-as', { size, colors });
  }

  protected nameOf({ way, fileName }: Delivered): string | null {
    return way === 'end' ? (this.existing()?.name ?? null) : fileName;
  }

  protected copy({ way, text }: Delivered): void {
    void navigator.clipboard.writeText(text).then(() => {
      this.copied.set(way);
      setTimeout(() => this.copied.set(null), COPIED_MS);
    });
  }

  protected download({ text }: Delivered, name: string): void {
    downloadText(name, 'text/css', text);
  }

  protected read(event: Event): void {
    const [file] = (event.target as HTMLInputElement).files ?? [];
    this.problem.set('');
    if (!file) return;
    if (file.size > MOST_BYTES) {
      this.problem.set(wordsOf('sheet.larger-than-8-mb', { name: file.name }));
      return;
    }
    void file.text().then(
      (text) => this.existing.set({ name: file.name, text }),
      () => this.problem.set(wordsOf('sheet.cannot-be-read', { name: file.name })),
    );
  }
}
