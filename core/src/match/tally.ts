import { keyOf, type Message } from '../message/message.js';
/** Findings, the first of them, and how many there are. */
export interface Told {
  readonly words: readonly Message[];
  readonly count: number;
}

/** Findings that are kept. */
export const MOST_TOLD = 20;

/** Counts findings, and keeps the first. */
export class Tally {
  readonly #words = new Map<string, Message>();
  #count = 0;

  add(words: Message): void {
    this.#count += 1;
    if (this.#words.size < MOST_TOLD) this.#words.set(keyOf(words), words);
  }

  told(): Told {
    return { words: [...this.#words.values()], count: this.#count };
  }
}

/** Two lists of findings as one. @param of what is said of each of the second. */
export function joined(a: Told, b: Told, of: (told: Message) => Message = (told) => told): Told {
  return {
    words: [...a.words, ...b.words.map(of)].slice(0, MOST_TOLD),
    count: a.count + b.count,
  };
}
