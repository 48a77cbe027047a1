import { Router } from 'express';
import { HandedRequest, SettingsReadRequest, SettingsRequest, type HandedFieldBody } from '@upper-veneer/contract';
import { message, settingProblem } from '@upper-veneer/core';
import { describeDraft } from '../draft.js';
import type { DraftEvents } from '../draft-events.js';
import type { SheetRow } from '../db/settings-sheets.js';
import { HttpProblem, readBody, readId } from '../http/problem.js';
import type { AddressPolicy } from '@upper-veneer/browser';
import { readMaker, sendToMaker } from '../makers/ask-maker.js';
import { askedAt } from '../makers/maker-address.js';
import { checkSheet, sheetRow } from '../settings.js';
import type { Store } from '../store.js';

export interface SettingsRouteOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly policy: () => AddressPolicy;
  /** Address of the stand-in host's second origin for a site, without an end slash. */
  readonly widgetsAt: (siteId: number) => string;
  readonly now: () => Date;
}

/** Settings sheets of parts: what their makers offer, what is settled of it, and what was handed over. */
export function settingsRoutes({ store, events, policy, widgetsAt, now }: SettingsRouteOptions): Router {
  const router = Router();
  const partOf = (params: Readonly<Record<string, string | string[]>>): { siteId: number; partId: number } => {
    const siteId = readId(params['siteId']);
    const partId = readId(params['partId']);
    if (!store.parts.bySite(siteId).some(({ id }) => id === partId))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-part', { part: partId }));
    return { siteId, partId };
  };
  const answer = (siteId: number): ReturnType<typeof describeDraft> => {
    const draft = describeDraft(store, siteId);
    events.announce(siteId, draft.version);
    return draft;
  };
  const sheetOf = (siteId: number, partId: number): SheetRow => {
    const sheet = store.settingsSheets.rows(siteId).find((own) => own.partId === partId);
    if (!sheet) throw new HttpProblem(409, 'refused.no-settings', message('refusal.no-settings'));
    return sheet;
  };
  router.put('/sites/:siteId/parts/:partId/settings', (request, response) => {
    const { siteId, partId } = partOf(request.params);
    const { label, sheet } = readBody(SettingsRequest, request.body);
    const errors = sheet
      ? [
          ...(sheet.partId === partId ? [] : [{ field: 'sheet.partId', reason: message('wrong.other-part') }]),
          ...checkSheet(sheet),
        ]
      : [];
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-stored', errors[0].reason, errors);
    store.changes.applyTo(
      siteId,
      label,
      ['settings'],
      () => store.settingsSheets.replace(siteId, partId, sheet ? sheetRow(sheet) : null),
      now().toISOString(),
    );
    response.json(answer(siteId));
  });
  router.put('/sites/:siteId/parts/:partId/handed', (request, response) => {
    const { siteId, partId } = partOf(request.params);
    const { fields } = readBody(HandedRequest, request.body);
    checkFields(sheetOf(siteId, partId), fields);
    hand(siteId, partId, fields);
    response.json(answer(siteId));
  });
  router.post('/sites/:siteId/parts/:partId/sends', async (request, response) => {
    const { siteId, partId } = partOf(request.params);
    const { fields } = readBody(HandedRequest, request.body);
    const sheet = sheetOf(siteId, partId);
    if (sheet.address === '') throw new HttpProblem(409, 'refused.not-sent', message('refusal.no-settings-address'));
    checkFields(sheet, fields);
    const values = Object.fromEntries(
      fields.flatMap(({ field, text }) => {
        const name = sheet.fields.find(({ id }) => id === field)?.name;
        return name === undefined || text === undefined ? [] : [[name, text]];
      }),
    );
    await sendToMaker(askedAt(sheet.address, siteId, widgetsAt), policy(), values);
    // The part may have been taken away while its maker was asked.
    partOf(request.params);
    hand(siteId, partId, fields);
    response.json(answer(siteId));
  });
  router.post('/sites/:siteId/parts/:partId/offers', async (request, response) => {
    const { siteId } = partOf(request.params);
    const { address } = readBody(SettingsReadRequest, request.body);
    response.json({ text: await readMaker(askedAt(address, siteId, widgetsAt), policy()) });
  });
  const hand = (siteId: number, partId: number, fields: readonly HandedFieldBody[]): void => {
    const at = now().toISOString();
    store.inOneStep(() => {
      for (const { field, text } of fields)
        store.settingsSheets.hand(siteId, partId, field, text === undefined ? null : { text, at });
      store.sites.countVersion(siteId);
    });
  };
  return router;
}

function checkFields(sheet: SheetRow, fields: readonly HandedFieldBody[]): void {
  fields.forEach(({ field, text }, i) => {
    const own = sheet.fields.find(({ id }) => id === field);
    const wrong = own && text !== undefined ? settingProblem(own, text) : null;
    const told = !own
      ? message('refusal.no-field', { field })
      : wrong && message('refusal.field-value', { name: own.name, text: (text ?? '').slice(0, 40), wrong });
    if (told) throw new HttpProblem(422, 'refused.not-handed-over', told, [{ field: `fields.${i}`, reason: told }]);
  });
}
