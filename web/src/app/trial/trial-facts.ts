import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { TrialDocument } from '@upper-veneer/contract';
import type { LookDifference, Standing, TrialJudgement } from '@upper-veneer/core';
import { StandingMark } from '../shared/ui/standing-mark';
import { WEEKDAYS, callWords, listed, percent, points, rangeWords } from './trial-words';

/** What was counted of a trial, what may be said of it, and what it rests on. */
@Component({
  selector: 'uv-trial-facts',
  imports: [RouterLink, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (trial().conversions.length > 1) {
      <label class="of">
        <ng-container i18n>By </ng-container>
        <select [value]="conversion()" (change)="turned.emit(+$any($event.target).value)">
          @for (words of conversions(); track $index) {
            <option [value]="$index">{{ words }}</option>
          }
        </select>
      </label>
    }
    <h2><uv-standing [standing]="call().standing" /> {{ call().title }}</h2>
    <p class="uv-soft">{{ call().text }}</p>
    <dl>
      @for (row of sums(); track row.name) {
        <dt i18n>{{ row.name }}: seen, {{ done() }}</dt><dd [title]="row.range">{{ row.figures }}</dd>
      }
      @for (row of pairs(); track $index) { <dt [title]="row.basis">{{ row.name }}</dt><dd>{{ row.figures }}</dd> }
    </dl>
    <h3 i18n>Before it counts</h3>
    <ul>
      @for (row of checks(); track row.words) {
        <li><uv-standing [standing]="row.standing" />&ngsp;<span [title]="row.basis">{{ row.words }}</span></li>
      }
    </ul>
    <h3 i18n>Visitors</h3>
    <p class="uv-soft" i18n>The stand-in host gives each visitor one of them and keeps to it, by a cookie that names nobody; who asks not to be followed (Sec-GPC, DNT, or <code class="uv-mono">look/off</code> on the host) gets what is published and is not counted.</p>
    <p class="uv-soft">{{ sources() }}</p>
    @if (handsOver(); as partId) {
      <p i18n>The settings of the look that won are to be handed over to their maker: <a routerLink="/match" [queryParams]="{ scope: 'parts-' + partId }">its settings sheet</a>.</p>
    }
    @if (trial().state !== 'decided') {
      <p class="ways"><button type="button" (click)="traffic.emit()" i18n>Make traffic up…</button><button type="button" (click)="file.click()" i18n>Bring counts in…</button><input #file type="file" accept=".csv,text/csv" hidden aria-label="Counts as CSV: day, variation, seen, pressed" i18n-aria-label (change)="pick(file)" /></p>
    }
  `,
  styles: `
    :host { display: block; padding: 12px 16px 16px; font-size: 13px; }
    h2 { font-size: 14px; font-weight: 700; }
    h3 { margin: 14px 0 5px; font-size: 13.5px; font-weight: 700; }
    p { margin: 5px 0; font-size: 12.5px; }
    dl { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 6px 10px; margin: 12px 0 0; }
    dt { color: var(--uv-soft); }
    dd { margin: 0; font-family: var(--uv-mono); font-size: 12.5px; text-align: right; white-space: nowrap; }
    ul { display: grid; gap: 5px; margin: 0; padding: 0; list-style: none; }
    .of { display: flex; align-items: center; gap: 6px; margin-bottom: 8px; }
    .of select { min-width: 0; flex: 1; height: 28px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font: inherit; }
    .ways { display: flex; gap: 14px; }
    .ways button { min-height: 24px; padding: 0; border: 0; background: none; color: var(--uv-ink); text-decoration: underline; cursor: pointer; }
  `,
})
export class TrialFacts {
  readonly trial = input.required<TrialDocument>();
  readonly judged = input.required<TrialJudgement>();
  readonly difference = input.required<LookDifference | null>();
  /** Values of settings in which the looks differ, and whether all of them are colours. */
  readonly settings = input.required<{ readonly values: number; readonly areColors: boolean }>();
  /** Which conversion is looked at. */
  readonly conversion = input.required<number>();
  readonly turned = output<number>();
  readonly traffic = output();
  readonly picked = output<File>();

  protected readonly conversions = computed(() =>
    this.trial().conversions.map(
      ({ kind, target }) =>
        `${{ press: wordsOf('trial.press'), sent: wordsOf('trial.form-sent-and'), reached: wordsOf('trial.reaching') }[kind]} ${target}`,
    ),
  );
  protected readonly done = computed(
    () =>
      ({ press: wordsOf('trial.pressed'), sent: wordsOf('trial.sent'), reached: wordsOf('trial.was-reached') })[
        this.trial().conversions[this.conversion()].kind
      ],
  );
  protected readonly call = computed(() => callWords(this.judged()));
  protected readonly sums = computed(() =>
    this.judged().sums.map(({ variation, seen, pressed, rate, range }) => ({
      name: variation,
      figures: `${figure(seen)} · ${figure(pressed)} · ${percent(rate)}`,
      range: wordsOf('trial.95-score-interval-wilson', { percent: percent(range[0]), percent2: percent(range[1]) }),
    })),
  );
  protected readonly pairs = computed(() => {
    const { pairs, size, isSizeReached, splitP, isSplitEven, alpha, sums } = this.judged();
    const isNone = sums.every(({ seen }) => seen === 0);
    const level = `${(100 * (1 - alpha)).toFixed(alpha < 0.05 ? 1 : 0)} %`;
    return [
      ...pairs.flatMap(({ variation, difference, anytime, fixed }) => [
        {
          name: wordsOf('trial.difference-of', { variation, variation2: sums[0].variation }),
          figures: isNone ? '–' : wordsOf('trial.points', { points: points(difference) }),
          basis: '',
        },
        {
          name: wordsOf('trial.range-any-time', { level }),
          figures: isNone ? '–' : rangeWords(anytime),
          basis: wordsOf('trial.asymptotic-confidence-sequence-waudby'),
        },
        {
          name: wordsOf('trial.range-size', { level }),
          figures: fixed ? rangeWords(fixed) : wordsOf('trial.once-reached'),
          basis: wordsOf('trial.hybrid-score-interval-newcombe'),
        },
      ]),
      {
        name: wordsOf('trial.split-even'),
        figures: isNone
          ? '–'
          : wordsOf(isSplitEven ? 'trial.split-holds' : 'trial.split-broken', {
              p: splitP < 0.001 ? '< 0.001' : splitP.toFixed(2),
            }),
        basis: wordsOf('trial.chi-square-test-goodness'),
      },
      {
        name: wordsOf('trial.smallest-worth-having'),
        figures: wordsOf('trial.points', { points: (100 * this.trial().plan.smallest).toFixed(2) }),
        basis: '',
      },
      {
        name: wordsOf('trial.planned-for-each'),
        figures: `${figure(size)}${isSizeReached ? wordsOf('trial.reached') : ''}`,
        basis: wordsOf('trial.fleiss-levin-paik-2003', {
          percent: percent(this.trial().plan.base),
          percent2: percent(this.trial().plan.power, 0),
        }),
      },
    ];
  });
  protected readonly checks = computed(() => {
    const rows: { readonly standing: Standing; readonly words: string; readonly basis: string }[] = [];
    const { proofs, looks } = this.trial();
    const failing = proofs.filter(({ fails }) => fails > 0);
    rows.push(
      proofs.length < looks.length
        ? { standing: 'look', words: wordsOf('trial.proved-readable-when-starts'), basis: '' }
        : failing.length > 0
          ? {
              standing: 'fails',
              words: wordsOf('trial.cannot-be-read-throughout', {
                listed: listed(failing.map(({ variation }) => variation)),
              }),
              basis: '',
            }
          : {
              standing: 'holds',
              words:
                looks.length === 2 ? wordsOf('trial.both-read-every-state') : wordsOf('trial.all-read-every-state'),
              basis: wordsOf('trial.held-against-wcag-2', { reduce: proofs.reduce((sum, own) => sum + own.looks, 0) }),
            },
    );
    const unseen = [...new Set(proofs.flatMap((own) => own.unseen ?? []))];
    if (unseen.length > 0)
      rows.push({
        standing: 'look',
        words: wordsOf('trial.not-looked', { listed: listed(unseen) }),
        basis: wordsOf('trial.what-proof-looks-left'),
      });
    const [difference, { values, areColors }] = [this.difference(), this.settings()];
    if (difference || values > 0) {
      const counts = [
        ...(difference && difference.declarations > 0
          ? [wordsOf('trial.declaration-declarations', { declarations: difference.declarations })]
          : []),
        ...(values > 0 ? [wordsOf('trial.setting-settings', { values })] : []),
      ];
      const isColorAlone = (difference?.isColorAlone ?? true) && areColors;
      rows.push(
        counts.length === 0
          ? { standing: 'fails', words: wordsOf('trial.they-do-not-differ'), basis: '' }
          : isColorAlone
            ? { standing: 'holds', words: wordsOf('trial.they-differ-colour-alone', { counts }), basis: '' }
            : {
                standing: 'look',
                words: wordsOf('trial.they-differ-more-than', { counts }),
                basis: (difference?.others ?? []).join(', '),
              },
      );
    }
    const { pairs, questions } = this.judged();
    if (questions > 1)
      rows.push({
        standing: 'look',
        words: wordsOf('trial.winners-are-looked-for', { questions }),
        basis: wordsOf('trial.chance-error-divided-questions'),
      });
    for (const { variation, differing } of pairs)
      if (differing.length > 0)
        rows.push({
          standing: 'look',
          words: wordsOf('trial.from-rest', {
            listed: listed(differing.map(({ weekday }) => WEEKDAYS[weekday])),
            differing: differing.length,
          }),
          basis: differing
            .map(({ weekday, difference: own, rest, p }) =>
              wordsOf('trial.against-points-p', {
                variation,
                weekday: WEEKDAYS[weekday],
                points: points(own),
                points2: points(rest),
                p: p.toFixed(3),
              }),
            )
            .join('\n'),
        });
    return rows;
  });
  /** Part whose settings the winner fills; `null` where it is not decided, or fills none. */
  protected readonly handsOver = computed(() => {
    const { decision, looks } = this.trial();
    return looks.find(({ variation }) => variation === decision?.winner)?.settings.at(0)?.partId ?? null;
  });
  protected readonly sources = computed(() => {
    const seenOf = (source: string): number =>
      this.trial()
        .counts.filter((own) => own.source === source && own.conversion === this.conversion())
        .reduce((sum, { seen }) => sum + seen, 0);
    const parts = (
      [
        ['counted', wordsOf('trial.counted-host')],
        ['made-up', wordsOf('trial.made-up')],
        ['brought-in', wordsOf('trial.brought-from-elsewhere')],
      ] as const
    ).flatMap(([source, words]) => (seenOf(source) > 0 ? [`${figure(seenOf(source))} ${words}`] : []));
    return parts.length === 0 ? wordsOf('trial.none-has-come-yet') : wordsOf('trial.those-who-saw', { parts });
  });

  protected pick(field: HTMLInputElement): void {
    const file = field.files?.[0];
    field.value = '';
    if (file) this.picked.emit(file);
  }
}
