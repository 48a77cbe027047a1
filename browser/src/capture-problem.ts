import { say, type Message } from '@upper-veneer/words';

/** A capture that is refused as a whole; what is told says what and where, and is fit to show. */
export class CaptureProblem extends Error {
  override readonly name = 'CaptureProblem';

  constructor(
    readonly code:
      | 'too-large'
      | 'too-many'
      | 'unreadable'
      | 'unsafe'
      | 'no-page'
      | 'refused-address'
      | 'not-fetched'
      | 'no-browser'
      | 'step-failed'
      | 'closed'
      | 'too-long'
      | 'stopped'
      | 'busy',
    /** A text where others said it. */
    readonly told: Message | string,
  ) {
    super(say(told));
  }
}
