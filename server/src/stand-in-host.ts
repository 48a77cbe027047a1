import { randomBytes } from 'node:crypto';
import { SPECIMEN_PATH, isSpecimen } from '@upper-veneer/core';
import express, { type Express, type Request, type Response } from 'express';
import { lookRoutes } from './trials/look-routes.js';
import { lookOf, type RunningTrial } from './trials/visitor-look.js';
import { MAKERS_ORIGIN } from './makers/maker-address.js';
import { lookIn, settingsService, widgetWithSettings } from './makers/settings-service.js';
import type { HostCache, HostFile } from './host-cache.js';
import { liveDemo } from './live-demo.js';
import type { Store } from './store.js';
import type { DressedTexts } from './work/dressed-texts.js';

/** Name under which the host serves the published veneer. */
const VENEER_PATH = 'veneer.css';

/** Of a query, which names one address among many, UTF-16 units. */
const MOST_QUERY = 100;

/** Names of this machine itself (RFC 6761 §6.3 for those under `localhost`). */
const OWN_NAMES: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]']);

export interface StandInHostOptions {
  readonly store: Store;
  readonly dressed: DressedTexts;
  readonly cache: HostCache;
  /** Names besides this machine's own under which it answers, all sites under one origin there: where others may reach it. */
  readonly openTo?: readonly string[];
  /** Folder of the demo, whose live pages it serves as well; none when absent. */
  readonly demoFolder?: string;
}

/** Host name of a site's own origin. */
export function siteHostName(siteId: number): string {
  return `site-${siteId}.localhost`;
}

/** Host name of what a site frames. */
export function widgetsHostName(siteId: number): string {
  return `widgets-${siteId}.localhost`;
}

/**
 * A small web host that serves the captured sites to visitors, with the published veneer linked where the site says.
 * Each site has an origin of its own, `site-N.localhost`, and a second one, `widgets-N.localhost`, for what it frames.
 * Files come by a cache, pages are asked for each time. Nothing that a captured page brings runs, and nothing is asked of any other host.
 */
export function createStandInHost({ store, dressed, cache, openTo = [], demoFolder }: StandInHostOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  if (demoFolder !== undefined) app.use(liveDemo(demoFolder));
  const answer = async (siteId: number, asked: string, request: Request, response: Response): Promise<void> => {
    const path = asked || 'index.html';
    guard(request, response, siteId);
    const published = store.revisions.published(siteId);
    const trial = store.trials.running(siteId);
    const { hasNewName, maxAge } = store.hosting.bySite(siteId);
    const send = (fetch: () => HostFile | null): boolean => {
      const query = request.originalUrl.indexOf('?');
      const address = path + (query === -1 ? '' : request.originalUrl.slice(query, query + MOST_QUERY));
      const file = cache.file(siteId, address, maxAge, fetch);
      if (!file) return false;
      response.set({
        etag: file.etag,
        'cache-control': maxAge > 0 ? `public, max-age=${maxAge}` : 'no-cache',
        age: String(file.age),
        // RFC 9211 §2: who answered, and why.
        'cache-status': file.isHit ? `stand-in; hit; ttl=${maxAge - file.age}` : 'stand-in; fwd=miss',
      });
      response.type(file.mediaType);
      if (request.fresh) response.status(304).end();
      else response.send(file.body);
      return true;
    };
    if (path === VENEER_PATH) {
      const asked = lookIn(request);
      const look = asked === '' ? undefined : trial?.looks.find(({ variation }) => variation === asked);
      const number = look?.revision ?? published;
      const isSent = send(() => {
        const revision = number === null ? null : store.revisions.byNumber(siteId, number);
        return revision && { mediaType: 'text/css', body: Buffer.from(revision.css) };
      });
      if (!isSent) response.status(404).type('text/plain').send('Nothing is published.');
      return;
    }
    const page = path === SPECIMEN_PATH ? null : store.pages.byPath(siteId, path);
    if (page) {
      const site = store.sites.byId(siteId);
      const look = trial ? lookOf(request, response, siteId, trial) : null;
      // Where it has a name of its own, caches fetch each publication anew.
      const query = look ? `?look=${look.variation}&r=${look.revision}` : hasNewName ? `?r=${published}` : '';
      const html =
        published === null && !look
          ? page.html
          : await dressed.linkedPage(
              page.html,
              path,
              `${depthOf(path)}${VENEER_PATH}${query}`,
              site?.veneerPlace ?? 'head-end',
            );
      const widgetsAt = `${widgetsOrigin(request, siteId)}/${siteId}/widgets`;
      const framed = html.replaceAll(MAKERS_ORIGIN, widgetsAt);
      if (!trial || !look) {
        response.type('html').send(framed);
        return;
      }
      const nonce = randomBytes(16).toString('base64');
      guard(request, response, siteId, nonce);
      response.type('html').send(withCounting(withLook(framed, widgetsAt, look.variation), nonce, siteId, trial, look));
      return;
    }
    // A site brought in from elsewhere need not have an index: its first page stands for it.
    const [first] = asked === '' ? store.pages.bySite(siteId).filter((own) => !isSpecimen(own)) : [];
    if (first) {
      response.redirect(302, `/${siteId}/${first.path.split('/').map(encodeURIComponent).join('/')}`);
      return;
    }
    const fetch = (): HostFile | null => {
      const file = store.assets.byPath(siteId, path);
      if (file?.mediaType !== 'text/html') return file;
      return {
        ...file,
        body: Buffer.from(
          widgetWithSettings(store, siteId, { path, html: file.body.toString('utf8'), look: lookIn(request) }),
        ),
      };
    };
    if (path.startsWith('widgets/') && path.endsWith('.html')) {
      // A maker serves its widget as it is set now.
      const file = fetch();
      if (file) {
        response.type(file.mediaType).send(file.body);
        return;
      }
    }
    if (!send(fetch))
      response
        .status(404)
        .type('text/plain')
        .send(`Nothing at ${path.slice(0, 400)}.`);
  };
  app.use((request, response, next) => {
    const name = hostName(request);
    if (OWN_NAMES.has(name) || openTo.includes(name) || siteNamed(name) !== null) next();
    else
      response
        .status(403)
        .type('text/plain')
        .send(`This host does not answer for "${name.slice(0, 120)}".`);
  });
  app.get('/', (request, response) => {
    const [first] = store.sites.all();
    const siteId = siteNamed(hostName(request)) ?? first?.id;
    if (siteId === undefined) response.status(404).type('text/plain').send('No site is hosted here.');
    else response.redirect(302, `/${siteId}/`);
  });
  const makers = settingsService({ store });
  app.use((request, response, next) => {
    // A site's own origin has pages of its own under any path.
    if (hostName(request).startsWith('site-')) next();
    else makers(request, response, next);
  });
  app.use(lookRoutes({ store }));
  app.get(['/:siteId/', '/:siteId/*path'], async (request, response) => {
    const named = String(request.params.siteId);
    const siteId = /^\d{1,9}$/.test(named) ? Number(named) : 0;
    const name = hostName(request);
    const owner = siteNamed(name);
    if (owner !== null && owner !== siteId)
      response.status(404).type('text/plain').send('Another site is hosted here.');
    else if (owner === null && OWN_NAMES.has(name))
      response.redirect(302, `http://${siteHostName(siteId)}${portOf(request)}${request.originalUrl}`);
    else await answer(siteId, ([] as string[]).concat(request.params.path ?? []).join('/'), request, response);
  });
  return app;
}

