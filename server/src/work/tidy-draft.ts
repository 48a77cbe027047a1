import { createHash } from 'node:crypto';
import type { Override } from '@upper-veneer/core';
import type { Store } from '../store.js';
import { WorkError, type WorkPool } from './work-pool.js';

export interface TidyOptions {
  /** Ends the work when nobody waits for it any more. */
  readonly signal?: AbortSignal;
  readonly onProgress?: (done: number, total: number) => void;
  /** Those of a fork of the draft; the draft's own when absent. */
  readonly overrides?: readonly Override[];
}

/** The draft's sheet, tidied away from this thread; `null` when that took too long or failed: the sheet is right without, only longer. @throws {WorkError} `stopped`. */
export async function tidyDraft(
  store: Store,
  pool: WorkPool,
  siteId: number,
  { signal, onProgress, overrides = store.overrides.bySite(siteId) }: TidyOptions = {},
): Promise<string | null> {
  const site = store.sites.byId(siteId);
  const ownCss = store.ownCss.bySite(siteId);
  if (!site || overrides.length + ownCss.length === 0) return null;
  const input = {
    source: {
      pages: store.pages.bySite(siteId),
      stylesheets: store.assets.stylesheets(siteId),
      parts: store.parts.bySite(siteId),
      veneerPlace: site.veneerPlace,
      ...store.sheetOptions.bySite(siteId),
    },
    overrides,
    ownCss,
    palette: store.palettes.bySite(siteId),
  };
  const key = `tidy:${siteId}:${createHash('sha256')
    .update(
      JSON.stringify([
        site.structure,
        site.veneerPlace,
        store.sheetOptions.bySite(siteId),
        input.overrides,
        input.ownCss,
        input.palette,
      ]),
    )
    .digest('base64')}`;
  try {
    return await pool.run('tidy', input, {
      signal,
      lane: `tidy:${siteId}`,
      key,
      onProgress: ({ done, total }) => onProgress?.(done, total),
    });
  } catch (error) {
    if (error instanceof WorkError && error.fault !== 'stopped') return null;
    throw error;
  }
}
