import { partKindWords } from '../../shared/site/part-kind-words';
import { figure, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { PartProgress, SiteWideTarget } from '@upper-veneer/core';

export interface PartEntry {
  readonly id: number;
  readonly name: string;
  readonly kind: string;
  readonly openers: readonly unknown[];
}

const REACHABILITY_WORDS = {
  'in page': '',
  shadow: wordsOf('bench.behind-shadow-root'),
  framed: wordsOf('bench.framed-css-does-not'),
} as const;

/** Parts of the page shown, each with how much of it is matched; hidden ones can be opened. */
@Component({
  selector: 'uv-parts-list',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>On this page</h2>
    @if (!hasPalette()) {
      <p class="hint uv-soft" i18n>Nothing counts as matched before there is a palette. <a routerLink="/palette">Collect it</a></p>
    }
    <ul>
      @for (row of rows(); track row.id) {
        <li [class.current]="row.id === current()">
          <button class="part" type="button" [attr.aria-current]="row.id === current()" (click)="chosen.emit(row.first)">
            <span class="head">
              <span class="name" [title]="row.name">{{ row.name }}</span>
              @if (row.reachability !== 'framed') {
                <span
                  class="count"
                  [title]="wordsOf('bench.painted-places-brand-colours', { matched: row.matched, places: row.places })">{{ figure(row.matched) }}/{{ figure(row.places) }}</span>
              }
            </span>
            <span class="kind uv-soft" [class.beside]="row.canOpen" [title]="row.words">{{ row.tag }}</span>
            <span class="track"><span class="uv-grain" [style.width.%]="row.places ? (100 * row.matched) / row.places : 0"></span></span>
          </button>
          @if (row.canOpen) {
            <button
              class="open" type="button" [attr.aria-pressed]="row.isOpened"
              [attr.aria-label]="row.verb + ' ' + row.name"
              [title]="row.openers.length > 0 ? '' : wordsOf('bench.puts-out-way-here')"
              (click)="toggled.emit(row.id)">{{ row.verb }}</button>
          } @else if (row.reachability === 'framed') {
            <a
              class="open" routerLink="/match" [queryParams]="{ scope: 'parts-' + row.id }"
              [attr.aria-label]="wordsOf('bench.settings', { name: row.name })" i18n>Settings</a>
          }
        </li>
      } @empty {
        <li class="empty uv-soft" i18n>No part was found on this page.</li>
      }
    </ul>
    @if (siteWide().length > 0) {
      <h2 class="second" i18n>On every page</h2>
      <ul>
        @for (entry of siteWide(); track entry.name) {
          <li>
            <button class="part" type="button" [title]="entry.words" (click)="siteWideChosen.emit(entry)">
              <span class="head">
                <span class="name">{{ entry.name }}</span>
                @if (entry.elements > 0 && entry.row !== 'thumb' && entry.pseudo === '') {
                  <span class="count">{{ figure(entry.elements) }}</span>
                }
              </span>
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host { display: block; padding-bottom: 12px; }
    h2 { padding: 2px 14px 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    h2.second { padding-top: 14px; }
    ul { margin: 0; padding: 0; list-style: none; }
    li { position: relative; border-left: 4px solid transparent; }
    li:hover { background: var(--uv-bar); }
    li.current { background: var(--uv-paper); border-left-color: var(--uv-ink); }
    li.current .name { font-weight: 700; }
    .part { display: grid; grid-template-columns: minmax(0, 1fr); gap: 3px; width: 100%; padding: 7px 12px 8px 10px; border: 0; background: none; text-align: left; cursor: pointer; }
    a.open { color: inherit; text-decoration: none; }
    .open { position: absolute; right: 8px; bottom: 15px; padding: 0 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); font-size: 11.5px; cursor: pointer; }
    .open[aria-pressed='true'] { background: var(--uv-black); color: var(--uv-on-black); border-color: var(--uv-black); }
    button:focus-visible { z-index: 1; }
    .part:focus-visible { position: relative; }
    .head { display: flex; justify-content: space-between; gap: 8px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .count { font-size: 12px; }
    .kind.beside { padding-right: 54px; }
    .kind { font-size: 12px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    .track { height: 5px; background: var(--uv-line); }
    .track span { display: block; height: 100%; }
    .empty { padding: 0 14px; }
    .hint { padding: 0 14px 8px; font-size: 12.5px; }
    .hint a { color: inherit; }
  `,
})
export class PartsList {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly parts = input.required<readonly PartEntry[]>();
  readonly progress = input.required<readonly PartProgress[]>();
  /** Id of the part the target is in. */
  readonly current = input<number | null>(null);
  /** Whether the brand has colours to be matched to. */
  readonly hasPalette = input(true);
  /** Ids of the parts that are shown otherwise than captured: hidden ones opened, others put away. */
  readonly opened = input<readonly number[]>([]);
  /** Emits the running number of a part's outermost element. */
  readonly chosen = output<number>();
  /** What every page has that is no part of any. */
  readonly siteWide = input<readonly Spoken<SiteWideTarget>[]>([]);
  readonly siteWideChosen = output<Spoken<SiteWideTarget>>();
  /** Emits the id of a part to be opened or closed. */
  readonly toggled = output<number>();

  protected readonly rows = computed(() =>
    this.parts().flatMap((part) => {
      const progress = this.progress().find(({ partId }) => partId === part.id);
      if (!progress || progress.elements.length === 0) return [];
      const { places, matched, reachability } = progress;
      const isOpened = this.opened().includes(part.id);
      const words = REACHABILITY_WORDS[reachability];
      const tag =
        reachability === 'in page'
          ? partKindWords(part.kind) + (progress.isHidden ? wordsOf('bench.hidden') : '')
          : reachability === 'framed'
            ? wordsOf('match.framed-settings-only')
            : wordsOf('bench.shadow-root');
      // What has no opener stands open as it was captured, and can be put away.
      const isHideable = part.openers.length === 0;
      const canOpen = isOpened || (isHideable ? progress.isOver && !progress.isHidden : progress.isHidden);
      const [act, back] = isHideable
        ? [wordsOf('bench.close'), wordsOf('bench.show')]
        : [wordsOf('bench.open'), wordsOf('bench.close')];
      return [
        {
          ...part,
          places,
          matched,
          reachability,
          words: words || partKindWords(part.kind),
          tag,
          isOpened,
          canOpen,
          verb: isOpened ? back : act,
          first: progress.elements[0],
        },
      ];
    }),
  );
}
