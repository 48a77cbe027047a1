/** Bounds of one visit. */
export const BOUNDS = {
  /** All that comes over the network, bytes. */
  totalBytes: 50 * 1024 * 1024,
  fileBytes: 10 * 1024 * 1024,
  requests: 3000,
  /** Text of one page, UTF-16 units. */
  pageText: 20_000_000,
  /** Text of all pages of a visit, UTF-16 units. */
  allText: 60_000_000,
  frames: 40,
  /** A page coming, ms. */
  openMs: 20_000,
  /** One step, ms. */
  stepMs: 10_000,
  /** All of a visit that is run from its plan, ms. */
  planMs: 120_000,
  /** What the browser's processes hold together, bytes; pages they share are counted for each. */
  memory: 2.5 * 1024 * 1024 * 1024,
  processes: 24,
  /** Height of the window, CSS px. */
  height: 800,
} as const;
