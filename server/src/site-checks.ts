import type { Refusal } from './http/refusal.js';
import {
  colorOfCss,
  selectorProblem,
  sheetOrderProblem,
  valueProblem,
  type Opener,
  type Part,
  message,
} from '@upper-veneer/core';
import type { ClientRequestBody, ExceptionBody, MergedPart, PartBody, SheetOrderBody } from '@upper-veneer/contract';
import type { Store } from './store.js';
import type { WorkPool } from './work/work-pool.js';

/** A part as it is stored. */
export function toPart({ id, name, kind, selector, openers, templates, template }: PartBody): Part {
  const opener = (own: Opener): Opener => ({ selector: own.selector, act: own.act, name: own.name, value: own.value });
  return {
    id,
    name,
    kind,
    selector,
    openers: openers.map(opener),
    ...(templates?.length
      ? { templates: templates.map((own) => ({ name: own.name, acts: own.acts.map(opener) })) }
      : {}),
    ...(template ? { template } : {}),
  };
}

/** What class rules cannot see of parts: names told apart, selectors that parse, merges between parts that are there. */
export function checkParts(
  store: Store,
  siteId: number,
  parts: readonly PartBody[],
  merged: readonly MergedPart[],
): Refusal[] {
  const errors: Refusal[] = [];
  const known = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  const names = new Set<string>();
  parts.forEach(({ id, name, selector, openers, templates = [], template = '' }, i) => {
    if (id !== 0 && !known.has(id))
      errors.push({ field: `parts.${i}.id`, reason: message('wrong.no-part-numbered', { part: id }) });
    if (names.has(name.trim().toLowerCase()))
      errors.push({ field: `parts.${i}.name`, reason: message('wrong.name-of-part', { name }) });
    names.add(name.trim().toLowerCase());
    for (const [field, text] of [
      ['selector', selector],
      ...openers.map((opener, k) => [`openers.${k}.selector`, opener.selector]),
      ...templates.flatMap(({ acts }, k) => acts.map((own, l) => [`templates.${k}.acts.${l}.selector`, own.selector])),
    ]) {
      const reason = selectorProblem(text);
      if (reason !== null) errors.push({ field: `parts.${i}.${field}`, reason });
    }
    [...openers, ...templates.flatMap(({ acts }) => acts)].forEach(({ act, name: attribute }, k) => {
      if (act === 'set-attribute' && /^(?:on|src|href|srcdoc|style|data-uv-)/i.test(attribute))
        errors.push({ field: `parts.${i}.openers.${k}.name`, reason: message('wrong.opens-nothing', { attribute }) });
    });
    const forms = templates.map((own) => own.name);
    if (new Set(forms).size < forms.length)
      errors.push({ field: `parts.${i}.templates`, reason: message('wrong.two-of-a-name') });
    if (template !== '' && !forms.includes(template))
      errors.push({ field: `parts.${i}.template`, reason: message('wrong.no-template', { template, name }) });
  });
  const kept = new Set(parts.map(({ id }) => id));
  merged.forEach(({ from, into }, i) => {
    if (!known.has(from) || !kept.has(into) || from === into)
      errors.push({ field: `merged.${i}`, reason: message('wrong.cannot-merge') });
  });
  return errors;
}

/** What class rules cannot see of the client's list: ids told apart, looks that can be had. */
export function checkRequests(store: Store, siteId: number, requests: readonly ClientRequestBody[]): Refusal[] {
  const palette = store.palettes.bySite(siteId);
  const ids = new Set<string>();
  return requests.flatMap((request, i) => [
    ...twice(ids, request.id, `requests.${i}.id`),
    ...request.items.flatMap((item, k) => [
      ...twice(ids, item.id, `requests.${i}.items.${k}.id`),
      ...item.looks.flatMap(({ selector, property, value }, l) => {
        const field = `requests.${i}.items.${k}.looks.${l}`;
        const [selectorReason, valueReason] = [selectorProblem(selector), valueProblem(property, value, palette)];
        return [
          ...(selectorReason === null ? [] : [{ field: `${field}.selector`, reason: selectorReason }]),
          ...(valueReason === null ? [] : [{ field: `${field}.value`, reason: valueReason }]),
        ];
      }),
    ]),
  ]);
}

function twice(ids: Set<string>, id: string, field: string): Refusal[] {
  const isKnown = ids.has(id);
  ids.add(id);
  return isKnown ? [{ field, reason: message('wrong.id-twice') }] : [];
}

/** The orders wanted now, as places of the sheets as they were captured. */
export async function composeOrders(
  store: Store,
  pool: WorkPool,
  siteId: number,
  wanted: readonly SheetOrderBody[],
): Promise<{
  readonly errors: readonly Refusal[];
  readonly orders: Readonly<Record<number, readonly number[]>>;
}> {
  const counts = await Promise.all(wanted.map(({ pageId }) => countSheets(store, pool, siteId, pageId)));
  const errors: Refusal[] = [];
  const orders: Record<number, readonly number[]> = {};
  const stored = store.arrangements.bySite(siteId).sheetOrders;
  wanted.forEach(({ pageId, order }, i) => {
    const count = counts[i];
    if (count === null) {
      errors.push({ field: `sheetOrders.${i}.pageId`, reason: message('wrong.no-page-numbered', { page: pageId }) });
      return;
    }
    const reason = sheetOrderProblem(order, count);
    if (reason !== null) errors.push({ field: `sheetOrders.${i}.order`, reason });
    const before = stored[pageId];
    orders[pageId] = before ? order.map((place) => before[place]) : order;
  });
  return { errors, orders };
}

/** How many stylesheets a page brings in; where they stand is kept. `null` when there is no such page, or another one by now. */
async function countSheets(store: Store, pool: WorkPool, siteId: number, pageId: number): Promise<number | null> {
  const page = store.pages.captured(siteId, pageId);
  if (!page) return null;
  if (page.spans) return page.spans.length;
  const spans = await pool.run('sheet-spans', page.html);
  return store.pages.putSpans(siteId, pageId, page.html, spans) ? spans.length : null;
}

/** Colours that are colours, places that are selectors. */
export function checkExceptions(exceptions: readonly ExceptionBody[]): Refusal[] {
  return exceptions.flatMap(({ kind, target }, i) => {
    const reason =
      kind === 'color'
        ? colorOfCss(target) === null
          ? message('wrong.no-color', { css: target })
          : null
        : selectorProblem(target);
    return reason === null ? [] : [{ field: `exceptions.${i}.target`, reason }];
  });
}
