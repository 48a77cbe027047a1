import { JOB_WORDS, type Job } from '../match/job.js';
import type { Reachability } from '../parts/part.js';
import { STATE_PHRASES } from './conflicts.js';
import { isLengthJob, type FixedPlace, type SettingsSheet } from './settings-sheet.js';

/** What no field of a sheet changes, and what can. */
export interface OutOfReach {
  readonly words: string;
  /** Whether CSS of the site can: an override on the part itself. */
  readonly isReached: boolean;
  readonly answer: string;
  /** Selector of what is overridden then; empty for the part itself. */
  readonly selector: string;
}

/** What the maker's fields leave as it is: by CSS where that reaches the part, else an honest nothing. */
export function outOfReach({ fixed }: Pick<SettingsSheet, 'fixed'>, reachability: Reachability): readonly OutOfReach[] {
  const answer = ANSWERS[reachability];
  return [
    ...fixed.map((place) => ({
      words: placeWords(place),
      isReached: reachability === 'in page',
      answer,
      selector: place.selector,
    })),
    ...(reachability === 'framed'
      ? [
          {
            words: 'corners, edge and shadow of the frame itself',
            isReached: true,
            answer: 'the page’s CSS can: the frame is an element of the page',
            selector: '',
          },
        ]
      : []),
  ];
}

const ANSWERS: Readonly<Record<Reachability, string>> = {
  'in page': 'an override can',
  shadow: 'only what its maker exposes as a custom property or a ::part',
  framed: 'nothing can: it is another origin’s document',
};

/** Words for a place: `label of button, hovered`. */
export function placeWords({ surface, job, state }: Pick<FixedPlace, 'surface' | 'job' | 'state'>): string {
  const what = isLengthJob(job) ? (job === 'corner' ? 'corner radius' : 'edge width') : JOB_WORDS[job as Job];
  return `${what} of ${surface}${state === 'rest' ? '' : `, ${STATE_PHRASES[state]}`}`;
}
