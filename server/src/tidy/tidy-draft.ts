import { Worker } from 'node:worker_threads';
import type { Override, Palette, SiteSource } from '@upper-veneer/core';
import type { Store } from '../store.js';

/** What the thread is given. */
export interface TidyTask {
  readonly source: SiteSource;
  readonly overrides: readonly Override[];
  readonly palette: Palette;
}

/** Longest the tidying may take; the sheet is right without it, only longer. */
const LONGEST_MS = 60_000;

/** What the thread says: how far it is, then the sheet. */
export type TidyMessage = { readonly done: number; readonly total: number } | { readonly css: string };

export interface TidyOptions {
  /** Ends the work when nobody waits for it any more. */
  readonly signal?: AbortSignal;
  readonly onProgress?: (done: number, total: number) => void;
}

/** The draft's sheet, tidied in a thread of its own; `null` when that took too long, was given up or failed. */
export function tidyDraft(store: Store, siteId: number, { signal, onProgress }: TidyOptions = {}): Promise<string | null> {
  const site = store.sites.byId(siteId);
  const overrides = store.overrides.bySite(siteId);
  if (!site || overrides.length === 0) return Promise.resolve(null);
  const task: TidyTask = {
    source: { pages: store.sites.pages(siteId), stylesheets: store.sites.stylesheets(siteId), parts: store.parts.bySite(siteId), veneerPlace: site.veneerPlace, ...store.sheetOptions.bySite(siteId) },
    overrides, palette: store.palettes.bySite(siteId),
  };
  return new Promise((done) => {
    const worker = new Worker(new URL('./tidy-thread.js', import.meta.url), { workerData: task });
    const end = (css: string | null): void => {
      clearTimeout(timer);
      done(css);
      void worker.terminate();
    };
    const timer = setTimeout(() => end(null), LONGEST_MS);
    worker.on('message', (message: TidyMessage) => {
      if ('css' in message) end(message.css);
      else onProgress?.(message.done, message.total);
    });
    signal?.addEventListener('abort', () => end(null), { once: true });
    worker.once('error', () => end(null));
    worker.once('exit', () => end(null));
  });
}
