/** What an error of others says of itself, in the words it came with; of what is no error, its text. */
export function errorText(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
