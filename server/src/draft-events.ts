import type { Response } from 'express';

/** Tells open tabs that the draft has changed, and how far work on it is. Source: HTML §9.2 Server-sent events. */
export interface DraftEvents {
  subscribe(siteId: number, response: Response): void;
  announce(siteId: number, version: number): void;
  /** How far the sheet that is being saved is tidied. */
  tidied(siteId: number, done: number, total: number): void;
  close(): void;
}

const HEARTBEAT_MS = 20_000;

export function createDraftEvents(): DraftEvents {
  const listeners = new Map<number, Set<Response>>();
  const heartbeat = setInterval(() => {
    for (const set of listeners.values()) for (const response of set) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  const tell = (siteId: number, event: string, data: string): void => {
    for (const response of listeners.get(siteId) ?? []) response.write(`event: ${event}\ndata: ${data}\n\n`);
  };
  return {
    subscribe(siteId, response) {
      response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
      response.write('retry: 2000\n\n');
      const set = listeners.get(siteId) ?? new Set();
      listeners.set(siteId, set.add(response));
      response.on('close', () => set.delete(response));
    },
    announce: (siteId, version) => tell(siteId, 'draft', String(version)),
    tidied: (siteId, done, total) => tell(siteId, 'tidied', JSON.stringify({ done, total })),
    close() {
      clearInterval(heartbeat);
      for (const set of listeners.values()) for (const response of set) response.end();
    },
  };
}
