import { parsedSheet } from '../rules/parsed-once.js';
import type { SiteModel } from './site-model.js';

/** Text of sheets that is read ahead, UTF-16 units: what is parsed is kept up to a bound. */
const MOST_AHEAD = 8_000_000;

/** How many of the pages are read. */
export interface ReadProgress {
  readonly read: number;
  readonly pages: number;
}

/**
 * Reads pages that nobody has asked for yet, one a step, so that what asks for all of them does not wait for all at once.
 * Ends by itself when all are read.
 */
export function* readPages(site: SiteModel): Generator<ReadProgress, void> {
  const progress = (): ReadProgress => ({
    read: site.closed.size - site.closed.unread.length,
    pages: site.closed.size,
  });
  const sheets = readSheets(site);
  while (!sheets.next().done) yield progress();
  for (const id of site.closed.unread) {
    site.closed.get(id);
    yield progress();
  }
}

/** Reads the stylesheets of a site of which pages are unread, one a step; the first page would else read all that it links at once. */
export function* readSheets({ closed, source }: SiteModel): Generator<void, void> {
  if (closed.unread.length === 0) return;
  let ahead = 0;
  for (const text of Object.values(source.stylesheets)) {
    ahead += text.length;
    if (ahead > MOST_AHEAD) return;
    parsedSheet(text);
    yield;
  }
}
