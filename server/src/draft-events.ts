import type { Response } from 'express';

/** Tells open tabs that the draft has changed. Source: HTML §9.2 Server-sent events. */
export interface DraftEvents {
  subscribe(siteId: number, response: Response): void;
  announce(siteId: number, version: number): void;
  close(): void;
}

const HEARTBEAT_MS = 20_000;

export function createDraftEvents(): DraftEvents {
  const listeners = new Map<number, Set<Response>>();
  const heartbeat = setInterval(() => {
    for (const set of listeners.values()) for (const response of set) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  return {
    subscribe(siteId, response) {
      response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
      response.write('retry: 2000\n\n');
      const set = listeners.get(siteId) ?? new Set();
      listeners.set(siteId, set.add(response));
      response.on('close', () => set.delete(response));
    },
    announce(siteId, version) {
      for (const response of listeners.get(siteId) ?? []) response.write(`event: draft\ndata: ${version}\n\n`);
    },
    close() {
      clearInterval(heartbeat);
      for (const set of listeners.values()) for (const response of set) response.end();
    },
  };
}
