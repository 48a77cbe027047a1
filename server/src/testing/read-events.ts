import { createParser } from 'eventsource-parser';
import type { ImportResult } from '@upper-veneer/contract';

/** How an import ended, by the text of its events. */
export function endOf(events: string): ImportResult {
  let end: string | null = null;
  createParser({
    onEvent: ({ event, data }) => {
      if (event === 'end') end = data;
    },
  }).feed(events);
  if (end === null) throw new Error(`No end among the events: ${events.slice(-400)}`);
  return JSON.parse(end) as ImportResult;
}
