import type { ElementNode, PageDocument } from '../dom/tree.js';

/**
 * Something for each element and pseudo-element of one document, by running number: it is asked for a million times, mostly of
 * elements themselves. Elements of another document are kept apart, since their numbers are those of others here.
 */
export class PerElement<T> {
  readonly #own: (T | undefined)[] = [];
  readonly #pseudos = new Map<string, (T | undefined)[]>();
  readonly #foreign = new Map<ElementNode, Map<string, T>>();

  constructor(readonly document: PageDocument) {}

  /** @param pseudo name without colons; `''` for the element. */
  get(element: ElementNode, pseudo: string): T | undefined {
    if (!this.#isOwn(element)) return this.#foreign.get(element)?.get(pseudo);
    const kept = pseudo === '' ? this.#own : this.#pseudos.get(pseudo);
    return kept?.[element.number];
  }

  set(element: ElementNode, pseudo: string, value: T): void {
    if (!this.#isOwn(element)) {
      this.#foreign.set(element, (this.#foreign.get(element) ?? new Map<string, T>()).set(pseudo, value));
      return;
    }
    let kept = pseudo === '' ? this.#own : this.#pseudos.get(pseudo);
    if (!kept) this.#pseudos.set(pseudo, (kept = []));
    kept[element.number] = value;
  }

  /** Another with what is kept of elements that pass. */
  only(passes: (element: ElementNode) => boolean): PerElement<T> {
    const other = new PerElement<T>(this.document);
    for (const [pseudo, kept] of [['', this.#own] as const, ...this.#pseudos])
      kept.forEach((value, number) => {
        const element = this.document.elements[number];
        if (value !== undefined && passes(element)) other.set(element, pseudo, value);
      });
    for (const [element, byPseudo] of this.#foreign)
      if (passes(element)) other.#foreign.set(element, new Map(byPseudo));
    return other;
  }

  #isOwn(element: ElementNode): boolean {
    return this.document.elements[element.number] === element;
  }
}
