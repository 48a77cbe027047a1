import { proxy } from 'comlink';

/**
 * Asks a worker something that tells how far it is. What it tells comes by a port of its own, and may come after the
 * answer: it is passed over then.
 */
export async function withProgress<Told extends readonly unknown[], Answer>(
  onProgress: (...told: Told) => void,
  ask: (listener: (...told: Told) => void) => Promise<Answer>,
): Promise<Answer> {
  let isOver = false;
  const listener = (...told: Told): void => {
    if (!isOver) onProgress(...told);
  };
  try {
    return await ask(proxy(listener));
  } finally {
    isOver = true;
  }
}
