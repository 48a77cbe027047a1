import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { ActivatedRoute, Router } from '@angular/router';
import type { TrialDocument } from '@upper-veneer/contract';
import { judgeTrial, readCounts, type LookDifference, type Spot } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { catchError, combineLatest, forkJoin, from, map, of, switchMap } from 'rxjs';
import { ApiProblem } from '../shared/api/api-problem';
import { SiteApi } from '../shared/api/site-api';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import { Messages } from '../shared/spoken/messages';
import { TrialsStore } from '../shared/trials/trials-store';
import { DecideDialog } from './decide-dialog';
import { LookPicture } from './look-picture';
import { PlanDialog } from './plan-dialog';
import { ProveLooks } from './prove-looks';
import { TrafficDialog } from './traffic-dialog';
import { TrialChart } from './trial-chart';
import { TrialFacts } from './trial-facts';
import { listed, standingWords } from './trial-words';

/** How often a trial that runs is asked what was counted, ms. */
const ASKED_MS = 5000;
const MOST_BYTES = 2_000_000;

/** Trial: looks held against each other by what visitors did, and decided. */
@Component({
  selector: 'uv-trial-page',
  imports: [Button, DecideDialog, FormsModule, LookPicture, PlanDialog, Select, TrafficDialog, TrialChart, TrialFacts],
  providers: [ProveLooks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './trial-page.html',
  styleUrl: './trial-page.scss',
})
export class TrialPage {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly trials = inject(TrialsStore);
  protected readonly proving = inject(ProveLooks);
  readonly #api = inject(SiteApi);
  readonly #engine = inject(Engine);
  readonly #messages = inject(Messages);
  readonly #route = inject(ActivatedRoute);
  readonly #router = inject(Router);

  protected readonly dialog = signal<'plan' | 'traffic' | 'decide' | null>(null);
  readonly #asked = toSignal(this.#route.queryParamMap.pipe(map((params) => Number(params.get('trial')))), {
    initialValue: 0,
  });
  protected readonly trial = computed<TrialDocument | null>(
    () => this.trials.trials().find(({ id }) => id === this.#asked()) ?? this.trials.trials().at(0) ?? null,
  );
  /** Which of the conversions that are counted is looked at. */
  protected readonly conversion = linkedSignal<number | null, number>({
    source: () => this.trial()?.id ?? null,
    computation: () => 0,
  });
  protected readonly judged = computed(() => {
    const trial = this.trial();
    return (
      trial &&
      judgeTrial(
        trial.counts.filter(({ conversion }) => conversion === this.conversion()),
        {
          ...trial.plan,
          variations: trial.looks.map(({ variation }) => variation),
          conversions: trial.conversions.length,
        },
      )
    );
  });
  /** The look that is held against the first. */
  readonly #against = signal<string | null>(null);
  protected readonly pair = computed(() => {
    const pairs = this.judged()?.pairs ?? [];
    return pairs.find(({ variation }) => variation === this.#against()) ?? pairs.at(0) ?? null;
  });
  /** The two looks that are drawn. */
  protected readonly drawn = computed(() => {
    const looks = this.trial()?.looks ?? [];
    return looks.filter(({ variation }, i) => i === 0 || variation === this.pair()?.variation);
  });
  protected readonly standing = computed(() => {
    const [trial, judged] = [this.trial(), this.judged()];
    return trial && judged ? standingWords(trial, judged.size) : '';
  });
  protected readonly spot = toSignal(
    toObservable(computed(() => ({ selector: this.trial()?.seen ?? '', structure: this.site.site() }))).pipe(
      askEngine<{ readonly selector: string; readonly structure: unknown }, Spot | null>(
        this.#engine,
        ({ selector, structure }, engine) => (structure ? engine.firstOf(selector === '' ? 'body' : selector) : null),
        null,
      ),
    ),
    { initialValue: null },
  );
  /** In what the sheets of the two looks that are drawn differ. */
  protected readonly difference = toSignal(
    combineLatest([toObservable(this.drawn), toObservable(this.site.site)]).pipe(
      switchMap(([looks, site]) => {
        const numbers = looks.map(({ revision }) => revision);
        if (!site || looks.length < 2) return of(null);
        if (new Set(numbers).size === 1) return of<LookDifference>({ declarations: 0, isColorAlone: true, others: [] });
        return forkJoin(numbers.map((number) => this.#api.revision(site.id, number))).pipe(
          switchMap(([a, b]) => from(this.#engine.remote.lookDifference(a.css, b.css))),
          catchError(() => of(null)),
        );
      }),
    ),
    { initialValue: null },
  );
  protected readonly settings = computed(() => {
    const [a, b] = this.drawn();
    if (!b) return { values: 0, areColors: true };
    const sheets = this.site.draft()?.settings ?? [];
    const differing = b.settings.flatMap(({ partId, values }) => {
      const others = a.settings.find((own) => own.partId === partId)?.values ?? {};
      const sheet = sheets.find((own) => own.partId === partId);
      return Object.keys(values)
        .filter((name) => values[name] !== (others[name] ?? sheet?.fields.find((own) => own.name === name)?.present))
        .map((name) => sheet?.fields.find((own) => own.name === name)?.notation !== 'px');
    });
    return { values: differing.length, areColors: differing.every(Boolean) };
  });
  protected readonly failing = computed(() => this.proving.found().filter(({ fails }) => fails.length > 0));

  constructor() {
    const timer = setInterval(() => {
      if (this.trial()?.state === 'running' && this.dialog() === null && !document.hidden) this.trials.refresh();
    }, ASKED_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected choose(id: number): void {
    this.dialog.set(null);
    this.proving.found.set([]);
    void this.#router.navigate([], {
      relativeTo: this.#route,
      queryParams: { trial: id },
      queryParamsHandling: 'merge',
    });
  }

  protected holdAgainst(variation: string): void {
    this.#against.set(variation);
  }

  /** Proves the looks, then has visitors given them. */
  protected async start(trial: TrialDocument): Promise<void> {
    // Pages and sheets may have changed since it was proved last.
    const proofs = await this.proving.prove(trial);
    if (!proofs || proofs.some(({ fails }) => fails > 0)) return;
    this.trials
      .act((api, siteId) => api.putTrialState(siteId, trial.id, { isRunning: true, proofs: [...proofs] }))
      .subscribe();
  }

  protected pause(trial: TrialDocument): void {
    this.trials.act((api, siteId) => api.putTrialState(siteId, trial.id, { isRunning: false })).subscribe();
  }

  protected drop(trial: TrialDocument): void {
    this.trials.act((api, siteId) => api.dropTrial(siteId, trial.id)).subscribe();
  }

  /** Brings counts in from a CSV file, in place of those brought in before; one that cannot be read costs nothing. */
  protected async bringIn(trial: TrialDocument, file: File): Promise<void> {
    const report = (text: string): void =>
      this.#messages.report(new ApiProblem(wordsOf('trial.not-brought', { name: file.name }), text));
    if (file.size > MOST_BYTES) {
      report(wordsOf('trial.larger-than-mb', { MOSTBYTES: MOST_BYTES / 1_000_000 }));
      return;
    }
    const { counts, problems } = spoken(
      readCounts(
        await file.text(),
        trial.looks.map(({ variation }) => variation),
      ),
    );
    if (problems.length > 0) {
      const told = problems.slice(0, 3).map(({ where, reason }) => `${where} ${reason}`);
      report(
        wordsOf('trial.more-nothing-was-changed', {
          listed: listed(told),
          case: problems.length > 3 ? 'yes' : 'no',
          problems: problems.length - 3,
        }),
      );
      return;
    }
    this.trials.act((api, siteId) => api.putCounts(siteId, trial.id, { counts: [...counts] })).subscribe();
  }
}
