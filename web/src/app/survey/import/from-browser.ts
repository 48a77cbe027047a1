import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { DomSanitizer } from '@angular/platform-browser';
import { Button } from 'primeng/button';
import { EMPTY, catchError } from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';
import { SiteApi } from '../../shared/api/site-api';
import { Messages } from '../../shared/spoken/messages';

const COPIED_MS = 1600;

/** A bookmark and a console line that make one file of the page one has open, behind a login too. */
@Component({
  selector: 'uv-from-browser',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p i18n>For a page that scripts draw, or that only you can see: it is saved from your own browser as one file, as it stands there, and dropped here under <em>Files</em>. Nothing is sent anywhere.</p>
    @if (file(); as made) {
      <p class="acts">
        <a class="bookmark" [href]="bookmark()" draggable="true" (click)="$event.preventDefault()" title="Drag it to the bookmarks" i18n-title i18n>Save this page</a>
        <p-button [label]="copied() ? wordsOf('survey.copied') : wordsOf('survey.copy-console-line')" [outlined]="true" size="small" (onClick)="copy(made.script)" />
      </p>
    }
    <ol class="uv-soft">
      <li i18n>Drag the bookmark to your bookmarks once, or copy the console line.</li>
      <li i18n>Open the page in the state you want: signed in, the drawer open, the second step reached.</li>
      <li i18n>Press the bookmark there, or run the line in its console. What no file can hold is said.</li>
      <li i18n>Drop the saved file here, under Files.</li>
    </ol>
  `,
  styles: `
    :host { display: grid; gap: 8px; font-size: 13px; }
    p, ol { margin: 0; }
    ol { padding-left: 20px; }
    .acts { display: flex; gap: 8px; align-items: center; }
    .bookmark { padding: 4px 11px; border: 1px dashed var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-weight: 600; text-decoration: none; cursor: grab; }
  `,
})
export class FromBrowser {
  protected readonly wordsOf = wordsOf;

  readonly #sanitizer = inject(DomSanitizer);
  readonly #messages = inject(Messages);
  protected readonly copied = signal(false);
  protected readonly file = toSignal(
    inject(SiteApi)
      .pageFile()
      .pipe(
        catchError((error: unknown) => {
          this.#messages.report(ApiProblem.from(error));
          return EMPTY;
        }),
      ),
  );
  /** Made of our own script alone; a bookmark is the only place where it runs. */
  protected readonly bookmark = computed(() => this.#sanitizer.bypassSecurityTrustUrl(this.file()?.bookmark ?? ''));

  protected copy(script: string): void {
    void navigator.clipboard.writeText(script).then(() => {
      this.copied.set(true);
      setTimeout(() => this.copied.set(false), COPIED_MS);
    });
  }
}
