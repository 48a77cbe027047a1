import { figure, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { GroupOffer, Inspection, ReachOffers } from '@upper-veneer/core';
import { Popover } from 'primeng/popover';
import { debounceTime } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import { SiteStore } from '../../shared/site/site-store';
import { BenchActs } from '../store/bench-acts';
import { BenchSelection } from '../store/bench-selection';

/** The natural groups a target is in, from narrow to wide, drawn on the page before one is chosen; and what looks like it and is not taken. */
@Component({
  selector: 'uv-reach-groups',
  imports: [Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (groups().length > 0) {
      <button
        type="button" class="link" [class.chosen]="selection.reach() === 'group'" (click)="panel.toggle($event)"
        aria-haspopup="dialog">{{ selection.reach() === 'group' ? chosenWords() : countWords() }}</button>
    }
    @if (lookAlikes().length > 0) {
      <button type="button" class="link" (pointerenter)="selection.shown.set(lookAlikes())" (pointerleave)="selection.shown.set([])" (click)="selection.shown.set(lookAlikes())" [title]="wordsOf('bench.elements-same-kind-look', { case: isPartial() ? 'yes' : 'no', looked: offers()?.looked ?? 0, captured: site.captured().length })" i18n>{{ isPartial() ? wordsOf('bench.least') : '' }}{{ lookAlikes().length }} more {lookAlikes().length, plural, =1 {looks} other {look}} like it</button>
    }
    <p-popover #panel ariaLabel="Groups it is in" i18n-ariaLabel (onHide)="selection.shown.set([])">
      <ng-template #content>
        <div class="panel">
          <h2 i18n>Groups it is in</h2>
          <ul>
            @for (group of groups(); track group.selectors[0]) {
              <li [class.on]="isChosen(group)">
                <button type="button" class="group" [attr.autofocus]="$first ? '' : null" (pointerenter)="selection.shown.set(group.places)" (pointerleave)="selection.shown.set([])" (focus)="selection.shown.set(group.places)" (blur)="selection.shown.set([])" (click)="choose(group.selectors[0]); panel.hide()">
                  <strong>{{ group.words }}</strong><span class="uv-soft" i18n>{{ figure(group.elements) }} on {{ group.pages }} {group.pages, plural, =1 {page} other {pages}}{{ group.isOneLook ? wordsOf('bench.all-look') : wordsOf('bench.several-looks') }}</span>
                </button>
                @for (selector of group.selectors; track selector; let first = $first) {
                  <button
                    type="button" class="selector uv-mono" [attr.aria-pressed]="selection.group() === selector"
                    [title]="first ? wordsOf('bench.shortest-gathers-them') : wordsOf('bench.gathers-same', { elements: group.elements })"
                    (click)="choose(selector); panel.hide()">{{ selector }}</button>
                }
              </li>
            }
          </ul>
          @if ((offers()?.found ?? 0) > groups().length) {
            <p
              class="uv-soft"
              i18n>{{ (offers()?.found ?? 0) - groups().length }} more are left out: wider ones, and those of several looks.</p>
          }
          @if (isPartial()) {
            <p
              class="uv-soft"
              i18n>{{ offers()?.looked }} of {{ site.site()?.pages?.length }} pages were looked at for groups; what a group takes is counted on all.</p>
          }
        </div>
      </ng-template>
    </p-popover>
  `,
  styles: `
    :host { display: contents; }
    .link { padding: 0; border: 0; background: none; color: var(--uv-soft); font-size: 12px; text-decoration: underline; cursor: pointer; }
    .link.chosen { color: var(--uv-ink); font-weight: 700; max-width: 240px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .panel { width: min(360px, 84vw); max-height: 440px; overflow-y: auto; font-size: 12.5px; }
    h2 { margin: 0 0 4px; font-size: 12.5px; font-weight: 700; }
    ul { margin: 0; padding: 0; list-style: none; }
    li { padding: 5px 0 6px; border-top: 1px solid var(--uv-line); }
    li.on { border-left: 4px solid var(--uv-ink); padding-left: 6px; }
    .group { display: flex; justify-content: space-between; gap: 10px; width: 100%; padding: 0; border: 0; background: none; color: var(--uv-ink); font: inherit; text-align: left; cursor: pointer; }
    .group span { flex: none; font-size: 12px; }
    .selector { display: block; max-width: 100%; margin-top: 2px; padding: 0 4px; border: 1px solid transparent; background: none; color: var(--uv-soft); font-size: 11.5px; text-align: left; overflow-wrap: anywhere; cursor: pointer; }
    .selector:hover { border-color: var(--uv-line-strong); }
    .selector[aria-pressed='true'] { border-color: var(--uv-ink); color: var(--uv-ink); }
    p { margin-top: 6px; font-size: 12px; }
  `,
})
export class ReachGroups {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  protected readonly site = inject(SiteStore);
  protected readonly selection = inject(BenchSelection);
  protected readonly acts = inject(BenchActs);
  readonly #engine = inject(Engine);
  readonly inspection = input.required<Spoken<Inspection>>();

  readonly #question = computed(() => {
    const { pageId, element, pseudo } = this.inspection();
    return {
      pageId,
      element,
      pseudo,
      reach: this.selection.reach(),
      group: this.selection.group(),
      pages: this.selection.pages(),
      spared: this.selection.spared(),
    };
  });
  protected readonly offers = toSignal<Spoken<ReachOffers> | null, null>(
    toObservable(this.#question).pipe(
      debounceTime(120),
      askEngine(
        this.#engine,
        (question, engine): Promise<Spoken<ReachOffers> | null> | null =>
          question.pseudo === '' ? engine.reachOffers(question) : null,
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly groups = computed<readonly Spoken<GroupOffer>[]>(() => this.offers()?.groups ?? []);
  protected readonly lookAlikes = computed(() => this.offers()?.lookAlikes ?? []);
  protected readonly countWords = computed(() => {
    const [shown, found] = [this.groups().length, this.offers()?.found ?? 0];
    return wordsOf('bench.group-count', { case: shown < found ? 'yes' : 'no', shown, found });
  });
  protected readonly isPartial = computed(() => (this.offers()?.looked ?? 0) < this.site.captured().length);
  protected readonly chosenWords = computed(
    () => this.groups().find((group) => this.isChosen(group))?.words ?? this.selection.group() ?? '',
  );

  protected isChosen({ selectors }: Spoken<GroupOffer>): boolean {
    return this.selection.reach() === 'group' && selectors.includes(this.selection.group() ?? '');
  }

  protected choose(selector: string): void {
    this.selection.shown.set([]);
    this.acts.setReach('group', selector);
  }
}
