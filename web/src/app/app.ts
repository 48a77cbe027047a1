import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Button } from 'primeng/button';
import { Toast } from 'primeng/toast';
import { SiteStore } from './shared/site/site-store';
import { TopBar } from './shell/top-bar';

@Component({
  selector: 'uv-root',
  imports: [Button, RouterOutlet, Toast, TopBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <uv-top-bar />
    @switch (store.state().status) {
      @case ('open') { <router-outlet /> }
      @case ('opening') { <main class="message" aria-busy="true"><h1>Opening the site</h1><p>Reading its pages and stylesheets.</p></main> }
      @case ('none') { <main class="message"><h1>No site yet</h1><p>The database holds no site. Start with <code class="uv-mono">npm run demo</code> to have Osier &amp; Reed in it.</p></main> }
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

  constructor() {
    this.store.open();
  }

  protected problem() {
    const state = this.store.state();
    return state.status === 'failed' ? state.problem : null;
  }
}
