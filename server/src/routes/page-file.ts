import { Router } from 'express';
import type { PageFileDocument } from '@upper-veneer/contract';
import { pageFileBookmark, pageFileScript } from '@upper-veneer/snapshot';

/** The script that makes one file of a page somebody has open in a browser of their own, as a console line and as a bookmark. */
export function pageFileRoutes(): Router {
  const router = Router();
  const document: PageFileDocument = { script: pageFileScript(), bookmark: pageFileBookmark() };
  router.get('/page-file', (_request, response) => {
    response.json(document);
  });
  return router;
}
