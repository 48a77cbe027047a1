import { errorText } from '@upper-veneer/words';
import { message } from '@upper-veneer/core';
import { Router } from 'express';
import { HostingRequest } from '@upper-veneer/contract';
import type { HostCache } from '../host-cache.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import { askServed, type AskHost } from '../served.js';
import type { Store } from '../store.js';

export interface ServedOptions {
  readonly store: Store;
  readonly cache: HostCache;
  readonly askHost: AskHost;
  readonly now: () => Date;
}

/** What visitors are really served, asked at the host itself. */
export function servedRoutes({ store, cache, askHost, now }: ServedOptions): Router {
  const router = Router();
  router.get('/sites/:siteId/served', async (request, response) => {
    const siteId = readId(request.params.siteId);
    if (!store.sites.byId(siteId)) throw noSite(siteId);
    try {
      response.set('cache-control', 'no-store').json(await askServed(store, siteId, askHost, now().toISOString()));
    } catch (error) {
      throw new HttpProblem(502, 'refused.not-asked', message('refusal.host-silent', { error: errorText(error) }));
    }
  });
  router.put('/sites/:siteId/hosting', (request, response) => {
    const siteId = readId(request.params.siteId);
    if (!store.sites.byId(siteId)) throw noSite(siteId);
    const { hasNewName, maxAge } = readBody(HostingRequest, request.body);
    store.hosting.put(siteId, { hasNewName, maxAge });
    response.status(204).end();
  });
  router.post('/sites/:siteId/purge', (request, response) => {
    const siteId = readId(request.params.siteId);
    if (!store.sites.byId(siteId)) throw noSite(siteId);
    response.json({ purged: cache.purge(siteId) });
  });
  return router;
}
