import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { askEngine } from '../../shared/engine/ask-engine';
import type { DriftPicture, DriftProposalView, DriftView } from '../../shared/engine/drift-api';
import { Engine } from '../../shared/engine/engine';
import { ScopePicture } from '../../shared/frame/scope-picture';
import { DriftStore } from '../../shared/proof/drift-store';
import { ProofStore } from '../../shared/proof/proof-store';

/** Width at which a place is drawn where an override is for every width, CSS px. */
const USUAL_WIDTH = 1280;

/** One override that drifted: its place before the new capture and now, and what would put it right. */
@Component({
  selector: 'uv-drift-detail',
  imports: [Button, Checkbox, FormsModule, RouterLink, ScopePicture],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ drift().isName || drift().wasName || drift().override.selector }}</h2>
      <p class="uv-soft">{{ drift().gloss }}</p>
    </header>
    @if (drift().place; as place) {
      @if (picture(); as drawn) {
        <div class="pictures">
          @if (place.was !== null) {
            <uv-scope-picture
              [heading]="wordsOf('proof.before', { wasName: drift().wasName })" [page]="store.framedBefore(place.formerId, drawn.formerCss)" [width]="width()"
              [element]="place.was" [forced]="drawn.forcedBefore"
            />
          } @else {
            <p class="none uv-soft" i18n>It is new on the page.</p>
          }
          @if (place.is !== null) {
            <uv-scope-picture
              [heading]="wordsOf('proof.put-right-now', { case: right() ? 'yes' : 'no', isName: drift().isName })" [page]="proof.framed(place.pageId, right()?.frameCss ?? nowCss())"
              [width]="width()" [element]="place.is" [forced]="drawn.forcedNow"
            />
          } @else {
            <p class="none uv-soft" i18n>Nothing on the page is like it now.</p>
          }
        </div>
      }
    }
    <dl>
      <dt i18n>It was</dt><dd class="uv-mono">{{ drift().override.selector }}</dd>
      @if (right(); as proposal) {
        <dt>{{ proposal.put.length > 0 ? wordsOf('proof.becomes') : wordsOf('proof.goes') }}</dt>
        <dd class="uv-mono">{{ becomes() }}</dd>
      }
    </dl>
    @if (right(); as proposal) {
      @if (proposal.put.length > 0) {
        <p
          class="basis uv-soft"
          i18n>Reaches {{ figure(proposal.reaches) }} {proposal.reaches, plural, =1 {element} other {elements}} on {{ proposal.pages }} {proposal.pages, plural, =1 {page} other {pages}}: what its targets became, by their names, texts and places, and no other.</p>
        <label class="keep" for="keeps-first">
          <p-checkbox [binary]="true" [ngModel]="keepsFirst()" (ngModelChange)="keepsFirst.set($event)" inputId="keeps-first" />
          <span i18n>Keep the old selector beside it, for pages still served as they were</span>
        </label>
      }
      <div class="acts">
        <p-button [label]="proposal.put.length > 0 ? wordsOf('proof.put-right') : wordsOf('proof.take-out')" size="small" (onClick)="store.take(drift(), proposal)" />
        @if (drift().place; as place) {
          @if (place.is !== null) {
            <a class="bench" routerLink="/bench" [queryParams]="{ page: place.pageId, element: place.is }" i18n>Bench</a>
          }
        }
        <p-button label="Right as it is" i18n-label [outlined]="true" size="small" (onClick)="store.settle([drift()])" />
      </div>
    } @else if (tried(); as answer) {
      @if (!answer.ok) { <p class="basis" i18n>Nothing is proposed: {{ answer.reason }}</p> }
      <div class="acts">
        @if (drift().place; as place) {
          @if (place.is !== null) {
            <a class="bench" routerLink="/bench" [queryParams]="{ page: place.pageId, element: place.is }" i18n>Bench</a>
          }
        }
        <p-button label="Right as it is" i18n-label [outlined]="true" size="small" (onClick)="store.settle([drift()])" />
      </div>
    }
    @if (drift().isIdleInPart) {
      <p class="basis"><ng-container i18n>One of its selectors matches nothing any more. </ng-container><p-button label="Drop it" i18n-label [text]="true" size="small" (onClick)="store.dropIdle(drift())" /></p>
    }
  `,
  styles: `
    :host { display: block; padding: 10px 14px 14px; }
    h2 { font-size: 15px; font-weight: 700; overflow-wrap: anywhere; }
    header p, .basis { font-size: 12.5px; overflow-wrap: anywhere; }
    .pictures { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; height: 190px; margin: 10px 0; background: var(--uv-mat); }
    .none { display: grid; place-content: center; padding: 10px; background: var(--uv-panel); font-size: 12.5px; text-align: center; }
    dl { display: grid; grid-template-columns: max-content minmax(0, 1fr); gap: 3px 10px; margin: 8px 0; font-size: 12.5px; }
    dt { color: var(--uv-soft); }
    dd { margin: 0; overflow-wrap: anywhere; }
    .keep { display: flex; gap: 8px; align-items: center; min-height: 24px; margin: 8px 0; font-size: 13px; cursor: pointer; }
    .acts { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin: 8px 0; }
    .bench { padding: 4px 11px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 13px; font-weight: 600; text-decoration: none; }
    .bench:hover { background: var(--uv-bar); }
  `,
})
export class DriftDetail {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly drift = input.required<DriftView>();
  /** The veneer as it is now, for a frame. */
  readonly nowCss = input.required<string>();

  protected readonly store = inject(DriftStore);
  protected readonly proof = inject(ProofStore);
  readonly #engine = inject(Engine);

  protected readonly keepsFirst = linkedSignal<string, boolean>({
    source: () => this.drift().override.id,
    computation: () => false,
  });
  protected readonly width = computed(() => {
    const { min, max } = this.drift().override.widths ?? {};
    return max ?? min ?? USUAL_WIDTH;
  });
  protected readonly picture = toSignal(
    toObservable(this.drift).pipe(
      askEngine<DriftView, DriftPicture | null>(
        this.#engine,
        ({ override }, engine) => engine.driftPicture(override.id),
        null,
      ),
    ),
    { initialValue: null },
  );
  readonly #asked = computed(() => ({
    id: this.drift().override.id,
    drift: this.drift(),
    keepsFirst: this.keepsFirst(),
  }));
  protected readonly tried = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ id: string; keepsFirst: boolean }, DriftProposalView | null>(
        this.#engine,
        ({ id, keepsFirst }, engine) => engine.proposeDrift(id, keepsFirst),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly right = computed(() => {
    const tried = this.tried();
    return tried?.ok ? tried : null;
  });
  protected readonly becomes = computed(() => {
    const { put } = this.right() ?? { put: [] };
    return put.length === 0
      ? wordsOf('proof.nothing-what-was-for')
      : [...new Set(put.map(({ selector }) => selector))].join(' and ');
  });
}
