import { randomBytes } from 'node:crypto';
import { Router } from 'express';
import { LiveRequest } from '@upper-veneer/contract';
import { message, withCssAddresses } from '@upper-veneer/core';
import type { DraftEvents } from '../draft-events.js';
import { compileDraft, describeDraft } from '../draft.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import type { Store } from '../store.js';

/** Bytes of chance in an address: it cannot be guessed. */
const SECRET_BYTES = 18;

/** The stylesheet of a draft for a page elsewhere: to whoever has its address, and nothing but that. */
export function liveSheetRoutes(store: Store): Router {
  const router = Router();
  router.get('/:secret/veneer.css', (request, response) => {
    response.set({
      'access-control-allow-origin': '*',
      'cache-control': 'no-store',
      'cross-origin-resource-policy': 'cross-origin',
      'x-content-type-options': 'nosniff',
    });
    const siteId = store.sites.byLive(String(request.params.secret));
    if (siteId === null) {
      response.status(404).type('text/plain').send('No draft is to be had here: it was switched off, or never on.');
      return;
    }
    response.type('text/css').send(withCssAddresses(compileDraft(store, siteId), ({ address }) => fromRoot(address)));
  });
  router.use(() => {
    throw new HttpProblem(404, 'refused.not-found', message('refusal.no-address'));
  });
  return router;
}

/** The veneer stands at the site's root, wherever the page it is tried on does. */
function fromRoot(address: string): string | null {
  return address.startsWith('/') || address.startsWith('#') || /^[a-z][a-z0-9+.-]*:/i.test(address)
    ? null
    : `/${address}`;
}

export interface LiveOptions {
  readonly store: Store;
  readonly events: DraftEvents;
}

/** Switches the address of a draft's stylesheet on, always a new one, and off. */
export function liveSwitchRoutes({ store, events }: LiveOptions): Router {
  const router = Router();
  router.put('/sites/:siteId/live', (request, response) => {
    const siteId = readId(request.params.siteId);
    if (!store.sites.byId(siteId)) throw noSite(siteId);
    const { isOn } = readBody(LiveRequest, request.body);
    store.sites.putLive(siteId, isOn ? randomBytes(SECRET_BYTES).toString('base64url') : null);
    store.sites.countVersion(siteId);
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    response.json(draft);
  });
  return router;
}
