/** Bounds of one import. */
export const LIMITS = {
  totalBytes: 50 * 1024 * 1024,
  files: 2000,
  fileBytes: 10 * 1024 * 1024,
  /** Of a path, UTF-16 units. */
  pathLength: 400,
  pages: 200,
  /** One request of an address, ms. */
  fetchMs: 15_000,
  /** All requests of an address, ms. */
  fetchTotalMs: 90_000,
  redirects: 5,
} as const;

/** A number of bytes in words. */
export function megabytes(bytes: number): string {
  return `${Math.round(bytes / 1024 / 1024)} MB`;
}
