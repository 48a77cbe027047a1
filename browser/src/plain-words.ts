import { errorText, inner, message, type Message } from '@upper-veneer/words';
import { errors } from 'playwright-core';

/** What a browser says, without its own names for things. */
export function inPlainWords(error: unknown): Message | string {
  if (error instanceof errors.TimeoutError) return message('capture.took-too-long');
  const line = firstLine(error);
  if (line.includes('net::ERR_TUNNEL_CONNECTION_FAILED')) return message('capture.no-answer-or-refused');
  if (line.includes('net::ERR_EMPTY_RESPONSE')) return message('capture.no-answer');
  return line.replace(/^\w+\.\w+: /, '').replace(/ at https?:\/\/\S*$/, '');
}

/** The same inside a sentence. */
export function within(told: Message | string): Message | string {
  return typeof told === 'string' ? told : inner(told);
}

export function firstLine(error: unknown): string {
  return errorText(error).split('\n')[0].slice(0, 300);
}
