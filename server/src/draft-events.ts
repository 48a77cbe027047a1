import type { Request, Response } from 'express';
import { createEventStreams } from './http/event-stream.js';

/** Tells all open tabs of a browser, by one stream, that a draft has changed, and how far work on one is. Source: HTML §9.2 Server-sent events. */
export interface DraftEvents {
  /** @param versions of all sites, told first: a stream that comes back has missed some. */
  subscribe(
    request: Request,
    response: Response,
    versions: () => readonly { readonly siteId: number; readonly version: number }[],
  ): Promise<void>;
  announce(siteId: number, version: number): void;
  /** How far the sheet that is being saved is tidied. */
  tidied(siteId: number, done: number, total: number): void;
  close(): void;
}

export function createDraftEvents(): DraftEvents {
  const streams = createEventStreams();
  return {
    async subscribe(request, response, versions) {
      await streams.open(request, response, () => versions().map((data) => ({ name: 'draft', data })));
    },
    announce: (siteId, version) => streams.tell({ name: 'draft', data: { siteId, version } }),
    tidied: (siteId, done, total) => streams.tell({ name: 'tidied', data: { siteId, done, total } }),
    close: () => streams.end(),
  };
}
