import { message } from '@upper-veneer/core';
import { Router } from 'express';
import { BringBackRequest, type RevisionDocument } from '@upper-veneer/contract';
import type { DraftEvents } from '../draft-events.js';
import { describeDraft } from '../draft.js';
import { HttpProblem, readBody, readId } from '../http/problem.js';
import type { RevisionRow } from '../db/revisions.js';
import { bringBack, bringPartBack } from '../revision-basis.js';
import type { Store } from '../store.js';

export interface RevisionOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly now: () => Date;
}

/** Saved revisions: looked at, and brought back into the draft. */
export function revisionRoutes({ store, events, now }: RevisionOptions): Router {
  const router = Router();
  const found = (site: string | string[] | undefined, text: string | string[] | undefined): [number, RevisionRow] => {
    const siteId = readId(site);
    const number = readId(text);
    const revision = store.sites.byId(siteId) ? store.revisions.byNumber(siteId, number) : null;
    if (!revision) throw new HttpProblem(404, 'refused.not-found', message('refusal.no-revision', { number }));
    return [siteId, revision];
  };
  router.get('/sites/:siteId/revisions/:number', (request, response) => {
    const [, { number, note, css, savedAt, overrides, basis }] = found(request.params.siteId, request.params.number);
    const document: RevisionDocument = {
      number,
      note,
      css,
      savedAt,
      overrides: JSON.parse(overrides) as RevisionDocument['overrides'],
      hasBasis: basis !== null,
    };
    response.json(document);
  });
  router.post('/sites/:siteId/revisions/:number/back', (request, response) => {
    const [siteId, revision] = found(request.params.siteId, request.params.number);
    const { part } = readBody(BringBackRequest, request.body);
    if (typeof part === 'number' && !store.parts.bySite(siteId).some(({ id }) => id === part))
      throw new HttpProblem(422, 'refused.not-brought-back', message('refusal.part-gone', { part }));
    const kept = { ...revision, words: `revision ${revision.number}` };
    const asked = { store, siteId, revision: kept, at: now().toISOString() };
    const brought = part === 'all' ? bringBack(asked) : bringPartBack(asked, part);
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    response.json({ draft, ...brought });
  });
  router.post('/sites/:siteId/left-drafts/:id/back', (request, response) => {
    const siteId = readId(request.params.siteId);
    const left = store.sites.byId(siteId) ? store.leftDrafts.byId(siteId, readId(request.params.id)) : null;
    if (!left) throw new HttpProblem(404, 'refused.not-found', message('refusal.draft-gone'));
    const kept = { ...left, words: `the draft left at ${left.leftAt.slice(0, 16).replace('T', ', ')}` };
    const brought = bringBack({ store, siteId, revision: kept, at: now().toISOString() });
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    response.json({ draft, ...brought });
  });
  return router;
}
