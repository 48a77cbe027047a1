import type { Page } from '../resolve/page.js';

/** Pages of a site by id, in its order, each made when it is first asked for. */
export class LazyPages implements ReadonlyMap<number, Page> {
  readonly #ids: readonly number[];
  readonly #make: (id: number) => Page;
  readonly #aside: readonly number[];
  readonly #made: Map<number, Page>;

  /** @param aside pages that can be asked for by id, and are not among them otherwise. */
  constructor(
    ids: readonly number[],
    make: (id: number) => Page,
    aside: readonly number[] = [],
    made = new Map<number, Page>(),
  ) {
    this.#ids = ids;
    this.#make = make;
    this.#aside = aside;
    this.#made = made;
  }

  /** The same pages, those that stand aside among them, last. */
  revealed(): LazyPages {
    return new LazyPages([...this.#ids, ...this.#aside], this.#make, [], this.#made);
  }

  get size(): number {
    return this.#ids.length;
  }

  /** Ids of pages nobody has asked for yet. */
  get unread(): readonly number[] {
    return this.#ids.filter((id) => !this.#made.has(id));
  }

  has(id: number): boolean {
    return this.#ids.includes(id) || this.#aside.includes(id);
  }

  /** Ids of pages that stand aside. */
  get aside(): readonly number[] {
    return this.#aside;
  }

  get(id: number): Page | undefined {
    if (!this.has(id)) return undefined;
    let page = this.#made.get(id);
    if (!page) this.#made.set(id, (page = this.#make(id)));
    return page;
  }

  /** The same pages changed: those that were made at once, the others, as `make` has them, when they are asked for. */
  changed(make: (id: number) => Page, change: (page: Page) => Page): LazyPages {
    const next = new LazyPages(this.#ids, (id) => change(make(id)), this.#aside);
    for (const [id, page] of this.#made) next.#made.set(id, change(page));
    return next;
  }

  /** The same pages with one of them another. */
  with(id: number, page: Page): LazyPages {
    const next = new LazyPages(this.#ids, this.#make, this.#aside);
    for (const [at, made] of this.#made) next.#made.set(at, made);
    next.#made.set(id, page);
    return next;
  }

  *entries(): MapIterator<[number, Page]> {
    for (const id of this.#ids) {
      const page = this.get(id);
      if (page) yield [id, page];
    }
  }

  *keys(): MapIterator<number> {
    yield* this.#ids;
  }

  *values(): MapIterator<Page> {
    for (const [, page] of this.entries()) yield page;
  }

  [Symbol.iterator](): MapIterator<[number, Page]> {
    return this.entries();
  }

  forEach(act: (page: Page, id: number, pages: ReadonlyMap<number, Page>) => void): void {
    for (const [id, page] of this.entries()) act(page, id, this);
  }
}
