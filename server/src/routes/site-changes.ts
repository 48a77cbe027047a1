import { Router } from 'express';
import {
  ArrangementRequest,
  ClientRequestsRequest,
  ExceptionsRequest,
  PlanRequest,
  NameRequest,
  SheetOptionsRequest,
  PartsRequest,
} from '@upper-veneer/contract';
import { message, ROLE_NAMES, isSpecimen, withoutPage, type VeneerPlace } from '@upper-veneer/core';
import { checkScope, choicesOf } from '../plan.js';
import { checkExceptions, checkParts, checkRequests, composeOrders, toPart } from '../site-checks.js';
import { describeDraft } from '../draft.js';
import type { DraftEvents } from '../draft-events.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import type { Refusal } from '../http/refusal.js';
import { makeSpecimen } from '../specimen.js';
import type { Store } from '../store.js';
import type { WorkPool } from '../work/work-pool.js';

export interface SiteChangeOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly pool: WorkPool;
  readonly now: () => Date;
}

/** Changes to what a site is made of: its names, parts, sheet order, the veneer's place, and exceptions. */
export function siteChangeRoutes({ store, events, pool, now }: SiteChangeOptions): Router {
  const router = Router();
  const siteOf = (text: string | string[] | undefined): number => {
    const id = readId(text);
    if (!store.sites.byId(id)) throw noSite(id);
    return id;
  };
  const pageOf = (siteId: number, text: string | string[] | undefined): number => {
    const id = readId(text);
    if (!store.pages.byId(siteId, id)) throw new HttpProblem(404, 'refused.not-found', message('refusal.no-page'));
    return id;
  };
  const answer = (siteId: number): ReturnType<typeof describeDraft> => {
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    return draft;
  };
  const refuse = (errors: readonly Refusal[]): void => {
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-stored', errors[0].reason, errors);
  };
  router.put('/sites/:siteId/name', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { name } = readBody(NameRequest, request.body);
    const other = store.sites.byName(name);
    if (other && other.id !== siteId)
      throw new HttpProblem(422, 'refused.not-stored', message('refusal.name-taken', { name }));
    store.sites.rename(siteId, name);
    store.sites.countStructure(siteId);
    store.sites.countVersion(siteId);
    response.json(answer(siteId));
  });
  router.delete('/sites/:siteId', (request, response) => {
    store.sites.drop(siteOf(request.params.siteId));
    response.status(204).end();
  });
  router.post('/sites/:siteId/specimen', async (request, response) => {
    const siteId = siteOf(request.params.siteId);
    if (!(await makeSpecimen(store, pool, siteId)))
      throw new HttpProblem(409, 'refused.not-made', message('refusal.specimen-changed'));
    response.status(201).json(answer(siteOf(request.params.siteId)));
  });
  router.put('/sites/:siteId/pages/:pageId/name', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { name } = readBody(NameRequest, request.body);
    store.pages.rename(siteId, pageOf(siteId, request.params.pageId), name);
    store.sites.countStructure(siteId);
    store.sites.countVersion(siteId);
    response.json(answer(siteId));
  });
  router.delete('/sites/:siteId/pages/:pageId', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const pageId = pageOf(siteId, request.params.pageId);
    const uses = store.overrides.onPage(siteId, pageId);
    if (uses > 0) throw new HttpProblem(409, 'refused.not-removed', message('refusal.made-on-page', { uses }));
    const shown = store.pages.bySite(siteId).filter((page) => !isSpecimen(page));
    if (shown.length === 1 && shown[0].id === pageId)
      throw new HttpProblem(409, 'refused.not-removed', message('refusal.only-page'));
    const overrides = store.overrides.bySite(siteId);
    const stranded = overrides.filter((override) => withoutPage(override, pageId) === null);
    if (stranded.length > 0)
      throw new HttpProblem(
        409,
        'refused.not-removed',
        message('refusal.kept-to-page', { count: stranded.length, selector: stranded[0].selector }),
      );
    store.inOneStep(() => {
      for (const override of overrides) {
        const kept = withoutPage(override, pageId);
        if (kept && kept !== override) store.overrides.put(siteId, kept);
      }
      const path = store.pages.byId(siteId, pageId)?.path ?? '';
      store.pages.drop(siteId, pageId);
      store.visits.forget(siteId, path);
      store.sites.countStructure(siteId);
      // The history may lead back to overrides on the page.
      store.changes.forget(siteId);
      store.sites.countVersion(siteId);
    });
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/parts', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, parts, merged } = readBody(PartsRequest, request.body);
    refuse(checkParts(store, siteId, parts, merged));
    store.changes.applyTo(
      siteId,
      label,
      ['parts', 'ownCss', 'settings'],
      () => {
        for (const { from, into } of merged) {
          store.parts.moveOverrides(siteId, from, into);
          store.ownCss.move(siteId, from, into);
          store.settingsSheets.move(siteId, from, into);
        }
        store.parts.replace(siteId, parts.map(toPart));
      },
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/requests', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, requests } = readBody(ClientRequestsRequest, request.body);
    refuse(checkRequests(store, siteId, requests));
    store.changes.applyTo(siteId, label, ['requests'], () => store.requests.put(siteId, requests), now().toISOString());
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/arrangement', async (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, veneerPlace, sheetOrders } = readBody(ArrangementRequest, request.body);
    const composed = await composeOrders(store, pool, siteId, sheetOrders);
    refuse(composed.errors);
    store.changes.applyTo(
      siteId,
      label,
      ['arrangement'],
      () => store.arrangements.put(siteId, { veneerPlace: veneerPlace as VeneerPlace, sheetOrders: composed.orders }),
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/sheet-options', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, prefix, asValues, names, hoverOnly, flatFor, isByLetters } = readBody(
      SheetOptionsRequest,
      request.body,
    );
    const { swatches } = store.palettes.bySite(siteId);
    refuse(
      names.flatMap(({ role, name }, i) => {
        const isOther =
          names.findIndex((other) => other.name === name) !== i ||
          ROLE_NAMES.some((other) => other === name && other !== role && !names.some((named) => named.role === other));
        const published = swatches.find(({ token }) => token === name);
        return isOther || published
          ? [
              {
                field: `names.${i}.name`,
                reason: published
                  ? message('wrong.published-as', { name, swatch: published.name })
                  : message('wrong.name-of-role', { name }),
              },
            ]
          : [];
      }),
    );
    store.changes.applyTo(
      siteId,
      label,
      ['naming'],
      () =>
        store.sheetOptions.put(siteId, {
          prefix,
          asValues,
          names: Object.fromEntries(names.map(({ role, name }) => [role, name])),
          hoverOnly,
          flatFor: flatFor?.trim() ?? '',
          isByLetters: isByLetters ?? false,
        }),
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/exceptions', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, exceptions } = readBody(ExceptionsRequest, request.body);
    refuse(checkExceptions(exceptions));
    store.changes.applyTo(
      siteId,
      label,
      ['exceptions'],
      () => store.exceptions.replace(siteId, exceptions),
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/plan', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { label, scope, ...plan } = readBody(PlanRequest, request.body);
    refuse(checkScope(scope));
    store.changes.applyTo(
      siteId,
      label,
      ['plans'],
      () => store.plans.put(siteId, { scope, choices: choicesOf(plan) }),
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  return router;
}
