import { Router, type Response } from 'express';
import { framePage, rewriteStates } from '@upper-veneer/core';
import { HttpProblem, readId } from '../http/problem.js';
import type { Store } from '../store.js';

/** No script, no network, nothing but the site's own stored files. */
const FRAME_POLICY = [
  "default-src 'none'", "script-src 'none'", "style-src 'self' 'unsafe-inline'", "img-src 'self' data:", "font-src 'self' data:", "media-src 'self'",
  "form-action 'none'", "base-uri 'none'", "frame-ancestors 'self'",
].join('; ');

/** Captured pages for the preview frame, and their files. */
export function frameRoutes(store: Store): Router {
  const router = Router();
  const rewritten = new Map<string, string>();
  router.get('/sites/:siteId/pages/:pageId/', (request, response) => {
    const siteId = readId(request.params.siteId, 'site');
    const page = store.sites.page(siteId, readId(request.params.pageId, 'page'));
    if (!page) throw new HttpProblem(404, 'Not found', 'There is no such page');
    guard(response).type('html').send(framePage(page.html, { path: page.path, filesAt: `/frame/sites/${siteId}/files/` }));
  });
  router.get('/sites/:siteId/files/*path', (request, response) => {
    const siteId = readId(request.params.siteId, 'site');
    const path = ([] as string[]).concat(request.params.path).join('/');
    const asset = store.sites.asset(siteId, path);
    if (!asset) throw new HttpProblem(404, 'Not found', `"${path}" was not captured`);
    guard(response).type(asset.mediaType);
    if (asset.mediaType !== 'text/css') {
      response.send(asset.body);
      return;
    }
    const key = `${siteId}:${store.sites.byId(siteId)?.structure ?? 0}:${path}`;
    let css = rewritten.get(key);
    if (css === undefined) {
      css = rewriteStates(asset.body.toString('utf8'));
      rewritten.set(key, css);
    }
    response.send(css);
  });
  return router;
}

function guard(response: Response): Response {
  return response.set({
    'content-security-policy': FRAME_POLICY, 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer', 'cache-control': 'no-store',
    'cross-origin-resource-policy': 'same-origin',
  });
}
