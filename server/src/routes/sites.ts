import { Router } from 'express';
import type { SiteDocument } from '@upper-veneer/contract';
import { describeDraft } from '../draft.js';
import { HttpProblem, readId } from '../http/problem.js';
import type { Store } from '../store.js';

export function siteRoutes(store: Store, hostUrl: (siteId: number) => string): Router {
  const router = Router();
  router.get('/sites', (_request, response) => {
    response.json(store.sites.all());
  });
  router.get('/sites/:siteId', (request, response) => {
    const id = readId(request.params.siteId, 'site');
    const site = store.sites.byId(id);
    if (!site) throw new HttpProblem(404, 'Not found', `There is no site ${id}`);
    const document: SiteDocument = {
      id,
      name: site.name,
      ...store.sheetOptions.bySite(id),
      veneerPlace: site.veneerPlace,
      pages: store.pages.bySite(id),
      stylesheets: store.assets.stylesheets(id),
      parts: store.parts.bySite(id),
      pictures: store.assets.pictures(id),
      leftOut: store.leftOut.bySite(id),
      draft: describeDraft(store, id),
      hostUrl: hostUrl(id),
    };
    response.json(document);
  });
  return router;
}
