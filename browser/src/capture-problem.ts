/** A capture that is refused as a whole; the message says what and where, and is fit to show. */
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
    message: string,
  ) {
    super(message);
  }
}
