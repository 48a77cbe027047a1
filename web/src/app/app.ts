import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  afterNextRender,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { Router, RouterOutlet } from '@angular/router';
import { Button } from 'primeng/button';
import { PrimeNG } from 'primeng/config';
import { Toast } from 'primeng/toast';
import { RequestsDrawer } from './requests/requests-drawer';
import { RequestsStore } from './requests/requests-store';
import { WorkedStrip } from './requests/worked-strip';
import { SettingsPlans } from './shared/site/settings-plans';
import { SiteStore } from './shared/site/site-store';
import { DrawingTurns } from './shared/drawing/drawing-turns';
import { InTurn } from './shared/drawing/in-turn';
import { Announcer } from './shared/spoken/announcer';
import { FocusKeeper } from './shell/focus-keeper';
import { TopBar } from './shell/top-bar';
import type { ImportAim } from './survey/import/import-aim';
import { ImportDialog } from './survey/import/import-dialog';

@Component({
  selector: 'uv-app',
  imports: [Button, ImportDialog, InTurn, RequestsDrawer, RouterOutlet, Toast, TopBar, WorkedStrip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="skip" (click)="view.focus()" i18n>Past the bar, to the view</button>
    <div><uv-top-bar *uvInTurn /><uv-worked-strip /></div>
    <main #view class="view" tabindex="-1" [attr.aria-busy]="drawing.isDrawing() || null">
    @switch (store.state().status) {
      @case ('open') { <router-outlet *uvInTurn /> }
      @case ('opening') {
        <div class="message" aria-busy="true">
          <h1 i18n>Opening the site</h1><p i18n>Reading its pages and stylesheets.</p>
        </div>
      }
      @case ('none') {
        <div class="message">
          <h1 i18n>No site yet</h1>
          <p i18n>Bring one in: a saved copy, an address, or the HTML and CSS of a single widget.</p>
          <p-button label="Bring in a site…" i18n-label (onClick)="isImporting.set(true)" />
        </div>
        @defer (when isImporting()) {
          @if (isImporting()) {
            <uv-import-dialog [aim]="newSite" (closed)="isImporting.set(false)" (finished)="look($event)" />
          }
        }
      }
      @case ('failed') {
        <div class="message" role="alert">
          <h1>{{ problem()?.title }}</h1>
          <p>{{ problem()?.message }}</p>
          <p-button label="Try again" i18n-label (onClick)="store.open()" />
        </div>
      }
    }
    </main>
    @if (requests.isOpen() && store.state().status === 'open') { <uv-requests-drawer /> }
    <div class="uv-hidden" role="status" aria-live="polite">{{ announcer.text() }}</div>
    <p-toast position="bottom-center" />
  `,
  styles: `
    :host { display: grid; grid-template: auto minmax(0, 1fr) / minmax(0, 1fr); height: 100%; }
    .view { display: grid; grid-template: minmax(0, 1fr) / minmax(0, 1fr); min-height: 0; outline: none; box-shadow: none; }
    @media (max-width: 900px) { :host { height: auto; min-height: 100%; align-content: start; } .view { display: block; } }
    .skip { position: fixed; left: 8px; top: 8px; z-index: 20; padding: 6px 12px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); }
    .skip:not(:focus) { clip-path: inset(50%); }
    router-outlet { display: none; }
    .message { display: grid; place-content: center; gap: 8px; justify-items: start; max-width: 420px; margin: auto; }
    .message h1 { font-size: 20px; font-weight: 700; }
  `,
})
export class App {
  // Framed parts look as they are to in every view.
  readonly settings = inject(SettingsPlans);
  protected readonly store = inject(SiteStore);
  protected readonly requests = inject(RequestsStore);
  protected readonly drawing = inject(DrawingTurns);
  protected readonly announcer = inject(Announcer);
  readonly #router = inject(Router);
  readonly #overlays = inject(PrimeNG);
  private readonly view = viewChild.required<ElementRef<HTMLElement>>('view');
  protected readonly newSite: ImportAim = { siteId: null, page: null };
  protected readonly isImporting = signal(false);

  constructor() {
    inject(FocusKeeper);
    // What opens over the view is part of it.
    afterNextRender(() => this.#overlays.overlayAppendTo.set(this.view().nativeElement));
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
