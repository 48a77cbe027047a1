import { partKindWords } from '../shared/site/part-kind-words';
import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { MatchScope, PartProgress } from '@upper-veneer/core';
import { combineLatest } from 'rxjs';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { SettingsPlans } from '../shared/site/settings-plans';
import { SiteStore } from '../shared/site/site-store';
import { MATCH_WIDTH } from './match-store';

/** What can be matched at once: parts, one or several, a page, or the site. */
@Component({
  selector: 'uv-scope-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>Parts</h2>
    <ul>
      @for (row of rows(); track row.id) {
        <li [class.current]="isIn(row.id)">
          <label class="tick"><input type="checkbox" [checked]="isIn(row.id)" [disabled]="row.isFramed" [attr.aria-label]="wordsOf('match.match-with-others-ticked', { name: row.name })" (change)="toggle(row.id)" /></label>
          <button type="button" [attr.aria-current]="isIn(row.id)" [title]="row.isFramed ? wordsOf('match.css-does-not-reach') : ''" (click)="chosen.emit({ kind: 'parts', partIds: [row.id] })">
            <span class="head">
              <span class="name" [title]="row.name">{{ row.name }}</span>
              @if (row.handed) {
                <span class="count">{{ row.handed }}</span>
              } @else if (row.places > 0 && !row.isFramed) {
                <span class="count">{{ figure(row.matched) }}/{{ figure(row.places) }}</span>
              }
            </span>
            <span class="kind uv-soft">{{ row.kind }}</span>
            <span class="track"><span class="uv-grain" [style.width.%]="row.share"></span></span>
          </button>
        </li>
      } @empty { <li class="empty uv-soft" i18n>No part was found on this site. Name parts in the Survey, or match the whole site.</li> }
    </ul>
    <h2 class="second" i18n>Whole</h2>
    <ul>
      <li [class.current]="scope()?.kind === 'site'"><button type="button" class="plain" [attr.aria-current]="scope()?.kind === 'site'" (click)="chosen.emit({ kind: 'site' })" i18n>The whole site</button></li>
      @for (page of site.captured(); track page.id) {
        <li [class.current]="pageId() === page.id"><button type="button" class="plain" [attr.aria-current]="pageId() === page.id" (click)="chosen.emit({ kind: 'page', pageId: page.id })">{{ page.name }}</button></li>
      }
    </ul>
  `,
  styles: `
    :host { display: block; padding: 10px 0 12px; }
    h2 { padding: 2px 14px 6px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    h2.second { padding-top: 12px; }
    ul { margin: 0; padding: 0; list-style: none; }
    li { display: flex; align-items: start; border-left: 4px solid transparent; }
    li:hover { background: var(--uv-bar); }
    li.current { background: var(--uv-paper); border-left-color: var(--uv-ink); }
    li.current .name, li.current .plain { font-weight: 700; }
    .tick { flex: none; display: grid; place-items: center; width: 26px; height: 26px; margin: 4px 0 0 4px; }
    input { width: 15px; height: 15px; margin: 0; accent-color: var(--uv-ink); }
    button { flex: 1; display: grid; grid-template-columns: minmax(0, 1fr); gap: 3px; min-width: 0; padding: 7px 12px 8px 6px; border: 0; background: none; text-align: left; cursor: pointer; }
    button:disabled { cursor: default; color: var(--uv-soft); }
    button:focus-visible, input:focus-visible { position: relative; z-index: 1; }
    .plain { padding: 4px 12px 4px 36px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; display: block; }
    .head { display: flex; justify-content: space-between; gap: 8px; }
    .name, .kind { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .kind, .count { font-size: 12px; }
    .track { height: 5px; background: var(--uv-line); }
    .track span { display: block; height: 100%; }
    .empty { padding: 0 14px; }
  `,
})
export class ScopeList {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  protected readonly site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #settings = inject(SettingsPlans);
  readonly scope = input.required<MatchScope | null>();
  readonly chosen = output<MatchScope>();

  /** Progress of each part on the first page that holds it. */
  readonly #progress = toSignal(
    combineLatest([toObservable(this.site.captured), toObservable(this.site.draft)]).pipe(
      askEngine(
        this.#engine,
        ([pages], engine) => Promise.all(pages.map(({ id }) => engine.progress(id, MATCH_WIDTH))),
        [] as PartProgress[][],
      ),
    ),
    { initialValue: [] as PartProgress[][] },
  );
  protected readonly rows = computed(() => {
    const progress = this.#progress()?.flat() ?? [];
    return (this.site.site()?.parts ?? []).flatMap((part) => {
      const found = progress.find(({ partId }) => partId === part.id);
      if (!found && progress.length > 0) return [];
      const isFramed = found?.reachability === 'framed';
      const settled = this.#settings.plans().find(({ sheet }) => sheet.partId === part.id)?.plan.fields ?? [];
      const there = settled.filter(({ handOver }) => handOver === 'handed' || handOver === 'same').length;
      const share = isFramed
        ? (100 * there) / Math.max(1, settled.length)
        : found?.places
          ? (100 * found.matched) / found.places
          : 0;
      return [
        {
          share,
          handed: isFramed && settled.length > 0 ? `${there}/${settled.length}` : '',
          id: part.id,
          name: part.name,
          kind: isFramed ? wordsOf('match.framed-settings-only') : partKindWords(part.kind),
          places: found?.places ?? 0,
          matched: found?.matched ?? 0,
          isFramed,
        },
      ];
    });
  });
  protected readonly pageId = computed(() => {
    const scope = this.scope();
    return scope?.kind === 'page' ? scope.pageId : null;
  });

  protected isIn(partId: number): boolean {
    const scope = this.scope();
    return scope?.kind === 'parts' && scope.partIds.includes(partId);
  }

  protected toggle(partId: number): void {
    const scope = this.scope();
    const before = scope?.kind === 'parts' ? scope.partIds : [];
    const partIds = before.includes(partId) ? before.filter((id) => id !== partId) : [...before, partId];
    if (partIds.length > 0) this.chosen.emit({ kind: 'parts', partIds });
  }
}
