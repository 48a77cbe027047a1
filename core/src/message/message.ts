import { keyOf, message, type Message } from '@upper-veneer/words';

export { inner, keyOf, message, type Message, type MessageValue } from '@upper-veneer/words';

/** The words of a message in some language. */
export type Say = (told: Message) => string;

/** Whether an answer is why there is none, or what it is. */
export function isMessage(answer: unknown): answer is Message {
  return typeof answer === 'object' && answer !== null && 'code' in answer;
}

/** Several things said one after another in one sentence. */
export function clauses(told: readonly Message[]): Message {
  return told.reduce((first, second) => message('clauses', { first, second }));
}

/** Two sentences, one after the other. */
export function sentences(first: Message, second: Message): Message {
  return message('sentences', { first, second });
}

/** The same things told once each, in the order they come. */
export function distinct(told: readonly Message[]): Message[] {
  return [...new Map(told.map((one) => [keyOf(one), one])).values()];
}
