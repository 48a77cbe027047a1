import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterOutlet } from '@angular/router';
import { Button } from 'primeng/button';
import { Toast } from 'primeng/toast';
import { SiteStore } from './shared/site/site-store';
import { TopBar } from './shell/top-bar';
import type { ImportAim } from './survey/import/import-aim';
import { ImportDialog } from './survey/import/import-dialog';

@Component({
  selector: 'uv-root',
  imports: [Button, ImportDialog, RouterOutlet, Toast, TopBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <uv-top-bar />
    @switch (store.state().status) {
      @case ('open') { <router-outlet /> }
      @case ('opening') { <main class="message" aria-busy="true"><h1>Opening the site</h1><p>Reading its pages and stylesheets.</p></main> }
      @case ('none') {
        <main class="message"><h1>No site yet</h1><p>Bring one in: a saved copy, an address, or the HTML and CSS of a single widget.</p><p-button label="Bring in a site…" (onClick)="isImporting.set(true)" /></main>
        @defer (when isImporting()) { @if (isImporting()) { <uv-import-dialog [aim]="newSite" (closed)="isImporting.set(false)" (finished)="look($event)" /> } }
      }
      @case ('failed') {
        <main class="message" role="alert">
          <h1>{{ problem()?.title }}</h1>
          <p>{{ problem()?.message }}</p>
          <p-button label="Try again" (onClick)="store.open()" />
        </main>
      }
    }
    <p-toast position="bottom-center" />
  `,
  styles: `
    :host { display: grid; grid-template-rows: 48px minmax(0, 1fr); height: 100%; }
    router-outlet { display: none; }
    .message { display: grid; place-content: center; gap: 8px; justify-items: start; max-width: 420px; margin: auto; }
    .message h1 { font-size: 20px; font-weight: 700; }
  `,
})
export class App {
  protected readonly store = inject(SiteStore);
  readonly #router = inject(Router);
  protected readonly newSite: ImportAim = { siteId: null, page: null };
  protected readonly isImporting = signal(false);

  constructor() {
    const asked = Number(new URLSearchParams(location.search).get('site'));
    this.store.open(Number.isInteger(asked) && asked > 0 ? asked : undefined);
  }

  protected look(siteId: number): void {
    this.isImporting.set(false);
    this.store.open(siteId);
    void this.#router.navigateByUrl('/survey');
  }

  protected problem() {
    const state = this.store.state();
    return state.status === 'failed' ? state.problem : null;
  }
}
