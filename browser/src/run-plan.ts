import { keyOf, message, type Message } from '@upper-veneer/words';
import { describeStep, type VisitPlan } from '@upper-veneer/core';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';
import type { RecordedFile } from './recorder.js';
import type { TakenPage } from './take-page.js';
import type { VisitHandle } from './visit.js';

/** What came of a plan. */
export interface PlanResult {
  readonly pages: readonly TakenPage[];
  /** Files that the pages look by. */
  readonly files: readonly RecordedFile[];
  /** What happened that a visitor would not see. */
  readonly notes: readonly Message[];
}

export type ReportVisit = (stage: Message, done: number, total: number) => void;

/**
 * Goes through a plan from its beginning, and takes the pages it keeps.
 * @throws {CaptureProblem} that says which step it was; also when it takes too long in all.
 */
export async function runPlan(visit: VisitHandle, plan: VisitPlan, report: ReportVisit): Promise<PlanResult> {
  const total = plan.steps.length + 2;
  const until = Date.now() + BOUNDS.planMs;
  const pages: TakenPage[] = [];
  const notes = new Map<string, Message>();
  report(message('stage.opening-page'), 0, total);
  await visit.open(plan.address);
  const keep = async (name: string | null): Promise<void> => {
    if (name !== null) pages.push(await visit.take(name));
    for (const note of await visit.notes()) notes.set(keyOf(note), note);
  };
  await keep(plan.keep);
  for (const [i, step] of plan.steps.entries()) {
    if (Date.now() > until)
      throw new CaptureProblem(
        'too-long',
        message('capture.visit-too-long', { seconds: BOUNDS.planMs / 1000, step: i + 1 }),
      );
    report(describeStep(step), i + 1, total);
    try {
      await visit.act(step);
    } catch (error) {
      if (error instanceof CaptureProblem && error.code !== 'stopped')
        throw new CaptureProblem(
          error.code,
          message('capture.at-step', { number: i + 1, step: describeStep(step), problem: error.told }),
        );
      throw error;
    }
    await keep(step.keep);
  }
  report(message('stage.taking-files'), total - 1, total);
  const files = await visit.files();
  return { pages, files, notes: [...notes.values()] };
}
