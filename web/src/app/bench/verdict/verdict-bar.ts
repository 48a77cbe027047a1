import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import type { Finding, OverrideState, Repair, Spot, VerdictProgress } from '@upper-veneer/core';
import type { Judgement } from '../../shared/engine/engine-api';
import { StandingMark } from '../../shared/ui/standing-mark';
import { WordHint } from '../../shared/ui/word-hint';

const RANK = { fails: 0, holds: 1, look: 2 } as const;

/** What the override in the chosen cell does over the whole site, as one line along the foot, the worst first; it opens upwards into all that was found, with what mends it. */
@Component({
  selector: 'uv-verdict-bar',
  imports: [StandingMark, WordHint],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.escape)': 'isOpen.set(false)' },
  template: `
    @if (refusal()) {
      <p class="line refusal" role="alert"><uv-standing standing="fails" /> {{ refusal() }}</p>
    } @else if (progress(); as at) {
      <p class="line uv-soft" role="status"><ng-container i18n>Checking page {{ at.page }} of {{ at.pages }}… </ng-container><button type="button" class="repair" (click)="stopped.emit()" i18n>Stop</button></p>
    } @else if (judgement(); as found) {
      <div class="line">
        <p class="short">
          @for (item of short(); track item.text; let last = $last) {
            <span [class.bad]="item.standing === 'fails'" [class.holds]="item.standing === 'holds'"><uv-standing [standing]="item.standing" />
              @if (item.spots.length > 0) {
                <button
                  type="button" class="spots" [title]="item.basis"
                  [attr.aria-label]="wordsOf('bench.outline-them', { text: item.text })"
                  (click)="shown.emit(item.spots)">{{ item.text }}</button>
              } @else {
                <span [title]="item.basis">{{ item.text }}</span>
              }</span>
            @if (!last) { <i aria-hidden="true">·</i> }
          }
        </p>
        <button type="button" class="open" [attr.aria-expanded]="isOpen()" aria-controls="uv-findings" (click)="isOpen.set(!isOpen())">{{ isOpen() ? wordsOf('bench.close') : wordsOf('bench.findings', { findings: found.findings.length }) }}{{ !isOpen() && mends() > 0 ? wordsOf('bench.mend-mends', { mends: mends() }) : '' }}</button>
      </div>
      <div class="all uv-scroll" id="uv-findings" [class.shut]="!isOpen()">
        <p class="own uv-soft" i18n>Over the whole site: the <span uvWord="reach">reach</span> that was meant, the <span uvWord="spill">spill</span> that was not, and the worst of all that is read or seen.</p>
        <ul aria-label="Verdict" i18n-aria-label>
          @for (finding of sorted(); track $index) {
            <li>
              <uv-standing [standing]="finding.standing" />
              @if (finding.spots?.length) {
                <button
                  type="button" class="spots" [attr.aria-label]="wordsOf('bench.outline-them', { text: finding.text })"
                  (click)="shown.emit(finding.spots ?? [])">{{ finding.text }}</button>
              } @else {
                <span>{{ finding.text }}</span>
              }
              @if (finding.repair; as repair) {
                <button type="button" class="repair" (click)="repaired.emit(repair)">{{ repair.label }}</button>
              }
              @if (finding.state; as state) {
                <button
                  type="button" class="repair" title="Lets this state be: it is meant to look as it does" i18n-title
                  (click)="settled.emit(state)" i18n>That is meant</button>
              }
              <small class="uv-soft">{{ finding.basis }}</small>
            </li>
          }
        </ul>
        <p class="gloss">{{ found.gloss }}</p>
      </div>
    } @else {
      <p class="line uv-soft" i18n>No override here yet. A swatch, a shade or a typed colour makes one.</p>
    }
  `,
  styles: `
    :host { display: grid; align-content: center; position: relative; min-width: 0; background: var(--uv-paper); border-top: 1px solid var(--uv-line-strong); }
    .line { display: flex; align-items: center; gap: 12px; min-height: 38px; padding: 0 16px; }
    .short { display: flex; flex: 1; align-items: center; gap: 8px; min-width: 0; overflow: hidden; white-space: nowrap; }
    .short > span { flex: none; }
    .short > .holds { flex: 0 1 auto; overflow: hidden; text-overflow: ellipsis; }
    uv-standing { margin-right: 4px; }
    .short i { color: var(--uv-soft); font-style: normal; }
    .bad { font-weight: 700; }
    .open { flex: none; padding: 3px 10px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-panel); color: var(--uv-ink); font-size: 12.5px; cursor: pointer; }
    .open[aria-expanded='true'] { background: var(--uv-black); color: var(--uv-on-black); }
    .all { position: absolute; left: 0; right: 0; bottom: 100%; z-index: 5; max-height: min(46vh, 420px); padding: 10px 16px; background: var(--uv-paper); border: 1px solid var(--uv-line-strong); border-width: 1px 1px 1px 0; box-shadow: 0 -4px 14px rgb(0 0 0 / 18%); }
    .all.shut { display: none; }
    ul { display: grid; gap: 7px; margin: 0; padding: 0; list-style: none; }
    li small { display: block; padding-left: 19px; font-size: 12px; overflow-wrap: anywhere; }
    .own { margin-bottom: 8px; font-size: 12.5px; }
    .gloss { margin-top: 9px; padding-top: 7px; border-top: 1px solid var(--uv-line); font-size: 12.5px; }
    .refusal { color: var(--uv-ink); }
    .spots { margin-left: 3px; padding: 0; border: 0; background: none; color: inherit; font: inherit; text-decoration: underline; cursor: pointer; }
    .repair { margin-left: 6px; padding: 1px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-panel); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .repair:hover { background: var(--uv-bar); }
    @media (max-width: 900px) {
      .line { flex-wrap: wrap; padding-block: 6px; }
      .short { flex-basis: 100%; flex-wrap: wrap; white-space: normal; }
      .short > span, .short > .holds { flex: 0 1 auto; white-space: normal; }
      .short i { display: none; }
      .all { position: static; max-height: none; border-width: 1px 0; box-shadow: none; }
    }
  `,
})
export class VerdictBar {
  protected readonly wordsOf = wordsOf;

