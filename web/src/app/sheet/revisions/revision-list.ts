import { moment, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, viewChild } from '@angular/core';
import type { RevisionDocument } from '@upper-veneer/contract';
import { MessageService, type MenuItem } from 'primeng/api';
import { Button } from 'primeng/button';
import { Menu } from 'primeng/menu';
import { DraftEdits } from '../../shared/site/draft-edits';
import { SiteStore } from '../../shared/site/site-store';
import { TrialsStore } from '../../shared/trials/trials-store';

/** Saved revisions, the newest first; the chosen one can be brought back, whole or a part of it, and published. */
@Component({
  selector: 'uv-revision-list',
  imports: [Button, Menu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>Revisions</h2>
    <ul>
      @for (revision of revisions(); track revision.number) {
        <li [class.chosen]="revision.number === chosen()">
          <button type="button" class="row" [attr.aria-pressed]="revision.number === chosen()" (click)="choose.emit(revision.number)">
            <strong>{{ revision.number }}</strong>
            <span class="note">{{ revision.note || wordsOf('sheet.no-note') }}</span>
            <span class="marks">{{ marksOf(revision.number) }}</span>
            <span class="uv-soft facts">
              <ng-container i18n>{{ moment(revision.savedAt, 'short') }} · {{ revision.rules }} {revision.rules, plural, =1 {rule} other {rules}}</ng-container>
              @if (revision.proof; as proof) {
                <ng-container i18n> · {{ proof.fails }} {proof.fails, plural, =1 {fails} other {fail}}</ng-container>
              }
              @if (revision.isUntidied) {
                <ng-container i18n>, <b>not tidied</b>: that took too long or failed, so the sheet is longer than it need be</ng-container>
              }
            </span>
          </button>
          @for (words of decidedFor(revision.number); track words) { <p class="uv-soft decided">{{ words }}</p> }
          @if (revision.number === chosen()) {
            <div class="acts">
              <p-button label="Bring back…" i18n-label [outlined]="true" size="small" [disabled]="kept() === null || revision.number === site.draft()?.equalsRevision" (onClick)="menu.toggle($event)" />
              <p-button label="Publish it" i18n-label [outlined]="true" size="small" [disabled]="revision.number === site.draft()?.publishedRevision" (onClick)="publish(revision.number)" />
            </div>
          }
        </li>
      } @empty {
        <li class="none uv-soft" i18n>None saved yet. A revision is a way back.</li>
      }
    </ul>
    <p-menu #menu [model]="ways()" [popup]="true" appendTo="body" />
    @if (left().length > 0) {
      <details class="left">
        <summary i18n>{{ wordsOf('sheet.draft-was-drafts-were', { left: left().length }) }} left behind</summary>
        <ul>
          @for (own of left(); track own.id) {
            <li><span i18n><strong>{{ moment(own.leftAt, 'day and time') }}</strong> {{ own.count }} {own.count, plural, =1 {override} other {overrides}}<br /><span class="uv-soft">{{ own.steps }} {own.steps, plural, =1 {step} other {steps}} undone and written over, the last: {{ own.label }}</span></span>
              <p-button label="Bring back" i18n-label [outlined]="true" size="small" (onClick)="bringLeft(own.id)" /></li>
          }
        </ul>
      </details>
    }
    <p class="uv-soft told" role="status">{{ told() }}</p>
  `,
  styles: `
    h2 { margin: 4px 16px 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    ul { margin: 0; padding: 0; border-bottom: 1px solid var(--uv-line); list-style: none; }
    li { border-top: 1px solid var(--uv-line); border-left: 4px solid transparent; overflow-wrap: anywhere; }
    li.chosen { border-left-color: var(--uv-ink); background: var(--uv-paper); }
    li.none { padding: 9px 16px; }
    .row { display: grid; grid-template-columns: 26px minmax(0, 1fr) auto; gap: 1px 6px; width: 100%; padding: 8px 16px 8px 12px; border: 0; background: none; color: inherit; text-align: left; cursor: pointer; }
    .row:hover .note { text-decoration: underline; }
    .marks { font-size: 12px; }
    .facts { grid-column: 2 / -1; font-size: 12.5px; }
    .decided { margin: 0; padding: 0 16px 8px 44px; font-size: 12.5px; }
    .acts { display: flex; gap: 6px; padding: 0 16px 10px 42px; }
    .left { margin: 8px 16px 0; font-size: 12.5px; }
    .left summary { cursor: pointer; }
    .left li { display: flex; justify-content: space-between; align-items: center; gap: 8px; padding: 6px 0; }
    .told { margin: 6px 16px 0; font-size: 12.5px; }
    .told:empty { display: none; }
  `,
})
export class RevisionList {
  protected readonly wordsOf = wordsOf;
  protected readonly moment = moment;

  readonly chosen = input.required<number | null>();
  /** The chosen one as it was saved; `null` while it is read. */
  readonly kept = input.required<RevisionDocument | null>();
  readonly choose = output<number>();

  protected readonly site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #messages = inject(MessageService);
  protected readonly menu = viewChild.required(Menu);
  protected readonly revisions = computed(() => this.site.draft()?.revisions ?? []);
  protected readonly told = signal('');
  readonly #trials = inject(TrialsStore);
  /** What trials that were decided for a look of a revision came to, by its number. */
  readonly #decided = computed(() => {
    const found = new Map<number, string[]>();
    for (const { name, looks, decision } of this.#trials.trials()) {
      const revision = looks.find(({ variation }) => variation === decision?.winner)?.revision;
      if (!decision || revision === undefined) continue;
      const { sums } = decision.figures;
      const rates = sums.map(({ variation, rate, seen }) =>
        wordsOf('sheet.share-of-seen', {
          variation,
          percent: (100 * rate).toFixed(2),
          seen,
        }),
      );
      const words = wordsOf('sheet.decided-for', {
        name,
        winner: decision.winner,
        who: decision.who,
        at: decision.at.slice(0, 10),
        why: decision.why,
        rates,
      });
      found.set(revision, [...(found.get(revision) ?? []), words]);
    }
    return found;
  });
  protected readonly left = computed(() => this.site.draft()?.leftDrafts ?? []);
  /** What of the chosen revision can come back. */
  protected readonly ways = computed((): MenuItem[] => {
    const kept = this.kept();
    if (!kept) return [];
    const parts = this.site.site()?.parts ?? [];
    const counts = new Map<number | null, number>();
    for (const { partId } of kept.overrides) counts.set(partId, (counts.get(partId) ?? 0) + 1);
    const named = [...counts].flatMap(([id, count]) => {
      const name = id === null ? wordsOf('sheet.everywhere') : parts.find((part) => part.id === id)?.name;
      return name === undefined ? [] : [{ label: `${name}, ${count}`, command: () => this.#bring(kept.number, id) }];
    });
    return [
      {
        label: wordsOf('sheet.whole-revision', { overrides: kept.overrides.length }),
        command: () => this.#bring(kept.number, 'all'),
      },
      ...(named.length > 1 ? [{ separator: true }, ...named] : []),
    ];
  });

  protected decidedFor(revision: number): readonly string[] {
    return this.#decided().get(revision) ?? [];
  }

  protected marksOf(number: number): string {
    const draft = this.site.draft();
    return [
      number === draft?.publishedRevision ? 'published' : '',
      number === draft?.equalsRevision ? wordsOf('sheet.draft') : '',
    ]
      .filter((mark) => mark !== '')
      .join(', ');
  }

  protected publish(number: number): void {
    this.#edits.publishRevision(number).subscribe(() =>
      this.#messages.add({
        severity: 'contrast',
        summary: wordsOf('sheet.published'),
        detail: wordsOf('sheet.revision-what-visitors-now', { number }),
        life: 8000,
      }),
    );
  }

  protected bringLeft(id: number): void {
    this.#edits.bringLeftBack(id).subscribe(() => this.told.set(wordsOf('sheet.draft-here-again-undo')));
  }

  #bring(number: number, part: number | null | 'all'): void {
    this.#edits
      .bringBack(number, part, ({ stranded, colorless, isWhole }) => {
        const away =
          awayWords(stranded, wordsOf('sheet.page-gone')) +
          awayWords(colorless, wordsOf('sheet.nobody-can-tell-their'));
        const lead =
          part !== 'all'
            ? wordsOf('sheet.part-as-revision-had', { number })
            : isWhole
              ? wordsOf('sheet.draft-as-revision-had', { number })
              : wordsOf('sheet.overrides-revision-are-back', { number });
        this.told.set(wordsOf('sheet.undo-takes-back', { lead, away }));
      })
      .subscribe();
  }
}

function awayWords(count: number, why: string): string {
  return count === 0 ? '' : ` ${count} ${wordsOf('sheet.override-stays-overrides-stay', { count })} away: ${why}.`;
}
