import express, { type Express } from 'express';
import { linkVeneer } from '@upper-veneer/core';
import type { Store } from './store.js';

/** Name under which the host serves the published veneer. */
const VENEER_PATH = 'veneer.css';

/** Address under which the demo's pages frame their makers' widgets; the host serves them from a second origin of its own. */
const WIDGETS_HOST = 'https://widgets.osier.example';

/**
 * A small web host that serves the captured sites to visitors, with the published veneer linked where the site says.
 * @param secondOrigin origin from which framed widgets come, e.g. `http://127.0.0.1:4311`.
 */
export function createStandInHost(store: Store, secondOrigin: () => string = () => ''): Express {
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
    const asked = ([] as string[]).concat(request.params.path ?? []).join('/');
    const path = asked || 'index.html';
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
      // The number makes caches fetch each publication anew.
      const html = published === null ? page.html : linkVeneer(page.html, path, `${depthOf(path)}${VENEER_PATH}?r=${published}`, site?.veneerPlace ?? 'head-end');
      response.type('html').send(html.replaceAll(WIDGETS_HOST, `${secondOrigin()}/${siteId}/widgets`));
      return;
    }
    // A site brought in from elsewhere need not have an index: its first page stands for it.
    const [first] = asked === '' ? store.sites.pages(siteId) : [];
    if (first) {
      response.redirect(302, `/${siteId}/${first.path.split('/').map(encodeURIComponent).join('/')}`);
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
