import { errors } from 'playwright-core';

/** What a browser says, without its own names for things. */
export function inPlainWords(error: unknown): string {
  if (error instanceof errors.TimeoutError) return 'it took too long';
  return firstLine(error)
    .replace(/^\w+\.\w+: /, '')
    .replace(/ at https?:\/\/\S*$/, '')
    .replace('net::ERR_TUNNEL_CONNECTION_FAILED', 'it does not answer, or is not to be asked')
    .replace('net::ERR_EMPTY_RESPONSE', 'it does not answer');
}

export function firstLine(error: unknown): string {
  return (error instanceof Error ? error.message : String(error)).split('\n')[0].slice(0, 300);
}
