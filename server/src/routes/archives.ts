import { message } from '@upper-veneer/core';
import { createReadStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { HttpProblem, readId, noSite } from '../http/problem.js';
import type { Store } from '../store.js';
import { WorkError, type WorkPool } from '../work/work-pool.js';

export interface ArchiveRouteOptions {
  readonly store: Store;
  readonly pool: WorkPool;
  readonly now: () => Date;
}

/** A whole site with its history, as one file. */
export function archiveRoutes({ store, pool, now }: ArchiveRouteOptions): Router {
  const router = Router();
  router.get('/sites/:siteId/archive', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const site = store.sites.byId(siteId);
    if (!site) throw noSite(siteId);
    const folder = await mkdtemp(join(tmpdir(), 'upper-veneer-'));
    const given = new AbortController();
    response.on('close', () => given.abort());
    try {
      const [database, file] = [join(folder, 'copy.db'), join(folder, 'site.zip')];
      await store.copyTo(database);
      const input = { database, siteId, file, takenAt: now().toISOString() };
      const isTaken = await pool.run('take-archive', input, { signal: given.signal, lane: `archive:${siteId}` });
      if (!isTaken) throw noSite(siteId);
      response.attachment(`${site.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.upper-veneer.zip`);
      response.type('application/zip').setHeader('content-length', (await stat(file)).size);
      await pipeline(createReadStream(file), response);
    } catch (error) {
      // Whoever asked may give up.
      if (given.signal.aborted) return;
      if (error instanceof WorkError && error.fault !== 'failed')
        throw new HttpProblem(503, 'refused.not-taken', message('refusal.site-not-written', { error: error.message }));
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
  return router;
}
