import { type Message, message } from '@upper-veneer/core';
import pLimit from 'p-limit';
import type { VisitPlan, VisitStep } from '@upper-veneer/core';
import {
  CaptureProblem,
  dropReady,
  narrowedTo,
  prepareVisit,
  runPlan,
  startVisitProcess,
  type AddressPolicy,
  type DrawnSight,
  type PlanResult,
  type VisitHandle,
} from '@upper-veneer/browser';
import type { ReportProgress } from '../import/captured.js';

export interface VisitingOptions {
  /** Finds the browser's program; `null` where there is none. */
  readonly program: () => string | null;
  readonly policy: () => AddressPolicy;
}

/** A plan that was gone through, or why it was not. */
export type Visited =
  | { readonly plan: VisitPlan; readonly ok: true; readonly result: PlanResult }
  | { readonly plan: VisitPlan; readonly ok: false; readonly told: Message | string };

/** Pages open to be looked at. */
interface Looking {
  readonly visit: VisitHandle;
  timer: NodeJS.Timeout;
  /** When something was done to it last, ms. */
  since: number;
  isBusy: boolean;
}

/** Browsers that go through plans at a time, and that are open to be looked at. */
const AT_A_TIME = 2;
const MOST_LOOKING = 3;
/** Visits that may wait for their turn. */
const MOST_WAITING = 20;
/** A page that nobody does anything to is closed after this, ms. */
const IDLE_MS = 4 * 60_000;

export type Visiting = ReturnType<typeof createVisiting>;

/** Visits pages in a browser that is started for each: plans from beginning to end, and pages that somebody looks at and points into. */
export function createVisiting({ program, policy }: VisitingOptions) {
  const limit = pLimit(AT_A_TIME);
  const looking = new Map<string, Looking>();
  const opening = new Map<string, AbortController>();

  const start = (address: string, width: number, signal: AbortSignal): Promise<VisitHandle> => {
    const found = program();
    if (found === null) throw new CaptureProblem('no-browser', message('capture.no-chromium'));
    return startVisitProcess({ program: found, policy: narrowedTo(address, policy()), width }, signal);
  };
  const goThrough = async (plan: VisitPlan, report: ReportProgress, signal: AbortSignal): Promise<PlanResult> => {
    report(message('stage.starting-browser'), 0, plan.steps.length + 2);
    const visit = await start(plan.address, plan.width, signal);
    try {
      return await runPlan(visit, plan, report);
    } finally {
      // Nobody need wait for its end.
      void visit.close();
    }
  };
  const close = async (key: string): Promise<void> => {
    opening.get(key)?.abort();
    const own = looking.get(key);
    if (!own) return;
    looking.delete(key);
    clearTimeout(own.timer);
    await own.visit.close();
  };
  const wake = (key: string, own: Looking): void => {
    clearTimeout(own.timer);
    own.since = Date.now();
    own.timer = setTimeout(() => void close(key), IDLE_MS);
    own.timer.unref();
  };
  const during = async <T>(key: string, own: Looking, work: Promise<T>): Promise<T> => {
    clearTimeout(own.timer);
    own.isBusy = true;
    try {
      return await work;
    } catch (error) {
      // A step that finds nothing leaves the page as it is; all else has ended it.
      if (error instanceof CaptureProblem && error.code !== 'step-failed') await close(key);
      throw error;
    } finally {
      own.isBusy = false;
      if (looking.get(key) === own) wake(key, own);
    }
  };

  return {
    program,
    /** Has the next visit begin sooner. */
    prepare: (): void => {
      if (program() !== null) prepareVisit();
    },
    /** Goes through plans one after another; one that fails does not hold up the others. @throws {CaptureProblem} `stopped`, `no-browser`. */
    async goThroughAll(plans: readonly VisitPlan[], report: ReportProgress, signal: AbortSignal): Promise<Visited[]> {
      const visited: Visited[] = [];
      if (limit.pendingCount > MOST_WAITING) throw new CaptureProblem('busy', message('capture.too-many-visits'));
      for (const [i, plan] of plans.entries()) {
        const tell: ReportProgress = (stage, done, total) =>
          report(
            plans.length > 1 ? message('stage.of-address', { address: plan.address, stage }) : stage,
            i * total + done,
            plans.length * total,
          );
        try {
          visited.push({ plan, ok: true, result: await limit(() => goThrough(plan, tell, signal)) });
        } catch (error) {
          if (signal.aborted) throw new CaptureProblem('stopped', message('capture.import-stopped'));
          if (!(error instanceof CaptureProblem) || error.code === 'no-browser') throw error;
          visited.push({ plan, ok: false, told: error.told });
        }
      }
      return visited;
    },
    /** Opens a page to be looked at. @throws {CaptureProblem} */
    async look(key: string, address: string, width: number): Promise<DrawnSight> {
      await close(key);
      // The one that nobody has done anything to for the longest gives way: its steps open it again.
      const idle = [...looking].filter(([, { isBusy }]) => !isBusy).sort(([, a], [, b]) => a.since - b.since);
      if (looking.size + opening.size >= MOST_LOOKING && idle[0]) await close(idle[0][0]);
      if (looking.size + opening.size >= MOST_LOOKING)
        throw new CaptureProblem('busy', message('capture.too-many-open', { pages: MOST_LOOKING }));
      const ending = new AbortController();
      opening.set(key, ending);
      let visit: VisitHandle | null = null;
      try {
        visit = await start(address, width, ending.signal);
        await visit.open(address);
        const sight = await visit.see();
        const own: Looking = { visit, timer: setTimeout(() => undefined, 0), since: Date.now(), isBusy: false };
        looking.set(key, own);
        wake(key, own);
        return sight;
      } catch (error) {
        await visit?.close();
        throw error;
      } finally {
        opening.delete(key);
      }
    },
    /** Does something to a page that is looked at. @throws {CaptureProblem} `closed` when it is open no longer. */
    act(key: string, step: VisitStep): Promise<DrawnSight> {
      const own = looking.get(key);
      if (!own) throw new CaptureProblem('closed', message('capture.page-closed'));
      return during(
        key,
        own,
        own.visit.act(step).then(() => own.visit.see()),
      );
    },
    close,
    async closeAll(): Promise<void> {
      dropReady();
      await Promise.all([...looking.keys(), ...opening.keys()].map(close));
    },
  };
}
