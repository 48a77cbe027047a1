import { Injectable, type OnDestroy, computed, inject, signal } from '@angular/core';
import { STEP_FAILED, type SightDocument } from '@upper-veneer/contract';
import { describeStep, planProblem, type VisitPlan, type VisitStep } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import type { Subscription } from 'rxjs';
import type { ApiProblem } from '../../../shared/api/api-problem';
import { newId } from '../../../shared/engine/new-id';
import { SightApi } from './sight-api';

/** A visit as it is being made: its plan, the page as it is now, and a picture after each step. */
@Injectable()
export class VisitSession implements OnDestroy {
  readonly #api = inject(SightApi);
  readonly #key = newId();
  readonly #plan = signal<VisitPlan>({ address: '', width: 1280, keep: '', steps: [] });
  readonly #before = signal<readonly VisitPlan[]>([]);
  readonly #sight = signal<SightDocument | null>(null);
  /** One for the page as it comes, then one a step; `null` while there is none. */
  readonly #pictures = signal<readonly (string | null)[]>([]);
  readonly #doing = signal('');
  readonly #problem = signal<ApiProblem | null>(null);
  #asking: Subscription | null = null;

  readonly #leave = (): void => this.#api.close(this.#key);

  readonly plan = this.#plan.asReadonly();
  readonly sight = this.#sight.asReadonly();
  readonly pictures = this.#pictures.asReadonly();
  /** What is under way, in words; empty for nothing. */
  readonly doing = this.#doing.asReadonly();
  readonly problem = this.#problem.asReadonly();
  /** What the page is called, short. */
  readonly title = computed(
    () =>
      this.#sight()
        ?.title.split(/[:|–—]/)[0]
        .trim()
        .slice(0, 40) || wordsOf('survey.page-alone'),
  );
  readonly canUndo = computed(() => this.#before().length > 0);
  /** What keeps the plan from being gone through; `null` for nothing. */
  readonly wrong = computed(() => spoken(planProblem(this.#plan())));
  readonly kept = computed(() =>
    [this.#plan().keep, ...this.#plan().steps.map(({ keep }) => keep)].filter((keep) => keep !== null),
  );

  constructor() {
    window.addEventListener('pagehide', this.#leave);
  }

  ngOnDestroy(): void {
    window.removeEventListener('pagehide', this.#leave);
    this.stop();
    this.#api.close(this.#key);
  }

  /** Begins with a plan, and opens its page. */
  begin(plan: VisitPlan): void {
    this.#plan.set(plan);
    this.#before.set([]);
    this.#pictures.set([]);
    this.reopen();
  }

  /** Opens the page again, and leads it through the steps so far, a picture after each. */
  reopen(): void {
    const { address, width } = this.#plan();
    this.#ask(wordsOf('survey.opening-page'), this.#api.look(this.#key, address, width), 0, () => this.#lead(0));
  }

  /** Does the steps from one of them on again; where one fails the page stays as it is by then. */
  #lead(place: number): void {
    const { steps } = this.#plan();
    if (place >= steps.length) return;
    const words = wordsOf('survey.step-said', {
      place: place + 1,
      steps: steps.length,
      spoken: spoken(describeStep(steps[place])),
    });
    this.#ask(words, this.#api.act(this.#key, steps[place]), place + 1, () => this.#lead(place + 1));
  }

  /** Does a step; it belongs to the plan once it is done. */
  add(step: VisitStep, after: () => void = () => undefined): void {
    this.#ask(spoken(describeStep(step)), this.#api.act(this.#key, step), this.#plan().steps.length + 1, () => {
      this.#change({ ...this.#plan(), steps: [...this.#plan().steps, step] });
      after();
    });
  }

  /** Does several, each once the one before is done. */
  addAll([first, ...rest]: readonly VisitStep[]): void {
    if (first) this.add(first, () => this.addAll(rest));
  }

  remove(place: number): void {
    this.#change({ ...this.#plan(), steps: this.#plan().steps.filter((_, i) => i !== place) });
    this.#pictures.update((all) => all.filter((_, i) => i !== place + 1));
    this.reopen();
  }

  /** @param place of the step after which the page is kept; -1 for the page as it comes. */
  keep(place: number, name: string | null): void {
    const plan = this.#plan();
    this.#change(
      place === -1
        ? { ...plan, keep: name }
        : { ...plan, steps: plan.steps.map((step, i) => (i === place ? { ...step, keep: name } : step)) },
    );
  }

  undo(): void {
    const before = this.#before();
    const last = before.at(-1);
    if (!last) return;
    const isSame = doneIn(last) === doneIn(this.#plan());
    this.#before.set(before.slice(0, -1));
    this.#plan.set(last);
    this.#pictures.update((all) => all.slice(0, last.steps.length + 1));
    if (!isSame) this.reopen();
  }

  /** Gives up what is under way. */
  stop(): void {
    if (!this.#asking) return;
    this.#asking.unsubscribe();
    this.#asking = null;
    this.#doing.set('');
    // What it was at when it was stopped nobody knows: it is opened again when something is to be done.
    this.#api.close(this.#key);
    this.#sight.set(null);
  }

  #ask(words: string, asked: ReturnType<SightApi['look']>, place: number, then: () => void = () => undefined): void {
    this.#asking?.unsubscribe();
    this.#doing.set(words);
    this.#problem.set(null);
    this.#asking = asked.subscribe({
      next: (sight) => {
        this.#asking = null;
        this.#doing.set('');
        this.#sight.set(sight);
        this.#pictures.update((all) =>
          Array.from({ length: Math.max(all.length, place + 1) }, (_, i) =>
            i === place ? sight.picture : (all[i] ?? null),
          ),
        );
        then();
      },
      error: (problem: ApiProblem) => {
        this.#asking = null;
        this.#doing.set('');
        this.#problem.set(problem);
        if (problem.type !== STEP_FAILED) this.#sight.set(null);
      },
    });
  }

  #change(plan: VisitPlan): void {
    this.#before.update((all) => [...all, this.#plan()]);
    this.#plan.set(plan);
  }
}

/** What a plan does, without what it keeps. */
function doneIn({ steps }: VisitPlan): string {
  return JSON.stringify(steps.map((step) => ({ ...step, keep: null })));
}
