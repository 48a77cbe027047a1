import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { Button } from 'primeng/button';
import type { Subscription } from 'rxjs';
import { ApiProblem } from '../shared/api/api-problem';
import { SiteApi } from '../shared/api/site-api';
import { SiteStore } from '../shared/site/site-store';
import { Messages } from '../shared/spoken/messages';
import { downloadBlob, fileNameOf } from '../shared/ui/download-text';

/** Saves the open site with its history and revisions as one file, for backup and for moving. */
@Component({
  selector: 'uv-save-site',
  imports: [Button],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p-button
    [label]="isSaving() ? wordsOf('survey.stop-saving') : wordsOf('survey.save-site-as-file')" [outlined]="true" size="small" [disabled]="store.site() === null"
    title="Pages, files, palette, draft, history and revisions as open JSON in a zip; Bring in a site reads it back" i18n-title (onClick)="isSaving() ? stop() : save()"
  />`,
  styles: ':host { display: block; } :host ::ng-deep .p-button { width: 100%; }',
})
export class SaveSite {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly #messages = inject(Messages);
  protected readonly isSaving = signal(false);
  #running: Subscription | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#running?.unsubscribe());
  }

  protected save(): void {
    const site = this.store.site();
    if (!site) return;
    this.isSaving.set(true);
    this.#running = this.#api.archive(site.id).subscribe({
      next: (file) => downloadBlob(`${fileNameOf(site.name)}.upper-veneer.zip`, file),
      error: (error: unknown) => {
        this.isSaving.set(false);
        this.#messages.report(ApiProblem.from(error));
      },
      complete: () => this.isSaving.set(false),
    });
  }

  protected stop(): void {
    this.#running?.unsubscribe();
    this.isSaving.set(false);
  }
}
