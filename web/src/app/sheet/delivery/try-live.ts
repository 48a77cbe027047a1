import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { liveBookmark, liveScript } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { DraftEdits } from '../../shared/site/draft-edits';
import { SiteStore } from '../../shared/site/site-store';

const COPIED_MS = 1600;

/** The draft on a page that the designer has open elsewhere: off until it is switched on, ended in one press. */
@Component({
  selector: 'uv-try-live',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>Try it on the live page</h2>
    @if (address(); as css) {
      <p i18n>Drag this to the bookmarks and press it on any page, or run the console line there. The page follows each change of the draft, for you alone; pressed again, it takes it off.</p>
      <p class="acts">
        <a class="bookmark" [href]="bookmark()" draggable="true" (click)="$event.preventDefault()" title="Drag it to the bookmarks" i18n-title i18n>Lay the draft on</a>
        <p-button [label]="copied() ? wordsOf('sheet.copied') : wordsOf('sheet.copy-console-line')" [outlined]="true" size="small" (onClick)="copy()" />
        <p-button label="End it" i18n-label [outlined]="true" size="small" (onClick)="edits.putLive(false).subscribe()" />
      </p>
      <code class="uv-mono">{{ css }}</code>
      <p class="uv-soft" i18n>Whoever has this address can read the draft’s stylesheet, and nothing else; ended, it is gone for good. The browser may ask whether the page may reach this machine.</p>
    } @else {
      <p class="uv-soft" i18n>Off. Switched on, the draft’s stylesheet has an address of its own, and a bookmark lays it on any page you have open.</p>
      <p-button label="Switch on" i18n-label [outlined]="true" size="small" (onClick)="edits.putLive(true).subscribe()" />
    }
  `,
  styles: `
    :host { display: grid; gap: 6px; padding: 14px 16px; border-top: 1px solid var(--uv-line); font-size: 12.5px; }
    h2 { font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    .acts { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
    .bookmark { padding: 4px 11px; border: 1px dashed var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 13px; font-weight: 600; text-decoration: none; cursor: grab; }
    code { font-size: 12px; overflow-wrap: anywhere; user-select: all; }
  `,
})
export class TryLive {
  protected readonly wordsOf = wordsOf;

  readonly #site = inject(SiteStore);
  readonly #sanitizer = inject(DomSanitizer);
  protected readonly edits = inject(DraftEdits);
  protected readonly copied = signal(false);
  protected readonly address = computed(() => {
    const secret = this.#site.draft()?.live;
    return secret ? `${location.origin}/live/${secret}/veneer.css` : null;
  });
  /** Made of our own script and an address of our own alone; a bookmark is the only place where it runs. */
  protected readonly bookmark = computed(() =>
    this.#sanitizer.bypassSecurityTrustUrl(liveBookmark(this.address() ?? '')),
  );

  protected copy(): void {
    void navigator.clipboard.writeText(liveScript(this.address() ?? '')).then(() => {
      this.copied.set(true);
      setTimeout(() => this.copied.set(false), COPIED_MS);
    });
  }
}
