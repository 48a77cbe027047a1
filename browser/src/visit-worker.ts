import { errorText, message } from '@upper-veneer/words';
import { CaptureProblem } from './capture-problem.js';
import type { VisitAnswer, VisitCall } from './visit-process.js';
import { Visit, type VisitOptions } from './visit.js';

/** The process of one visit: it does what it is asked, one thing after another, and ends when nobody asks any more. */
let visit: Visit | null = null;

async function answer({ call, input }: VisitCall): Promise<unknown> {
  if (call === 'start') {
    visit = await Visit.start(input as VisitOptions);
    return null;
  }
  if (!visit) throw new CaptureProblem('no-page', message('capture.no-browser-started'));
  return (visit[call] as (input: unknown) => Promise<unknown>).call(visit, input);
}

async function end(): Promise<void> {
  await visit?.close().catch(() => undefined);
  process.exit(0);
}

process.on('message', (asked: VisitCall) => {
  const tell = (told: VisitAnswer): void => void process.send?.(told);
  answer(asked).then(
    (result) => tell({ id: asked.id, ok: true, result }),
    (error: unknown) =>
      tell({
        id: asked.id,
        ok: false,
        code: error instanceof CaptureProblem ? error.code : 'not-fetched',
        told: error instanceof CaptureProblem ? error.told : errorText(error),
      }),
  );
});
process.on('disconnect', () => void end());
process.on('SIGTERM', () => void end());
process.on('SIGINT', () => undefined);
