import { message, type Message } from '../message/message.js';
import { jobMessage, type Job } from '../match/job.js';
import type { Reachability } from '../parts/part.js';
import { isLengthJob, type FixedPlace, type SettingsSheet } from './settings-sheet.js';

/** What no field of a sheet changes, and what can. */
export interface OutOfReach {
  readonly words: Message;
  /** Whether CSS of the site can: an override on the part itself. */
  readonly isReached: boolean;
  readonly answer: Message;
  /** Selector of what is overridden then; empty for the part itself. */
  readonly selector: string;
}

/** What the maker's fields leave as it is: by CSS where that reaches the part, else an honest nothing. */
export function outOfReach({ fixed }: Pick<SettingsSheet, 'fixed'>, reachability: Reachability): readonly OutOfReach[] {
  const answer = ANSWERS[reachability];
  return [
    ...fixed.map((place) => ({
      words: placeMessage(place),
      isReached: reachability === 'in page',
      answer,
      selector: place.selector,
    })),
    ...(reachability === 'framed'
      ? [
          {
            words: message('settings.corners-edge-shadow-frame'),
            isReached: true,
            answer: message('settings.page-css-can-frame'),
            selector: '',
          },
        ]
      : []),
  ];
}

const ANSWERS: Readonly<Record<Reachability, Message>> = {
  'in page': message('settings.override-can'),
  shadow: message('settings.only-what-its-maker'),
  framed: message('settings.nothing-can-another-origin'),
};

/** Words for a place: `label of button, hovered`. */
export function placeMessage({ surface, job, state }: Pick<FixedPlace, 'surface' | 'job' | 'state'>): Message {
  const what = isLengthJob(job) ? message('settings.length', { job }) : jobMessage(job as Job);
  return message('settings.place', { what, where: message('settings.where', { surface, state }) });
}
