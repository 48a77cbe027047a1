const EVERY_MS = 100;

/** What `read` gives once `accepts` says yes to it. @throws when it has not within `timeoutMs`, with what it gave last. */
export async function eventually<T>(
  read: () => Promise<T>,
  accepts: (value: T) => boolean,
  timeoutMs = 20_000,
): Promise<T> {
  const end = Date.now() + timeoutMs;
  for (;;) {
    const value = await read();
    if (accepts(value)) return value;
    if (Date.now() > end) throw new Error(`Still ${JSON.stringify(value)} after ${timeoutMs} ms`);
    await new Promise((done) => setTimeout(done, EVERY_MS));
  }
}
