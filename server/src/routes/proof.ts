import { message } from '@upper-veneer/core';
import { Router } from 'express';
import { LookedRequest, RevisionProofRequest, SettledRequest } from '@upper-veneer/contract';
import { describeDraft } from '../draft.js';
import type { DraftEvents } from '../draft-events.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import { firstOf } from '../http/refusal.js';
import type { Store } from '../store.js';

export interface ProofRouteOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly now: () => Date;
}

/** What is kept of proving a site: counts with each revision, what was looked at by eye, pages as they were before they were captured again. */
export function proofRoutes({ store, events, now }: ProofRouteOptions): Router {
  const router = Router();
  const siteOf = (text: string | string[] | undefined): number => {
    const id = readId(text);
    if (!store.sites.byId(id)) throw noSite(id);
    return id;
  };
  const answer = (siteId: number): ReturnType<typeof describeDraft> => {
    store.sites.countVersion(siteId);
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    return draft;
  };
  router.put('/sites/:siteId/revisions/:number/proof', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const number = readId(request.params.number);
    const { fails, toLookAt } = readBody(RevisionProofRequest, request.body);
    if (!store.revisions.byNumber(siteId, number))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-revision', { number }));
    store.revisions.prove(siteId, number, { fails, toLookAt });
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/looked', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { rows, isLooked } = readBody(LookedRequest, request.body);
    const pages = new Set(store.pages.ids(siteId));
    const parts = new Set([0, ...store.parts.bySite(siteId).map(({ id }) => id)]);
    const errors = rows.flatMap(({ pageId, partId }, i) => [
      ...(pages.has(pageId) ? [] : [{ field: `rows.${i}.pageId`, reason: message('wrong.no-page') }]),
      ...(parts.has(partId) ? [] : [{ field: `rows.${i}.partId`, reason: message('wrong.no-part') }]),
    ]);
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-stored', firstOf(errors), errors);
    store.inOneStep(() => {
      for (const row of rows)
        if (isLooked) store.looked.put(siteId, { ...row, at: now().toISOString() });
        else store.looked.drop(siteId, row);
    });
    response.json(answer(siteId));
  });
  router.get('/sites/:siteId/former-captures', (request, response) => {
    response.json(store.formerCaptures.bySite(siteOf(request.params.siteId)));
  });
  router.post('/sites/:siteId/former-captures/settled', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { overrides } = readBody(SettledRequest, request.body);
    if (overrides === null) store.formerCaptures.settleAll(siteId);
    else store.formerCaptures.settle(siteId, new Set(overrides));
    response.json(answer(siteId));
  });
  return router;
}
