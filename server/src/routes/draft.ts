import { Router } from 'express';
import { ChangeRequest, PaletteRequest, PublicationRequest, RevisionRequest } from '@upper-veneer/contract';
import { message, type LightingSignal, type Override } from '@upper-veneer/core';
import { checkOverrides, checkOwnCss, checkPalette, describeDraft } from '../draft.js';
import type { DraftEvents } from '../draft-events.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import { firstOf } from '../http/refusal.js';
import type { Store } from '../store.js';
import { saveRevision } from '../save-revision.js';
import { WorkError, type WorkPool } from '../work/work-pool.js';

export interface DraftRouteOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly pool: WorkPool;
  readonly now: () => Date;
}

/** Changes, undo, redo, revisions and publishing; each answers with the draft as it then stands. */
export function draftRoutes({ store, events, pool, now }: DraftRouteOptions): Router {
  const router = Router();
  const siteOf = (text: string | string[] | undefined): number => {
    const id = readId(text);
    if (!store.sites.byId(id)) throw noSite(id);
    return id;
  };
  const answer = (siteId: number): ReturnType<typeof describeDraft> => {
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    return draft;
  };
  router.get('/sites/:siteId/draft', (request, response) => {
    response.json(describeDraft(store, siteOf(request.params.siteId)));
  });
  router.get('/events', async (request, response) => {
    await events.subscribe(request, response, () =>
      store.sites.all().map(({ id }) => ({ siteId: id, version: store.sites.byId(id)?.version ?? 0 })),
    );
  });
  router.post('/sites/:siteId/changes', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, put, drop, ownCss, forItem } = readBody(ChangeRequest, request.body);
    const overrides = toOverrides(put);
    const errors = [...checkOverrides(store, siteId, overrides), ...checkOwnCss(store, siteId, ownCss ?? [])];
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-stored', firstOf(errors), errors);
    if (ownCss === undefined && forItem === undefined)
      store.changes.apply(siteId, label, overrides, drop, now().toISOString());
    else
      store.changes.applyTo(
        siteId,
        label,
        ['overrides', 'ownCss', 'requests'],
        () => {
          for (const id of drop) store.overrides.drop(siteId, id);
          for (const override of overrides) store.overrides.put(siteId, override);
          if (ownCss)
            store.ownCss.put(
              siteId,
              ownCss.map(({ partId, css }) => ({ partId, css })),
            );
          // An item that was taken away meanwhile has nothing made for it.
          if (forItem !== undefined)
            store.requests.link(
              siteId,
              forItem,
              overrides.map(({ id }) => id),
            );
        },
        now().toISOString(),
      );
    response.status(201).json(answer(siteId));
  });
  router.put('/sites/:siteId/palette', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const palette = readBody(PaletteRequest, request.body);
    const rebound = toOverrides(palette.overrides ?? []);
    const errors = [...checkOverrides(store, siteId, rebound), ...checkPalette(store, siteId, palette, rebound)];
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-stored', errors[0].reason, errors);
    store.changes.applyTo(
      siteId,
      palette.label,
      rebound.length > 0 ? ['palette', 'overrides'] : ['palette'],
      () => {
        store.palettes.replace(siteId, {
          ...palette,
          swatches: palette.swatches.map(({ id, name, css, origin, note }) => ({ id, name, css, origin, note })),
          shape: palette.shape,
          former: palette.former,
          second: palette.second && { ...palette.second, told: palette.second.told as LightingSignal },
        });
        for (const override of rebound) store.overrides.put(siteId, override);
      },
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.post('/sites/:siteId/undo', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    if (!store.changes.undo(siteId)) throw new HttpProblem(409, 'refused.nothing-to-undo', message('refusal.no-undo'));
    response.json(answer(siteId));
  });
  router.post('/sites/:siteId/redo', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    if (!store.changes.redo(siteId)) throw new HttpProblem(409, 'refused.nothing-to-redo', message('refusal.no-redo'));
    response.json(answer(siteId));
  });
  router.post('/sites/:siteId/revisions', async (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { note } = readBody(RevisionRequest, request.body);
    // Whoever asked may give up: then nothing is saved.
    const given = new AbortController();
    response.on('close', () => given.abort());
    let number: number | null;
    try {
      number = await saveRevision({
        store,
        pool,
        siteId,
        note,
        overrides: store.overrides.bySite(siteId),
        at: now().toISOString(),
        signal: given.signal,
        onProgress: (done, total) => events.tidied(siteId, done, total),
      });
    } catch (error) {
      if (error instanceof WorkError && error.fault === 'stopped') return;
      throw error;
    }
    if (given.signal.aborted) return;
    // The site may have been deleted meanwhile.
    siteOf(request.params.siteId);
    if (number === null) return;
    response.status(201).json(answer(siteId));
  });
  router.post('/sites/:siteId/publications', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { revision } = readBody(PublicationRequest, request.body);
    if (!store.revisions.byNumber(siteId, revision))
      throw new HttpProblem(422, 'refused.not-published', message('refusal.revision-gone', { revision }), [
        { field: 'revision', reason: message('wrong.missing') },
      ]);
    store.revisions.publish(siteId, revision, now().toISOString());
    store.palettes.keepNames(siteId, store.sheetOptions.bySite(siteId).names);
    store.sites.countVersion(siteId);
    response.status(201).json(answer(siteId));
  });
  return router;
}

function toOverrides(bodies: readonly Override[]): Override[] {
  return bodies.map((body) => ({ ...body, partId: body.partId ?? null }));
}
