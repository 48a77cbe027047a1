import { message, type Message } from '@upper-veneer/core';

/** A field that is refused, and why; a text where a class rule says it. */
export interface Refusal {
  readonly field: string;
  readonly reason: Message | string;
}

/** What is refused first, with where it is. */
export function firstOf([{ field, reason }]: readonly Refusal[]): Message {
  return message('refusal.field', { field, reason });
}