  readonly judgement = input.required<Spoken<Judgement> | null>();
  readonly refusal = input('');
  /** How far the check is, where it takes its time. */
  readonly progress = input<VerdictProgress | null>(null);
  readonly stopped = output();
  /** Emits the elements a finding is about, to be outlined. */
  readonly shown = output<readonly Spot[]>();
  readonly repaired = output<Spoken<Repair>>();
  /** Emits a state that is meant to look as it does. */
  readonly settled = output<OverrideState>();

  /** Shuts itself where another override is looked at. */
  readonly #overrideId = computed(() => this.judgement()?.override.id);
  protected readonly isOpen = linkedSignal({ source: this.#overrideId, computation: () => false });
  protected readonly sorted = computed<readonly Spoken<Finding>[]>(() =>
    [...(this.judgement()?.findings ?? [])].sort((a, b) => ORDER[a.standing] - ORDER[b.standing]),
  );
  protected readonly mends = computed(() => this.sorted().filter(({ repair }) => repair !== undefined).length);
  /** What fails, what holds, and how much is to be looked at. */
  protected readonly short = computed(() => {
    const findings = this.judgement()?.findings ?? [];
    const looks = findings.filter(({ standing }) => standing === 'look');
    return [
      ...findings
        .filter(({ standing }) => standing !== 'look')
        .map(({ standing, text, basis, spots }) => ({ standing, text, basis, spots: spots ?? [] })),
      ...(looks.length === 1
        ? [{ standing: 'look' as const, text: looks[0].text, basis: looks[0].basis, spots: looks[0].spots ?? [] }]
        : looks.length > 1
          ? [
              {
                standing: 'look' as const,
                text: wordsOf('bench.looks-to-look-at', { looks: looks.length }),
                basis: looks.map(({ text }) => text).join(', '),
                spots: [],
              },
            ]
          : []),
    ].sort((a, b) => RANK[a.standing] - RANK[b.standing]);
  });
}

/** All that was found: what fails, what to look at, what holds. */
const ORDER = { fails: 0, look: 1, holds: 2 } as const;
