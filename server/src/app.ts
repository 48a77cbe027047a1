import { message } from '@upper-veneer/core';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { createDraftEvents } from './draft-events.js';
import { accessOnly } from './http/access.js';
import { isLoopback } from './http/loopback.js';
import { localOnly } from './http/local-only.js';
import type { HostCache } from './host-cache.js';
import { HttpProblem, problemHandler } from './http/problem.js';
import { findBrowser, type AddressPolicy } from '@upper-veneer/browser';
import { MAKERS_ORIGIN } from './makers/maker-address.js';
import { createImportJobs } from './import/import-jobs.js';
import { archiveRoutes } from './routes/archives.js';
import { draftRoutes } from './routes/draft.js';
import { frameRoutes } from './routes/frame.js';
import { importRoutes } from './routes/imports.js';
import { kitRoutes } from './routes/kits.js';
import { liveSheetRoutes, liveSwitchRoutes } from './routes/live.js';
import { pageFileRoutes } from './routes/page-file.js';
import { proofRoutes } from './routes/proof.js';
import { revisionRoutes } from './routes/revisions.js';
import { settingsRoutes } from './routes/settings.js';
import { servedRoutes } from './routes/served.js';
import type { AskHost } from './served.js';
import { visitRoutes } from './routes/visits.js';
import { createVisiting } from './visits/visiting.js';
import { trialRoutes } from './routes/trials.js';
import { siteChangeRoutes } from './routes/site-changes.js';
import { siteRoutes } from './routes/sites.js';
import type { Store } from './store.js';
import type { DressedTexts } from './work/dressed-texts.js';
import type { WorkPool } from './work/work-pool.js';

export interface AppOptions {
  readonly store: Store;
  readonly pool: WorkPool;
  readonly dressed: DressedTexts;
  /** Cache in front of the stand-in host. */
  readonly cache: HostCache;
  /** Address of the stand-in host for a site. */
  readonly hostUrl: (siteId: number) => string;
  /** Folder of the built web client; left out in tests. */
  readonly webFolder?: string;
  readonly allowedHosts?: readonly string[];
  /** What others must show first, where others may reach it. */
  readonly token?: string;
  /** Address of the stand-in host's second origin for a site, without an end slash. */
  readonly widgetsAt?: (siteId: number) => string;
  /** Asks the host of a site as a visitor would. */
  readonly askHost: AskHost;
  /** Which addresses may be fetched; public ones by default. */
  readonly fetchPolicy?: () => AddressPolicy;
  /** Finds the program of the browser that pages are visited with. */
  readonly browserProgram?: () => string | null;
  /** Address of live pages to try it with; empty for none. */
  readonly exampleAddress?: string;
  readonly now?: () => Date;
  readonly log?: (error: unknown) => void;
}

/** The application's server, not listening. `close` ends its open streams. */
export function createApp(options: AppOptions): { readonly app: Express; readonly close: () => void } {
  const {
    store,
    pool,
    dressed,
    cache,
    hostUrl,
    askHost,
    widgetsAt = () => MAKERS_ORIGIN,
    webFolder,
    allowedHosts = [],
    token = '',
    fetchPolicy = () => ({ allowedHosts: [], allowPrivate: false }),
    browserProgram = findBrowser,
    exampleAddress = '',
    now = () => new Date(),
    log = () => undefined,
  } = options;
  const events = createDraftEvents();
  const jobs = createImportJobs(log);
  const visiting = createVisiting({ program: () => browserProgram(), policy: fetchPolicy });
  const announce = (siteId: number): void => events.announce(siteId, store.sites.byId(siteId)?.version ?? 0);
  const app = express();
  app.disable('x-powered-by');
  app.use(localOnly(allowedHosts));
  // Before who is let in is asked: its address is the secret.
  app.use('/live', liveSheetRoutes(store));
  if (token !== '') app.use(accessOnly(token));
  app.use('/frame', frameRoutes(store, dressed));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'default-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'script-src': ["'self'"],
          'img-src': ["'self'", 'data:'],
          'worker-src': ["'self'"],
          'frame-src': ["'self'"],
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(
    compression({
      filter: (request, response) =>
        !request.path.endsWith('/events') &&
        !isLoopback(request.socket.remoteAddress) &&
        compression.filter(request, response),
    }),
  );
  app.use(express.json({ limit: '2mb' }));
  app.use(
    '/api',
    siteRoutes(store, hostUrl),
    siteChangeRoutes({ store, events, pool, now }),
    importRoutes({ store, jobs, pool, visiting, policy: fetchPolicy, now, announce }),
    draftRoutes({ store, events, pool, now }),
    revisionRoutes({ store, events, now }),
    servedRoutes({ store, cache, askHost, now }),
    liveSwitchRoutes({ store, events }),
    archiveRoutes({ store, pool, now }),
    kitRoutes(store, now),
    pageFileRoutes(),
    visitRoutes({ visiting, example: exampleAddress }),
    proofRoutes({ store, events, now }),
    settingsRoutes({ store, events, policy: fetchPolicy, widgetsAt, now }),
    trialRoutes({ store, events, pool, policy: fetchPolicy, widgetsAt, now }),
  );
  app.use('/api', () => {
    throw new HttpProblem(404, 'refused.not-found', message('refusal.no-address'));
  });
  if (webFolder && existsSync(join(webFolder, 'index.html'))) {
    app.use(
      express.static(webFolder, {
        index: false,
        maxAge: '1h',
        setHeaders: (response, path) => {
          if (path.endsWith('.html')) response.setHeader('cache-control', 'no-store');
        },
      }),
    );
    app.get('/*path', (_request, response) =>
      response.set('cache-control', 'no-store').sendFile(join(webFolder, 'index.html')),
    );
    app.get('/', (_request, response) =>
      response.set('cache-control', 'no-store').sendFile(join(webFolder, 'index.html')),
    );
  }
  app.use(problemHandler(log));
  return {
    app,
    close: () => {
      jobs.close();
      void visiting.closeAll();
      events.close();
    },
  };
}
