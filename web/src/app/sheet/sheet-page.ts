import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { TidyProgress, TidySheet } from '@upper-veneer/core';
import { debounceTime, from, merge, of, switchMap } from 'rxjs';
import { Engine } from '../shared/engine/engine';
import { DatePipe } from '@angular/common';
import { Button } from 'primeng/button';
import { writeDraftFile } from './draft-file';
import { SheetOptionsPanel } from './sheet-options-panel';
import { SiteStore } from '../shared/site/site-store';
import { downloadText, fileNameOf } from '../shared/ui/download-text';
import { withProgress } from '../shared/engine/with-progress';

const COPIED_MS = 1600;

/** The compiled stylesheet, to read, copy and download; beside it the revisions. */
@Component({
  selector: 'uv-sheet-page',
  imports: [Button, DatePipe, SheetOptionsPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-label="Stylesheet">
      <div class="toolbar">
        <h1>veneer.css</h1>
        <span class="uv-soft">{{ size() }}</span>
        <span class="uv-soft" role="status" [title]="left().join('\n')">{{ words() }}</span>
        <span class="acts">
          <p-button [label]="copied() ? 'Copied' : 'Copy'" [outlined]="true" size="small" [disabled]="css() === ''" (onClick)="copy()" />
          <p-button label="Download" [outlined]="true" size="small" [disabled]="css() === ''" (onClick)="download()" />
          <p-button label="Draft as a file" [outlined]="true" size="small" [disabled]="store.overrides().length === 0" (onClick)="downloadDraft()" />
        </span>
      </div>
      @if (css() === '') {
        <div class="empty"><h2>The sheet is empty</h2><p class="uv-soft">It fills as overrides are made on the Bench: the palette first, then a section for each part.</p></div>
      } @else {
        <ol class="lines uv-mono uv-scroll" tabindex="0" aria-label="CSS">@for (line of lines(); track $index) { <li [class.comment]="line.isComment"><code>{{ line.text }}</code></li> }</ol>
      }
    </section>
    <aside class="uv-scroll" aria-label="Revisions">
      <h2>Revisions</h2>
      <ul>
        @for (revision of store.draft()?.revisions ?? []; track revision.number) {
          <li>
            <strong>Revision {{ revision.number }}</strong>
            @if (revision.number === store.draft()?.publishedRevision) { <span class="badge">published</span> }
            @if (revision.number === store.draft()?.equalsRevision) { <span class="badge">the draft</span> }
            <p>{{ revision.note || 'No note' }}</p>
            <p class="uv-soft">{{ revision.savedAt | date: 'd MMM y, HH:mm' }} · {{ revision.rules }} rules@if (revision.isUntidied) {, <strong>not tidied</strong>: that took too long or failed, so the sheet is longer than it need be}</p>
          </li>
        } @empty {
          <li class="uv-soft">None saved yet. A revision is a way back.</li>
        }
      </ul>
      <uv-sheet-options-panel />
      @if (store.site(); as site) {
        <h2>What visitors get</h2>
        @if (store.draft()?.publishedRevision !== null) {
          <p class="host">Revision {{ store.draft()?.publishedRevision }} at <a [href]="site.hostUrl" target="_blank" rel="noopener">{{ site.hostUrl }}</a></p>
        } @else {
          <p class="host uv-soft">Nothing is published; the stand-in host serves the site as it arrived, at <a [href]="site.hostUrl" target="_blank" rel="noopener">{{ site.hostUrl }}</a></p>
        }
      }
    </aside>
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr) 320px; height: 100%; min-height: 0; }
    .sheet { display: grid; grid-template-rows: 40px minmax(0, 1fr); min-height: 0; }
    .toolbar { display: flex; align-items: center; gap: 12px; padding: 0 16px; border-bottom: 1px solid var(--uv-line-strong); }
    .toolbar h1 { font-weight: 700; font-size: 15px; }
    .acts { display: flex; gap: 8px; margin-left: auto; }
    .lines { margin: 0; padding: 14px 0 24px; background: var(--uv-paper); counter-reset: line; list-style: none; font-size: 13px; line-height: 1.55; }
    .lines li { display: grid; grid-template-columns: 52px 1fr; counter-increment: line; }
    .lines li::before { content: counter(line); padding-right: 14px; color: var(--uv-soft); text-align: right; user-select: none; }
    .lines code { font: inherit; white-space: pre-wrap; overflow-wrap: anywhere; }
    .lines .comment { color: var(--uv-soft); }
    .lines:focus-visible { box-shadow: inset 0 0 0 2px var(--uv-ink); border-radius: 0; }
    .empty { display: grid; place-content: center; gap: 6px; background: var(--uv-paper); max-width: none; text-align: center; }
    .empty h2 { font-size: 17px; font-weight: 700; }
    aside { padding: 12px 16px; background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); }
    aside h2 { margin: 4px 0 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    aside ul { margin: 0 0 18px; padding: 0; list-style: none; }
    aside li { padding: 9px 0; border-top: 1px solid var(--uv-line); overflow-wrap: anywhere; }
    .badge { margin-left: 6px; padding: 0 6px; border: 1px solid var(--uv-ink); border-radius: 3px; font-size: 11.5px; }
    .host { overflow-wrap: anywhere; }
    a { color: inherit; }
    @media (max-width: 900px) { :host { grid-template-columns: minmax(0, 1fr); height: auto; } .sheet { grid-template-rows: auto auto; } .toolbar { flex-wrap: wrap; padding: 6px 12px; } aside { border: 0; border-top: 1px solid var(--uv-line-strong); } }
  `,
})
export class SheetPage {
  protected readonly store = inject(SiteStore);
  protected readonly copied = signal(false);
  readonly #engine = inject(Engine);
  /** How far the tidying is; `null` once it is done. */
  protected readonly progress = signal<TidyProgress | null>(null);
  readonly #tidy = toSignal<TidySheet | null, null>(
    toObservable(this.store.veneer).pipe(
      debounceTime(150),
      switchMap(({ css }) => (css === '' ? of(null) : merge(of(null), from(this.#tidyNow())))),
    ),
    { initialValue: null },
  );
  protected readonly css = computed(() => this.#tidy()?.css ?? this.store.veneer().css);
  protected readonly left = computed(() => this.#tidy()?.dropped ?? []);
  /** What was done to the sheet, in words. */
  protected readonly words = computed(() => {
    const progress = this.progress();
    const tidy = this.#tidy();
    if (progress)
      return progress.total > 0
        ? `Tidying, ${Math.min(progress.done, progress.total)} of ${progress.total}…`
        : 'Tidying…';
    if (!tidy) return '';
    if (tidy.unread > 0)
      return `◆ Not tidied: ${tidy.unread.toLocaleString('en')} ${tidy.unread === 1 ? 'element was' : 'elements were'} not read, so nothing is proved to change nothing`;
    const parts = [
      tidy.dropped.length > 0 ? `${tidy.dropped.length} left out that changed nothing` : '',
      tidy.merged > 0 ? `${tidy.merged} put together with ${tidy.merged === 1 ? 'its' : 'their'} like` : '',
    ].filter(Boolean);
    return parts.length > 0 ? parts.join(', ') : 'Every declaration changes something';
  });
  protected readonly lines = computed(() =>
    this.css()
      .trimEnd()
      .split('\n')
      .map((text) => ({ text: text === '' ? ' ' : text, isComment: text.startsWith('/*') })),
  );
  protected readonly size = computed(() =>
    this.css() === ''
      ? ''
      : `${this.lines().length} lines, ${(new TextEncoder().encode(this.css()).length / 1024).toFixed(1)} KB`,
  );

  async #tidyNow(): Promise<TidySheet | null> {
    this.progress.set({ done: 0, total: 0 });
    const tidy = await withProgress(
      (progress: TidyProgress) => this.progress.set(progress),
      (listener) => this.#engine.remote.tidy(listener),
    );
    this.progress.set(null);
    return tidy;
  }

  protected copy(): void {
    void navigator.clipboard.writeText(this.css()).then(() => {
      this.copied.set(true);
      setTimeout(() => this.copied.set(false), COPIED_MS);
    });
  }

  /** All that the sheet is compiled from, for `upper-veneer build`. */
  protected downloadDraft(): void {
    const [site, draft] = [this.store.site(), this.store.draft()];
    if (site && draft)
      downloadText(`${fileNameOf(site.name)}.draft.json`, 'application/json', writeDraftFile(site, draft));
  }

  protected download(): void {
    downloadText('veneer.css', 'text/css', this.css());
  }
}
