import type { EN } from './languages/en.js';

/** What can be told, one code for each sentence or phrase of a language. */
export type Code = keyof typeof EN;

/** What the words of a message are made of: names and numbers, other messages, and lists of them. */
export type MessageValue = string | number | Message | readonly (string | Message)[];

/** What is told, without its words: a code, and the data that its words need. Plain data, so that it goes over a wire. */
export interface Message {
  readonly code: Code;
  readonly values?: Readonly<Record<string, MessageValue>>;
  /** Whether it stands inside a sentence, without a capital. */
  readonly isInner?: true;
}

/** What is told, by its code; the words of each language stand in `languages/`. */
export function message(code: Code, values?: Readonly<Record<string, MessageValue>>): Message {
  return values ? { code, values } : { code };
}

/** The same inside a sentence: without a capital. */
export function inner(told: Message): Message {
  return { ...told, isInner: true };
}

/** Tells messages apart that say different things. */
export function keyOf(told: Message): string {
  return JSON.stringify(told);
}
