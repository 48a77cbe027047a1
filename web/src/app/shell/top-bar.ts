import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import {
  mdiFormatListChecks,
  mdiRedoVariant,
  mdiThemeLightDark,
  mdiUndoVariant,
  mdiWeatherNight,
  mdiWhiteBalanceSunny,
} from '@mdi/js';
import { Icon } from '../shared/ui/icon';
import { Button } from 'primeng/button';
import { Tooltip } from 'primeng/tooltip';
import { VIEW_ROUTES } from '../app.routes';
import { RequestsStore } from '../requests/requests-store';
import { CensusStore } from '../shared/census/census-store';
import { Delivery } from '../shared/site/delivery';
import { InTurn } from '../shared/drawing/in-turn';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { Whereabouts } from '../shared/site/whereabouts';
import { ThemeService } from '../theme/theme-service';
import { ProofStore } from '../shared/proof/proof-store';
import { TrialsStore } from '../shared/trials/trials-store';
import { StandingMark } from '../shared/ui/standing-mark';
import { PublishDialog } from './publish-dialog';
import { isEmptied, isTypingTarget } from '../shared/ui/is-typing-target';

/** The bar across the top: mark, site, views with their counts, the draft's standing and the two acts. */
@Component({
  selector: 'uv-top-bar',
  imports: [Button, InTurn, Icon, PublishDialog, StandingMark, RouterLink, RouterLinkActive, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'onKey($event)' },
  template: `
    <header>
      <span class="mark"><svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true"><path d="M3 7.5 14 3l7 2.6L10 10z" fill="currentColor" /><path d="M3 12.2 10 14.8 21 10.3M3 17l7 2.6L21 15" fill="none" stroke="currentColor" stroke-width="1.8" stroke-linejoin="round" /></svg><ng-container i18n>Upper Veneer</ng-container></span>
      @if (store.site(); as site) {
        <span class="site"><strong [title]="site.name">{{ site.name }}</strong><span class="uv-soft"> · {{ pagesWords() }}</span></span>
        <nav *uvInTurn aria-label="Views" i18n-aria-label>
          @for (view of views; track view.path) {
            <a [routerLink]="'/' + view.path" [queryParams]="view.path === 'bench' && whereabouts.bench()['site'] === site.id ? whereabouts.bench() : { site: site.id }" routerLinkActive="current" [routerLinkActiveOptions]="anyQuery" ariaCurrentWhenActive="page">
              {{ view.label }}@if (counts()[view.path] !== undefined) {
                <span class="count uv-mono">
                  @if (view.path === 'proof' && counts()[view.path]! > 0) {
                    <uv-standing standing="fails" />
                  }
                  {{ counts()[view.path] }}
                </span>
              }
            </a>
          }
        </nav>
        @if (delivery.act() !== null && dialog() === null) {
          <span class="standing uv-soft" role="status">{{ delivery.words() }} <button type="button" class="off" (click)="delivery.cancel()">{{ delivery.act() === 'publish' ? wordsOf('shell.do-not-publish') : wordsOf('shell.do-not-save') }}</button></span>
        } @else {
          <span class="standing uv-soft" aria-live="polite">{{ store.isSaving() ? wordsOf('shell.storing') : store.standing() }}</span>
        }
        <span *uvInTurn class="tools">
          <button
            class="tool asks" type="button" (click)="requests.isOpen.set(!requests.isOpen())" [pTooltip]="requestsTip()"
            tooltipPosition="bottom" [attr.aria-label]="requestsTip()" [attr.aria-expanded]="requests.isOpen()">
            <uv-icon [path]="icons.requests" />
            @if (requests.count().items > 0) {
              <span class="uv-mono">{{ requests.count().items - requests.count().settled }}</span>
            }
          </button>
          <button
            class="tool" type="button" [disabled]="!store.draft()?.undo" (click)="undo()" [pTooltip]="undoTip()"
            tooltipPosition="bottom" aria-label="Undo" i18n-aria-label><uv-icon [path]="icons.undo" /></button>
          <button
            class="tool" type="button" [disabled]="!store.draft()?.redo" (click)="redo()" [pTooltip]="redoTip()"
            tooltipPosition="bottom" aria-label="Redo" i18n-aria-label><uv-icon [path]="icons.redo" /></button>
          <button
            class="tool" type="button" (click)="theme.next()" [pTooltip]="wordsOf('shell.interface', { choice: lit() })"
            tooltipPosition="bottom"
            [attr.aria-label]="wordsOf('shell.interface-lit-as-change', { choice: lit() })"
            ><uv-icon [path]="themeIcon()" /></button>
        </span>
        <p-button
          *uvInTurn label="Save revision" i18n-label [outlined]="true" size="small"
          [disabled]="!canSave() || delivery.act() !== null" (onClick)="dialog.set('save')"
        />
        <p-button
          *uvInTurn label="Publish…" i18n-label size="small" [disabled]="!canPublish() || delivery.act() !== null"
          (onClick)="dialog.set('publish')"
        />
      }
    </header>
    @if (dialog(); as act) { <uv-publish-dialog [act]="act" (closed)="dialog.set(null)" /> }
  `,
  styles: `
    header { display: flex; align-items: center; gap: 7px; height: 48px; padding: 0 14px; background: var(--uv-paper); border-bottom: 1px solid var(--uv-line-strong); }
    .mark { display: flex; align-items: center; gap: 9px; font-weight: 700; font-size: 14.5px; white-space: nowrap; }
    .site { min-width: 0; max-width: 220px; padding-left: 12px; border-left: 1px solid var(--uv-line); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    nav { display: flex; align-self: stretch; margin-left: 4px; }
    nav a { position: relative; display: flex; align-items: center; gap: 5px; padding: 0 8px; color: var(--uv-soft); text-decoration: none; }
    nav a:hover { color: var(--uv-ink); }
    nav a.current { background: var(--uv-bar); color: var(--uv-ink); font-weight: 700; }
    nav a.current::after { content: ''; position: absolute; inset: auto 0 -1px; height: 5px; background: repeating-linear-gradient(90deg, var(--uv-grain-dark) 0 11px, var(--uv-grain-light) 11px 12px, var(--uv-grain-dark) 12px 19px, var(--uv-grain-light) 19px 20px); }
    nav a:focus-visible { z-index: 1; }
    .count uv-standing { margin-right: 1px; }
    .count { font-size: 12px; font-weight: 400; color: var(--uv-soft); white-space: nowrap; }
    .standing { min-width: 0; margin-left: auto; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 12.5px; }
    .off { padding: 0 2px; border: 0; background: none; color: var(--uv-ink); text-decoration: underline; cursor: pointer; }
    .tools { display: flex; gap: 2px; }
    .tool { display: grid; place-items: center; width: 30px; height: 30px; padding: 0; border: 0; border-radius: 3px; background: none; cursor: pointer; }
    .asks { display: flex; align-items: center; justify-content: center; gap: 3px; width: auto; min-width: 30px; font-size: 12px; }
    .tool:hover:not(:disabled) { background: var(--uv-bar); }
    .tool:disabled { color: var(--uv-line-strong); opacity: .55; cursor: default; }
    p-button { flex: none; white-space: nowrap; }
    @media (max-width: 900px) { header { flex-wrap: wrap; height: auto; min-height: 48px; padding: 6px 10px; } .site { max-width: 45vw; } nav { order: 9; flex-basis: 100%; height: 36px; margin: 0; } nav a { flex: 1; justify-content: center; padding: 0 4px; } }
    @media (max-width: 480px) { nav .count { display: none; } }
    @media (max-width: 1180px) { .standing { display: none; } .tools { margin-left: auto; } }
  `,
})
export class TopBar {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  protected readonly delivery = inject(Delivery);
  protected readonly census = inject(CensusStore);
  protected readonly proof = inject(ProofStore);
  protected readonly trials = inject(TrialsStore);
  protected readonly theme = inject(ThemeService);
  protected readonly whereabouts = inject(Whereabouts);
  protected readonly anyQuery = {
    paths: 'subset',
    queryParams: 'ignored',
    fragment: 'ignored',
    matrixParams: 'ignored',
  } as const;
  protected readonly icons = { undo: mdiUndoVariant, redo: mdiRedoVariant, requests: mdiFormatListChecks };
  protected readonly views = [...VIEW_ROUTES]
    .sort((a, b) => a.data.view.order - b.data.view.order)
    .map(({ path, data }) => ({ path, label: data.view.label }));
  protected readonly requests = inject(RequestsStore);
  protected readonly requestsTip = computed(() => {
    const { items, settled } = this.requests.count();
    return items === 0 ? wordsOf('shell.requests') : wordsOf('shell.requests-settled', { settled, items });
  });
  protected readonly dialog = signal<'save' | 'publish' | null>(null);

