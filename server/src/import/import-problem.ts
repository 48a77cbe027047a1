/** An import that is refused as a whole; the message says what and where, and is fit to show. */
export class ImportProblem extends Error {
  override readonly name = 'ImportProblem';

  constructor(
    readonly code:
      | 'too-large'
      | 'too-many'
      | 'unreadable'
      | 'unsafe'
      | 'no-page'
      | 'refused-address'
      | 'not-fetched'
      | 'stopped'
      | 'busy',
    message: string,
  ) {
    super(message);
  }
}
