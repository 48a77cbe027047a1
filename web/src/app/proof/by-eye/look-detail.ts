import { say, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { PROOF_STATES, proofStateTold, USUAL_WIDTHS, type ProofState } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import type { LookPicture } from '../../shared/engine/proof-api';
import type { FramedPage } from '../../shared/frame/framed-page';
import { ScopePicture } from '../../shared/frame/scope-picture';
import { LooksStore, type LookRow } from '../../shared/proof/looks-store';
import { ProofStore } from '../../shared/proof/proof-store';
import { SiteStore } from '../../shared/site/site-store';

const STANDING_WORDS: Readonly<Record<LookRow['standing'], string>> = {
  looked: wordsOf('proof.looked-as-now'),
  changed: wordsOf('proof.looked-before-its-markup'),
  never: wordsOf('proof.nobody-has-looked-yet'),
};

/** A part on a page, drawn at the usual widths, to be looked at by eye. */
@Component({
  selector: 'uv-look-detail',
  imports: [Button, FormsModule, RouterLink, ScopePicture, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ title() }}</h2>
      <p class="uv-soft">{{ standing() }}</p>
    </header>
    <div class="acts">
      @if (row().standing === 'looked') {
        <p-button label="Look again later" i18n-label [outlined]="true" size="small" (onClick)="store.mark([row()], false)" />
        <p-button label="Next" i18n-label [outlined]="true" size="small" (onClick)="next.emit()" />
      } @else {
        <p-button label="Looked at, next" i18n-label size="small" (onClick)="done()" />
      }
      <a class="bench" routerLink="/bench" [queryParams]="{ page: row().pageId, element: row().element }" i18n>Bench</a>
      <p-select
        [options]="states" optionLabel="label" optionValue="state" [ngModel]="state()" (ngModelChange)="state.set($event)" size="small"
        ariaLabel="State it is drawn in" i18n-ariaLabel
      />
    </div>
    @if (picture(); as drawn) {
      <div class="pictures">
        @for (width of widths; track width) {
          <uv-scope-picture [heading]="wordsOf('proof.width', { width: width })" [page]="framed(drawn)" [width]="width" [element]="row().element" [forced]="drawn.forced" [leastScale]="0.15" />
        }
      </div>
    }
  `,
  styles: `
    :host { display: grid; grid-template-rows: auto auto minmax(0, 1fr); height: 100%; padding: 10px 14px 14px; }
    h2 { font-size: 15px; font-weight: 700; overflow-wrap: anywhere; }
    header p { font-size: 12.5px; }
    .acts { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin: 8px 0; }
    .acts p-select { margin-left: auto; }
    .pictures { display: grid; grid-template-columns: 1fr 1fr; grid-template-rows: 1fr 1fr; gap: 8px; min-height: 420px; background: var(--uv-mat); }
    .pictures uv-scope-picture:first-child { grid-column: 1 / -1; }
    .bench { padding: 4px 11px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 13px; font-weight: 600; text-decoration: none; }
    .bench:hover { background: var(--uv-bar); }
  `,
})
export class LookDetail {
  protected readonly wordsOf = wordsOf;

  readonly row = input.required<LookRow>();
  /** The next that is to be looked at is wanted. */
  readonly next = output();

  protected readonly store = inject(LooksStore);
  readonly #proof = inject(ProofStore);
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  protected readonly widths = USUAL_WIDTHS;
  protected readonly states = PROOF_STATES.map((state) => ({ state, label: say(proofStateTold(state)) }));
  protected readonly state = signal<ProofState>('rest');

  protected readonly title = computed(() => {
    const site = this.#site.site();
    const part = site?.parts.find(({ id }) => id === this.row().partId)?.name ?? wordsOf('proof.everything-else');
    return wordsOf('proof.opened', {
      part,
      name: site?.pages.find(({ id }) => id === this.row().pageId)?.name ?? '',
      step: this.row().step,
    });
  });
  protected readonly standing = computed(() => STANDING_WORDS[this.row().standing]);
  readonly #asked = computed(() => ({ row: this.row(), state: this.state() }));
  protected readonly picture = toSignal(
    toObservable(this.#asked).pipe(
      askEngine<{ row: LookRow; state: ProofState }, LookPicture | null>(
        this.#engine,
        ({ row: { partId, pageId, step, element }, state }, engine) =>
          engine.lookPicture({ partId, pageId, step, element }, state),
        null,
      ),
    ),
    { initialValue: null },
  );

  protected framed({ amendments }: LookPicture): FramedPage {
    return {
      ...this.#proof.framed(this.row().pageId, this.#site.veneer().frameCss),
      amendments: new Map(amendments),
    };
  }

  /** Marks it, and goes on to the next. */
  protected done(): void {
    this.store.mark([this.row()], true);
    this.next.emit();
  }
}