  protected readonly pagesWords = computed(() => {
    const reading = this.store.reading();
    const count = this.store.captured().length;
    // A moment is not worth a word.
    if (reading && reading.pages > 8 && reading.read < reading.pages)
      return wordsOf('shell.pages-read', { read: reading.read, pages: reading.pages });
    return wordsOf('shell.page-pages', { count });
  });
  protected readonly counts = computed<Readonly<Record<string, number>>>(() => ({
    ...(this.census.census() ? { survey: this.census.strays() } : {}),
    palette: this.store.palette().swatches.length,
    ...(this.store.draft() ? { match: this.store.draft()?.plans.length ?? 0 } : {}),
    ...(this.proof.failing() === null ? {} : { proof: this.proof.failing() ?? 0 }),
    sheet: new Set(this.store.overrides().map(({ selector }) => selector)).size,
    ...(this.trials.trials().length > 0 ? { trial: this.trials.trials().length } : {}),
  }));
  protected readonly canSave = computed(() => !this.store.isEmpty() && this.store.draft()?.equalsRevision === null);
  protected readonly canPublish = computed(() => {
    const draft = this.store.draft();
    return (
      draft !== null &&
      (!this.store.isEmpty() || draft.revisions.length > 0) &&
      (draft.equalsRevision === null || draft.equalsRevision !== draft.publishedRevision)
    );
  });
  protected readonly undoTip = computed(() =>
    this.store.draft()?.undo
      ? wordsOf('shell.undo', { label: this.store.draft()?.undo ?? '' })
      : wordsOf('shell.nothing-undo'),
  );
  protected readonly redoTip = computed(() =>
    this.store.draft()?.redo
      ? wordsOf('shell.redo', { label: this.store.draft()?.redo ?? '' })
      : wordsOf('shell.nothing-redo'),
  );
  protected readonly lit = computed(() => wordsOf(`lit.${this.theme.choice()}`));
  protected readonly themeIcon = computed(
    () => ({ system: mdiThemeLightDark, light: mdiWhiteBalanceSunny, dark: mdiWeatherNight })[this.theme.choice()],
  );

  protected undo(): void {
    this.edits.undo().subscribe();
  }

  protected redo(): void {
    this.edits.redo().subscribe();
  }

  protected onKey(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || (isTypingTarget(event.target) && !isEmptied(event.target)))
      return;
    const key = event.key.toLowerCase();
    if (key !== 'z' && key !== 'y') return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) this.redo();
    else this.undo();
  }
}
