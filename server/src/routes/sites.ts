import { Router } from 'express';
import { readId, noSite } from '../http/problem.js';
import { createSiteDocuments } from '../site-document.js';
import type { Store } from '../store.js';

export function siteRoutes(store: Store, hostUrl: (siteId: number) => string): Router {
  const router = Router();
  const written = createSiteDocuments(store, hostUrl);
  router.get('/sites', (_request, response) => {
    response.json(store.sites.all());
  });
  router.get('/sites/:siteId', (request, response) => {
    const id = readId(request.params.siteId);
    const site = store.sites.byId(id);
    if (!site) throw noSite(id);
    const { body, etag } = written(site);
    response.set({ etag, 'cache-control': 'no-cache' });
    if (request.fresh) response.status(304).end();
    else response.type('json').send(body);
  });
  return router;
}
