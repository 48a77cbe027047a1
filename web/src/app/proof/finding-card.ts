import { figure, say, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { proofStateTold, leadingState } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import type { PlacePicture } from '../shared/engine/place-picture';
import type { FindingView, MendView, ProofPlaceView, ProofView } from '../shared/engine/proof-api';
import type { FramedPage } from '../shared/frame/framed-page';
import { ScopePicture } from '../shared/frame/scope-picture';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';
import { ProofStore } from '../shared/proof/proof-store';
import { figureWords, whereWords } from './proof-words';

/** Places of a finding that are listed. */
const MOST_LISTED = 12;

/** One cause: its figure, where it shows, its worst place as it is and mended, and what can be done about it. */
@Component({
  selector: 'uv-finding-card',
  imports: [Button, FormsModule, InputText, RouterLink, ScopePicture, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>
      <button type="button" class="head" [attr.aria-expanded]="isOpen()" (click)="toggled.emit()">
        <uv-standing [standing]="finding().level" />
        <span class="title">{{ finding().title }}</span>
        <span class="uv-mono figure">{{ worst() }}</span>
      </button>
    </h3>
    <p class="uv-soft where">{{ where() }}</p>
    @if (isOpen()) {
      @if (picture(); as drawn) {
        <div class="pictures">
          <uv-scope-picture
            heading="Now" i18n-heading [page]="pageNow(drawn)" [width]="drawn.width" [element]="drawn.element"
            [forced]="drawn.forced"
          />
          @if (mended(); as mend) {
            <uv-scope-picture
              heading="Mended" i18n-heading [page]="pageWith(drawn, mend.frameCss)" [width]="drawn.width" [element]="drawn.element"
              [forced]="drawn.forced"
            />
          } @else {
            <p class="uv-soft none" role="status">{{ noMend() }}</p>
          }
        </div>
      }
      @if (mended(); as mend) { <p class="mend">{{ mend.label }}</p> }
      @if (isLeaving()) {
        <form class="leave" (ngSubmit)="leave()">
          <input
            pInputText pSize="small" name="reason" autocomplete="off" maxlength="200" placeholder="Why, for instance: the maker’s own seal" i18n-placeholder
            aria-label="Reason to leave it alone" i18n-aria-label [ngModel]="reason()" (ngModelChange)="reason.set($event)"
          />
          <p-button type="submit" label="Leave alone" i18n-label size="small" [disabled]="reason().trim() === ''" />
          <p-button label="Cancel" i18n-label [text]="true" size="small" (onClick)="isLeaving.set(false)" />
        </form>
        <p class="basis">{{ leaveWords() }}</p>
        @if (cannotLeave()) {
          <p class="cannot" role="alert" i18n>No selector tells these places from others; an exception can be written in the Palette.</p>
        }
      } @else {
        <div class="acts">
          @if (mended(); as mend) {
            <p-button
              [label]="wordsOf('proof.take-take-for-all', { things: finding().things })" size="small"
              (onClick)="store.take(finding(), mend)"
            />
          }
          @if (places()[0]; as lead) {
            <a class="bench" routerLink="/bench" [queryParams]="spotOf(lead)" i18n>Bench</a>
          }
          @if (finding().kind !== 'holds' && finding().kind !== 'inside') {
            <p-button label="Leave alone…" i18n-label [outlined]="true" size="small" (onClick)="isLeaving.set(true)" />
          }
        </div>
      }
      <p class="basis">{{ finding().basis }}</p>
      @if (finding().kind !== 'holds' && places().length > 1) {
        <ul>
          @for (place of listed(); track $index) {
            <li><a routerLink="/bench" [queryParams]="spotOf(place)">{{ place.name }}</a><span class="uv-soft">{{ placeWords(place) }}</span></li>
          }
        </ul>
        @if (more() > 0) { <p class="uv-soft" i18n>and {{ figure(more()) }} more</p> }
      }
    }
  `,
  styles: `
    :host { display: block; min-width: 0; padding: 9px 14px 11px; border-top: 1px solid var(--uv-line); }
    .head { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 4px; width: 100%; padding: 2px 0; border: 0; background: none; font-weight: 700; text-align: left; cursor: pointer; }
    .head:hover .title { text-decoration: underline; }
    .title { overflow-wrap: anywhere; }
    .figure { padding-left: 8px; white-space: nowrap; }
    .where { padding-left: 20px; font-size: 12.5px; }
    .pictures { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; height: 150px; margin: 8px 0; background: var(--uv-mat); }
    .mend { font-weight: 600; }
    .none { display: grid; align-content: center; padding: 10px; background: var(--uv-panel); font-size: 12.5px; }
    .acts, .leave { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin: 6px 0; }
    .leave input { flex: 1; min-width: 160px; }
    .bench { padding: 4px 11px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 13px; font-weight: 600; text-decoration: none; }
    .bench:hover { background: var(--uv-bar); }
    .basis { font-size: 12.5px; color: var(--uv-soft); overflow-wrap: anywhere; }
    .cannot { color: var(--uv-fails); font-size: 12.5px; }
    ul { margin: 6px 0 0; padding: 0; list-style: none; font-size: 12.5px; }
    li { display: flex; gap: 8px; justify-content: space-between; padding: 2px 0; }
    li a { min-width: 24px; min-height: 24px; line-height: 24px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    li span { white-space: nowrap; }
    a { color: inherit; }
  `,
})
export class FindingCard {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly finding = input.required<FindingView>();
  readonly proof = input.required<ProofView>();
  readonly isOpen = input(false);
  readonly toggled = output();

  protected readonly store = inject(ProofStore);
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);

  protected readonly worst = computed(() => figureWords(this.finding()));
  protected readonly where = computed(() => whereWords(this.finding(), this.#site.site()?.pages ?? [], this.proof()));
  readonly #asked = computed(() => (this.isOpen() ? { finding: this.finding(), proof: this.proof() } : null));
  protected readonly picture = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ finding: FindingView } | null, PlacePicture | null>(
        this.#engine,
        (asked, engine) => (asked && asked.finding.kind !== 'holds' ? engine.placePicture(asked.finding.id) : null),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly places = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ finding: FindingView } | null, readonly ProofPlaceView[]>(
        this.#engine,
        (asked, engine) => (asked ? engine.proofPlaces(asked.finding.id) : null),
        [],
      ),
    ),
    { initialValue: [] },
  );
  readonly #tried = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ finding: FindingView } | null, MendView | null>(
        this.#engine,
        (asked, engine) => (asked?.finding.mayMend ? engine.mendOf(asked.finding.id) : null),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly mended = computed(() => {
    const tried = this.#tried();
    return tried?.ok ? tried : null;
  });
  protected readonly noMend = computed(() => {
    const tried = this.#tried();
    if (!this.finding().mayMend) return wordsOf('proof.what-would-mend-for');
    return tried && !tried.ok
      ? wordsOf('proof.no-mend-offered', { reason: tried.reason })
      : wordsOf('proof.looking-for-mend-makes');
  });
  protected readonly listed = computed(() => this.places().slice(0, MOST_LISTED));
  protected readonly more = computed(() => this.finding().placeCount - this.listed().length);
  /** What leaving it alone brings about. */
  protected readonly leaveWords = computed(() =>
    this.finding().kind === 'ours'
      ? wordsOf('proof.exception-this-colour-passed')
      : wordsOf('proof.exception-these-places-are'),
  );
  protected readonly isLeaving = linkedSignal<string, boolean>({
    source: () => this.finding().id,
    computation: () => false,
  });
  protected readonly reason = signal('');
  protected readonly cannotLeave = signal(false);

  protected pageNow(drawn: PlacePicture): FramedPage {
    return this.pageWith(drawn, this.#site.veneer().frameCss);
  }

  protected pageWith(drawn: PlacePicture, frameCss: string): FramedPage {
    return this.store.pictured(drawn, frameCss);
  }

  protected spotOf({
    pageId,
    element,
    pseudo,
    property,
    state,
    setting,
  }: ProofPlaceView): Record<string, string | number> {
    return {
      page: pageId,
      element,
      ...(pseudo === '' ? {} : { pseudo }),
      property,
      state: leadingState(state),
      width: setting.width,
    };
  }

  protected placeWords({ pageId, state, setting, overPicture }: ProofPlaceView): string {
    const page = this.#site.site()?.pages.find(({ id }) => id === pageId)?.name ?? '';
    const figure = overPicture === null ? '' : `${figureWords({ figure: overPicture, unit: 'ratio' })}, `;
    return `${figure}${page}, ${say(proofStateTold(state)).toLowerCase()}, ${setting.width} px`;
  }

  protected leave(): void {
    this.cannotLeave.set(false);
    void this.store.leaveAlone(this.finding(), this.reason().trim()).then((isLeft) => this.cannotLeave.set(!isLeft));
  }
}
