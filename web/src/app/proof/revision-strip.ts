import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ProofStore } from '../shared/proof/proof-store';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';

/** Revisions that are shown; the newest of them. */
const MOST_SHOWN = 8;

/** What failed, and what was to be looked at, from revision to revision, and in the draft as it is. */
@Component({
  selector: 'uv-revision-strip',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>From revision to revision</h2>
    <ol tabindex="0" aria-label="Revisions, the oldest first" i18n-aria-label>
      @for (step of steps(); track step.name) {
        <li [title]="step.note">
          <span class="name">{{ step.name }}</span>
          @if (step.proof; as proof) {
            <span class="uv-mono"><uv-standing
              [standing]="proof.fails > 0 ? 'fails' : 'holds'"
              /> {{ proof.fails > 0 ? figure(proof.fails) : wordsOf('proof.none-fails') }}</span>
            @if (proof.toLookAt > 0) { <span class="uv-mono"><uv-standing standing="look" /> {{ figure(proof.toLookAt) }}</span> }
            @if (step.than) { <span class="uv-soft">{{ step.than }}</span> }
          } @else {
            <span class="uv-soft" i18n>not proved</span>
          }
        </li>
      }
    </ol>
  `,
  styles: `
    :host { display: flex; gap: 14px; align-items: center; min-width: 0; min-height: 36px; padding: 0 14px; border-top: 1px solid var(--uv-line-strong); background: var(--uv-bar); font-size: 12.5px; }
    h2 { font-size: 12.5px; font-weight: 700; white-space: nowrap; }
    ol { display: flex; min-width: 0; margin: 0; padding: 0; overflow-x: auto; list-style: none; }
    li { display: flex; gap: 7px; align-items: center; padding: 7px 14px; border-left: 1px solid var(--uv-line-strong); white-space: nowrap; }
    .name { font-weight: 600; }
  `,
})
export class RevisionStrip {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly #site = inject(SiteStore);
  readonly #proof = inject(ProofStore);

  protected readonly steps = computed(() => {
    const draft = this.#site.draft();
    const revisions = [...(draft?.revisions ?? [])].slice(0, MOST_SHOWN).reverse();
    const counts = this.#proof.counts();
    const last = draft?.revisions.find(({ number }) => number === draft.equalsRevision);
    const isOtherNow =
      !last || (counts !== null && last.proof !== undefined && JSON.stringify(last.proof) !== JSON.stringify(counts));
    const steps = [
      ...revisions.map(({ number, note, proof }) => ({
        name: wordsOf('proof.revision', { number }),
        note,
        proof: proof ?? null,
      })),
      ...(isOtherNow ? [{ name: wordsOf('proof.now'), note: wordsOf('proof.draft-site-as-now'), proof: counts }] : []),
    ];
    return steps.map((step, i) => ({ ...step, than: comparedTo(steps[i - 1]?.proof ?? null, step.proof) }));
  });
}

/** `3 fewer`, `2 more`; empty where one of them was not proved, and where it is the same. */
function comparedTo(before: { readonly fails: number } | null, now: { readonly fails: number } | null): string {
  if (!before || !now || before.fails === now.fails) return '';
  const by = figure(Math.abs(now.fails - before.fails));
  return now.fails < before.fails ? wordsOf('proof.fewer', { by }) : wordsOf('proof.more-by', { by });
}
