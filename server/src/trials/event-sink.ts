import type { TrialEvent, Trials } from '../db/trials.js';

/** How long events are gathered before they are stored together, ms. */
const GATHER_MS = 4;

/** Stores events, many in one transaction: each is acknowledged once it is on the disk, and not before. */
export interface EventSink {
  note(event: TrialEvent): Promise<void>;
}

export function createEventSink(trials: Pick<Trials, 'note'>): EventSink {
  let gathered: { readonly event: TrialEvent; readonly done: () => void; readonly failed: (error: unknown) => void }[] =
    [];
  const flush = (): void => {
    const now = gathered;
    gathered = [];
    try {
      trials.note(now.map(({ event }) => event));
      for (const { done } of now) done();
    } catch (error) {
      for (const { failed } of now) failed(error);
    }
  };
  return {
    note: (event) =>
      new Promise((done, failed) => {
        if (gathered.length === 0) setTimeout(flush, GATHER_MS);
        gathered.push({ event, done, failed });
      }),
  };
}
