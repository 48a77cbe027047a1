import { Router, type Response } from 'express';
import { message, standingActs, type FormerCapture } from '@upper-veneer/core';
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
  "frame-src 'self'",
  "form-action 'none'",
  "base-uri 'none'",
  "frame-ancestors 'self'",
  'sandbox allow-same-origin',
].join('; ');

/** Of an address at which nothing else will ever stand (RFC 8246). */
const LASTING = 'private, max-age=31536000, immutable';

/** Captured pages for the preview frame, and their files. */
export function frameRoutes(store: Store, dressed: DressedTexts): Router {
  const router = Router();
  const framedOf = (siteId: number): { readonly paths: readonly string[]; readonly at: string } => ({
    paths: store.assets.documents(siteId),
    at: `/frame/sites/${siteId}/framed/`,
  });
  /** Files as they stand now have an address of their own, so that one frame after the other need not ask for them again. */
  const filesAt = (siteId: number): string => `/frame/sites/${siteId}/at/${store.assets.edition(siteId)}/files/`;
  const sendFile = async (response: Response, siteId: number, path: string, isLasting = false): Promise<void> => {
    const asset = store.assets.byPath(siteId, path);
    if (!asset) throw new HttpProblem(404, 'refused.not-found', message('refusal.not-captured', { path }));
    const body = asset.mediaType === 'text/css' ? await dressed.frameSheet(asset.body.toString('utf8')) : asset.body;
    guard(response).type(asset.mediaType);
    if (isLasting) response.set('cache-control', LASTING);
    response.send(body);
  };
  router.get('/sites/:siteId/pages/:pageId/', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const page = store.pages.byId(siteId, readId(request.params.pageId));
    if (!page) throw new HttpProblem(404, 'refused.not-found', message('refusal.no-page'));
    const html = await dressed.framePage({
      html: page.html,
      path: page.path,
      filesAt: filesAt(siteId),
      framed: framedOf(siteId),
      acts: standingActs(store.parts.bySite(siteId)),
    });
    guard(response).type('html').send(html);
  });
  router.get('/sites/:siteId/framed/*path', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const path = pathIn(request.params.path);
    const asset = store.assets.byPath(siteId, path);
    if (asset?.mediaType !== 'text/html')
      throw new HttpProblem(404, 'refused.not-found', message('refusal.not-captured', { path }));
    const html = asset.body.toString('utf8');
    guard(response)
      .type('html')
      .send(await dressed.framePage({ html, path, filesAt: filesAt(siteId) }));
  });
  router.get('/sites/:siteId/files/*path', async (request, response) => {
    const siteId = readId(request.params.siteId);
    await sendFile(response, siteId, pathIn(request.params.path));
  });
  router.get('/sites/:siteId/at/:edition/files/*path', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const { edition } = request.params;
    await sendFile(response, siteId, pathIn(request.params.path), edition === store.assets.edition(siteId));
  });
  const formerOf = (siteId: number, text: string | undefined): FormerCapture => {
    const former = store.formerCaptures.byId(siteId, readId(text));
    if (!former) throw new HttpProblem(404, 'refused.not-found', message('refusal.no-former-capture'));
    return former;
  };
  router.get('/sites/:siteId/former/:formerId/', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const { id, pageId, html } = formerOf(siteId, request.params.formerId);
    const path = store.pages.byId(siteId, pageId)?.path ?? '';
    const formerAt = `/frame/sites/${siteId}/former/${id}/files/`;
    guard(response)
      .type('html')
      .send(await dressed.framePage({ html, path, filesAt: formerAt, framed: framedOf(siteId) }));
  });
  router.get('/sites/:siteId/former/:formerId/files/*path', async (request, response) => {
    const siteId = readId(request.params.siteId);
    const { stylesheets } = formerOf(siteId, request.params.formerId);
    const path = pathIn(request.params.path);
    if (Object.hasOwn(stylesheets, path))
      guard(response)
        .type('text/css')
        .send(await dressed.frameSheet(stylesheets[path]));
    // What is the same still is not kept twice.
    else await sendFile(response, siteId, path);
  });
  return router;
}

function pathIn(pieces: string | string[] | undefined): string {
  return ([] as string[]).concat(pieces ?? []).join('/');
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
