import express, { type Express } from 'express';
import type { Store } from './store.js';

/** Name under which the host serves the published veneer. */
const VENEER_PATH = 'veneer.css';

/** A small web host that serves the captured sites to visitors, with the published veneer linked last in the head. */
export function createStandInHost(store: Store): Express {
  const app = express();
  app.disable('x-powered-by');
  app.get('/', (_request, response) => {
    const [site] = store.sites.all();
    if (site) response.redirect(302, `/${site.id}/`);
    else response.status(404).type('text/plain').send('No site is hosted here.');
  });
  app.get(['/:siteId/', '/:siteId/*path'], (request, response) => {
    const named = String(request.params.siteId);
    const siteId = /^\d{1,9}$/.test(named) ? Number(named) : 0;
    const path = ([] as string[]).concat(request.params.path ?? []).join('/') || 'index.html';
    response.set({ 'x-content-type-options': 'nosniff', 'cache-control': 'no-cache' });
    const published = store.revisions.published(siteId);
    if (path === VENEER_PATH) {
      const revision = published === null ? null : store.revisions.byNumber(siteId, published);
      if (revision) response.type('text/css').send(revision.css);
      else response.status(404).type('text/plain').send('Nothing is published.');
      return;
    }
    const page = store.sites.pageByPath(siteId, path);
    if (page) {
      const site = store.sites.byId(siteId);
      response.type('html').send(published === null ? page.html : linkVeneer(page.html, depthOf(path), published, site?.veneerPlace ?? 'head-end'));
      return;
    }
    const asset = store.sites.asset(siteId, path);
    if (asset) response.type(asset.mediaType).send(asset.body);
    else response.status(404).type('text/plain').send(`Nothing at ${path}.`);
  });
  return app;
}

function depthOf(path: string): string {
  return '../'.repeat(path.split('/').length - 1);
}

/** Puts the link where the site says; the number in it makes caches fetch each publication anew. */
function linkVeneer(html: string, up: string, revision: number, place: 'head-end' | 'body-end'): string {
  const link = `<link rel="stylesheet" href="${up}${VENEER_PATH}?r=${revision}">\n`;
  const end = place === 'head-end' ? /<\/head\s*>/i : /<\/body\s*>/i;
  return end.test(html) ? html.replace(end, (tag) => link + tag) : html + link;
}