/** Nothing runs, nothing is asked of another host, and nothing moves by itself; a second pass of reading finds no more. */
/** @param nonce what our own counting script is let run by, where a trial runs; nothing that was captured has it. */
function guard(request: Request, response: Response, siteId: number, nonce = ''): void {
  response.set({
    'content-security-policy': [
      "default-src 'none'",
      nonce === '' ? "script-src 'none'" : `script-src 'nonce-${nonce}'; connect-src 'self'`,
      "style-src 'self' 'unsafe-inline'",
      "img-src 'self' data:",
      "font-src 'self' data:",
      "media-src 'self'",
      `frame-src 'self' ${widgetsOrigin(request, siteId)}`,
      "form-action 'none'",
      "base-uri 'none'",
      `sandbox allow-same-origin allow-popups allow-top-navigation-by-user-activation${nonce === '' ? '' : ' allow-scripts allow-forms'}`,
    ].join('; '),
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'cache-control': 'no-cache',
  });
}

/** Frames of makers are asked for by the look their page has. */
function withLook(html: string, widgetsAt: string, look: string): string {
  return html
    .split(widgetsAt)
    .map((piece, i) => (i === 0 ? piece : piece.replace(/^(\/[\w./-]{1,200}\.html)(?=["'])/, `$1?look=${look}`)))
    .join(widgetsAt);
}

/** A page with the script that counts for a trial, at its end. */
function withCounting(
  html: string,
  nonce: string,
  siteId: number,
  trial: RunningTrial,
  { variation }: RunningTrial['looks'][number],
): string {
  const facts = JSON.stringify({
    trial: trial.id,
    look: variation,
    seen: trial.seen,
    did: trial.conversions,
    to: `/${siteId}/look/events`,
  });
  const quoted = facts.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;');
  return `${html}<script src="/${siteId}/look/count.js" nonce="${nonce}" data-facts="${quoted}"></script>`;
}

function hostName(request: Request): string {
  return (request.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
}

function portOf(request: Request): string {
  return /:\d+$/.exec(request.headers.host ?? '')?.[0] ?? '';
}

/** The site whose origin a host name is; `null` for another name. */
function siteNamed(name: string): number | null {
  const found = /^(?:site|widgets)-(\d{1,9})\.localhost$/.exec(name);
  return found ? Number(found[1]) : null;
}

function widgetsOrigin(request: Request, siteId: number): string {
  return siteNamed(hostName(request)) === null ? '' : `http://widgets-${siteId}.localhost${portOf(request)}`;
}

function depthOf(path: string): string {
  return '../'.repeat(path.split('/').length - 1);
}
