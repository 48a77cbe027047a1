import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router, type NextFunction, type Request, type Response } from 'express';

/** Host names of the demo's live pages, and of what they frame. */
export const LIVE_HOST = 'live.localhost';
const NAMES: ReadonlySet<string> = new Set([LIVE_HOST, 'live-widgets.localhost']);

/**
 * Serves the demo's live pages, whose scripts run: a site as visitors get it, for trying how one is captured. They are the product's own
 * pages, on origins of their own beside those of the captured sites.
 * @param folder the demo's folder; what `live/` lacks comes from `site/`.
 */
export function liveDemo(folder: string): Router {
  const router = Router();
  const files = ['live', 'site'].map((name) => join(folder, name)).filter((path) => existsSync(path));
  const served = Router();
  served.use((_request: Request, response: Response, next: NextFunction) => {
    response.set({
      'content-security-policy':
        "default-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-src http://live-widgets.localhost:*; form-action 'self'",
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-cache',
    });
    next();
  });
  for (const path of files) served.use(express.static(path, { index: 'index.html' }));
  served.use((_request, response) => void response.status(404).type('text/plain').send('No page of the demo is here.'));
  router.use((request, response, next) => {
    const name = (request.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
    if (NAMES.has(name)) served(request, response, next);
    else next();
  });
  return router;
}
