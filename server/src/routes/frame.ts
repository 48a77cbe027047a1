import { Router, type Response } from 'express';
import { HttpProblem, readId } from '../http/problem.js';
import type { Store } from '../store.js';
import type { DressedTexts } from '../work/dressed-texts.js';

/** No script, no network, nothing but the site's own stored files; what is opened by itself has no more than in the frame. */
const FRAME_POLICY = [
  "default-src 'none'",
  "script-src 'none'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data:",
  "font-src 'self' data:",
  "media-src 'self'",
  "form-action 'none'",
  "base-uri 'none'",
  "frame-ancestors 'self'",
  'sandbox allow-same-origin',
].join('; ');

/** Captured pages for the preview frame, and their files. */
export function frameRoutes(store: Store, dressed: DressedTexts): Router {
  const router = Router();
  router.get('/sites/:siteId/pages/:pageId/', async (request, response) => {
    const siteId = readId(request.params.siteId, 'site');
    const page = store.pages.byId(siteId, readId(request.params.pageId, 'page'));
    if (!page) throw new HttpProblem(404, 'Not found', 'There is no such page');
    const html = await dressed.framePage(page.html, page.path, `/frame/sites/${siteId}/files/`);
    guard(response).type('html').send(html);
  });
  router.get('/sites/:siteId/files/*path', async (request, response) => {
    const siteId = readId(request.params.siteId, 'site');
    const path = ([] as string[]).concat(request.params.path).join('/');
    const asset = store.assets.byPath(siteId, path);
    if (!asset) throw new HttpProblem(404, 'Not found', `"${path}" was not captured`);
    const body = asset.mediaType === 'text/css' ? await dressed.frameSheet(asset.body.toString('utf8')) : asset.body;
    guard(response).type(asset.mediaType).send(body);
  });
  return router;
}

function guard(response: Response): Response {
  return response.set({
    'content-security-policy': FRAME_POLICY,
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'cache-control': 'private, no-cache',
    'cross-origin-resource-policy': 'same-origin',
  });
}
