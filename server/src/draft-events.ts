import type { Response } from 'express';

/** Tells all open tabs of a browser, by one stream, that a draft has changed, and how far work on one is. Source: HTML §9.2 Server-sent events. */
export interface DraftEvents {
  /** @param versions of all sites, told first: a stream that comes back has missed some. */
  subscribe(response: Response, versions: readonly { readonly siteId: number; readonly version: number }[]): void;
  announce(siteId: number, version: number): void;
  /** How far the sheet that is being saved is tidied. */
  tidied(siteId: number, done: number, total: number): void;
  close(): void;
}

const HEARTBEAT_MS = 20_000;

export function createDraftEvents(): DraftEvents {
  const listeners = new Set<Response>();
  const heartbeat = setInterval(() => {
    for (const response of listeners) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  const written = (event: string, data: object): string => `event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
  const tell = (event: string, data: object): void => {
    for (const response of listeners) response.write(written(event, data));
  };
  return {
    subscribe(response, versions) {
      response.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
      });
      response.write(`retry: 2000\n\n${versions.map((version) => written('draft', version)).join('')}`);
      listeners.add(response);
      response.on('close', () => listeners.delete(response));
    },
    announce: (siteId, version) => tell('draft', { siteId, version }),
    tidied: (siteId, done, total) => tell('tidied', { siteId, done, total }),
    close() {
      clearInterval(heartbeat);
      for (const response of listeners) response.end();
    },
  };
}
