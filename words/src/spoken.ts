import { EN } from './languages/en.js';
import type { Message } from './message.js';
import { say } from './say.js';

/** An answer in which each message has become its words. */
export type Spoken<Answer> = Answer extends Message
  ? string
  : Answer extends ReadonlyMap<unknown, unknown> | ReadonlySet<unknown> | ((...values: never[]) => unknown)
    ? Answer
    : Answer extends object
      ? { [Key in keyof Answer]: Spoken<Answer[Key]> }
      : Answer;

/** An answer in words: plain data with a text for each message in it, however deep. Maps, sets and classes stay as they are. */
export function spoken<Answer>(answer: Answer): Spoken<Answer> {
  return plain(answer) as Spoken<Answer>;
}

function plain(answer: unknown): unknown {
  if (Array.isArray(answer)) return answer.map(plain);
  if (typeof answer !== 'object' || answer === null || !isPlain(answer)) return answer;
  if (isMessage(answer)) return say(answer);
  return Object.fromEntries(Object.entries(answer).map(([name, own]) => [name, plain(own)]));
}

function isPlain(value: object): boolean {
  const prototype: unknown = Object.getPrototypeOf(value);
  return prototype === Object.prototype || prototype === null;
}

const NAMES: ReadonlySet<string> = new Set(['code', 'values', 'isInner']);

/** Whether something from elsewhere is a message of this version, with the data that its words need. */
export function isTold(value: unknown): value is Message {
  if (typeof value !== 'object' || value === null || !isMessage(value)) return false;
  try {
    say(value);
    return true;
  } catch {
    return false;
  }
}

function isMessage(value: object): value is Message {
  return (
    'code' in value &&
    typeof value.code === 'string' &&
    Object.hasOwn(EN, value.code) &&
    Object.keys(value).every((name) => NAMES.has(name))
  );
}
