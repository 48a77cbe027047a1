/** Findings in words, the first of them, and how many there are. */
export interface Told {
  readonly words: readonly string[];
  readonly count: number;
}

/** Findings that are put into words. */
export const MOST_TOLD = 20;

/** Counts findings, and keeps the words of the first. */
export class Tally {
  readonly #words = new Set<string>();
  #count = 0;

  add(words: string): void {
    this.#count += 1;
    if (this.#words.size < MOST_TOLD) this.#words.add(words);
  }

  told(): Told {
    return { words: [...this.#words], count: this.#count };
  }
}

/** Two lists of findings as one. @param prefix said before each of the second. */
export function joined(a: Told, b: Told, prefix = ''): Told {
  return {
    words: [...a.words, ...b.words.map((words) => prefix + words)].slice(0, MOST_TOLD),
    count: a.count + b.count,
  };
}
