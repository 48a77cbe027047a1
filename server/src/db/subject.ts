/** Something the history can bring back whole: how it is read and put. */
export interface Subject<T> {
  take(siteId: number): T;
  put(siteId: number, value: T): void;
  /** Whether it changes the pages, sheets or parts themselves, which a client then reads again. */
  readonly isStructure: boolean;
}
