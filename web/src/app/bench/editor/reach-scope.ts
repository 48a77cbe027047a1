import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { ROW_PROPERTIES, type Inspection, type Reach, type Spot } from '@upper-veneer/core';
import { Popover } from 'primeng/popover';
import { SiteStore } from '../../shared/site/site-store';
import { BenchActs } from '../store/bench-acts';
import { BenchSelection } from '../store/bench-selection';

const MOST_MATCHES = 60;

/** Narrows the reach: to some pages, and by leaving single matches out. */
@Component({
  selector: 'uv-reach-scope',
  imports: [Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="open" [class.narrowed]="isNarrowed()" (click)="panel.toggle($event)" aria-haspopup="dialog">{{ words() }}</button>
    <p-popover #panel ariaLabel="Pages and matches" i18n-ariaLabel>
      <ng-template #content>
        <div class="panel">
          <section>
            <h2 i18n>Pages</h2>
            <label><input
              type="checkbox" autofocus [checked]="selection.pages() === null"
              (change)="acts.setPages(selection.pages() === null ? [selection.pageId()] : null)"
              /> <ng-container i18n> All pages</ng-container></label>
            @for (page of site.captured(); track page.id) {
              <label><input
                type="checkbox" [disabled]="selection.pages() === null" [checked]="isOn(page.id)"
                (change)="togglePage(page.id)" />
                {{ page.name }}</label>
            }
            <p class="uv-soft" i18n>A page is told from others by a class or id of its own.</p>
          </section>
          <section>
            <h2 i18n>Matches</h2>
            @for (match of matches(); track match.key) {
              <span class="match" (pointerenter)="selection.shown.set([match])" (pointerleave)="selection.shown.set([])">
                <label [title]="match.words">
                  <input
                    type="checkbox" [checked]="match.isIn" [disabled]="match.isLead"
                    (change)="acts.toggleSpared(match.pageId, match.element)" (focus)="selection.shown.set([match])"
                    (blur)="selection.shown.set([])" />
                  <span>{{ match.words }}</span>
                </label>
                @if (!match.isLead) {
                  <button
                    type="button" (click)="go(match); panel.hide()"
                    [attr.aria-label]="wordsOf('bench.go', { words: match.words })" i18n>Go</button>
                }
              </span>
            } @empty { <p class="uv-soft" i18n>Only the one chosen.</p> }
            @if (hiddenMatches() > 0) {
              <button type="button" class="open" (click)="most.set(most() + 200)" i18n>{{ hiddenMatches() }} more</button>
            }
          </section>
        </div>
      </ng-template>
    </p-popover>
  `,
  styles: `
    .open { padding: 0; border: 0; background: none; color: var(--uv-soft); font-size: 12px; text-decoration: underline; cursor: pointer; }
    .open.narrowed { color: var(--uv-ink); font-weight: 700; }
    .panel { display: grid; grid-template-columns: 160px 300px; gap: 18px; max-height: 420px; overflow-y: auto; font-size: 12.5px; }
    @media (max-width: 900px) { .panel { grid-template-columns: minmax(0, 1fr); width: min(300px, 84vw); max-height: 60vh; } }
    h2 { margin: 0 0 4px; font-size: 12.5px; font-weight: 700; }
    label { display: flex; gap: 6px; align-items: center; min-height: 24px; }
    .match { display: flex; align-items: center; gap: 6px; }
    .match label { flex: 1; min-width: 0; }
    .match label span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .match button { padding: 0 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 11.5px; cursor: pointer; }
    input { margin: 0; accent-color: var(--uv-black); }
    p { margin-top: 6px; font-size: 12px; }
  `,
})
export class ReachScope {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly selection = inject(BenchSelection);
  protected readonly acts = inject(BenchActs);
  readonly inspection = input.required<Spoken<Inspection>>();
  readonly reach = input.required<Reach>();

  /** Matches that are listed. */
  protected readonly most = linkedSignal({
    source: () => `${this.inspection().pageId}/${this.inspection().element}`,
    computation: () => MOST_MATCHES,
  });
  protected readonly isNarrowed = computed(() => this.selection.pages() !== null || this.selection.spared().length > 0);
  protected readonly words = computed(() => {
    const pages = this.selection.pages();
    const spared = this.selection.spared().length;
    return this.isNarrowed()
      ? [
          pages ? wordsOf('bench.page-pages-only', { pages: pages.length }) : '',
          spared > 0 ? wordsOf('bench.left-out', { spared }) : '',
        ]
          .filter(Boolean)
          .join(', ')
      : wordsOf('bench.pages-matches');
  });
  readonly #all = computed(() => {
    const places = this.inspection().reach.find(({ reach }) => reach === this.reach())?.places ?? [];
    return [
      ...places.map((spot) => ({ ...spot, isIn: true })),
      ...this.selection.spared().map((spot) => ({ ...spot, name: '', isIn: false })),
    ].sort((a, b) => a.pageId - b.pageId || a.element - b.element);
  });
  protected readonly hiddenMatches = computed(() => Math.max(0, this.#all().length - this.most()));
  protected readonly matches = computed(() => {
    const names = new Map((this.site.site()?.pages ?? []).map(({ id, name }) => [id, name]));
    const { pageId, element } = this.inspection();
    const counts = new Map<number, number>();
    return this.#all()
      .slice(0, this.most())
      .map((spot) => {
        const nth = (counts.get(spot.pageId) ?? 0) + 1;
        counts.set(spot.pageId, nth);
        const isLead = spot.pageId === pageId && spot.element === element;
        return {
          ...spot,
          key: `${spot.pageId}/${spot.element}`,
          isLead,
          words: `${names.get(spot.pageId) ?? ''}: ${spot.name || wordsOf('bench.number', { nth })}${isLead ? wordsOf('bench.chosen') : ''}`,
        };
      });
  });

  /** Chooses a match, on whichever page it is. */
  protected go({ pageId, element }: Spot): void {
    const { row, state } = this.selection.cell();
    this.selection.showSpot({
      page: pageId,
      element,
      pseudo: this.inspection().pseudo,
      property: ROW_PROPERTIES[row][0].property,
      state,
    });
  }

  protected isOn(pageId: number): boolean {
    return this.selection.pages()?.includes(pageId) ?? true;
  }

  protected togglePage(pageId: number): void {
    const pages = this.selection.pages() ?? [];
    const next = pages.includes(pageId)
      ? pages.filter((id) => id !== pageId)
      : [...pages, pageId].sort((a, b) => a - b);
    if (next.length > 0) this.acts.setPages(next);
  }
}
