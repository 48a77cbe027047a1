import { colorOfCss, selectorProblem, withSheetOrder } from '@upper-veneer/core';
import type { ExceptionBody, FieldError, MergedPart, PartBody, SheetOrderBody } from '@upper-veneer/contract';
import type { Store } from './store.js';

/** What class rules cannot see of parts: names told apart, selectors that parse, merges between parts that are there. */
export function checkParts(
  store: Store,
  siteId: number,
  parts: readonly PartBody[],
  merged: readonly MergedPart[],
): FieldError[] {
  const errors: FieldError[] = [];
  const known = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  const names = new Set<string>();
  parts.forEach(({ id, name, selector, openers }, i) => {
    if (id !== 0 && !known.has(id)) errors.push({ field: `parts.${i}.id`, reason: `${id} is no part of this site` });
    if (names.has(name.trim().toLowerCase()))
      errors.push({ field: `parts.${i}.name`, reason: `"${name}" is the name of another part` });
    names.add(name.trim().toLowerCase());
    for (const [field, text] of [
      ['selector', selector],
      ...openers.map((opener, k) => [`openers.${k}.selector`, opener.selector]),
    ]) {
      const reason = selectorProblem(text);
      if (reason !== null) errors.push({ field: `parts.${i}.${field}`, reason });
    }
    openers.forEach(({ act, name: attribute }, k) => {
      if (act === 'set-attribute' && /^(?:on|src|href|srcdoc|style|data-uv-)/i.test(attribute))
        errors.push({ field: `parts.${i}.openers.${k}.name`, reason: `"${attribute}" does not open anything` });
    });
  });
  const kept = new Set(parts.map(({ id }) => id));
  merged.forEach(({ from, into }, i) => {
    if (!known.has(from) || !kept.has(into) || from === into)
      errors.push({ field: `merged.${i}`, reason: 'names parts that cannot be merged' });
  });
  return errors;
}

/** The orders wanted now, as places of the sheets as they were captured. */
export function composeOrders(
  store: Store,
  siteId: number,
  wanted: readonly SheetOrderBody[],
): { readonly errors: readonly FieldError[]; readonly orders: Readonly<Record<number, readonly number[]>> } {
  const errors: FieldError[] = [];
  const orders: Record<number, readonly number[]> = {};
  const stored = store.arrangements.bySite(siteId).sheetOrders;
  wanted.forEach(({ pageId, order }, i) => {
    const page = store.pages.byId(siteId, pageId);
    if (!page) {
      errors.push({ field: `sheetOrders.${i}.pageId`, reason: `${pageId} is no page of this site` });
      return;
    }
    try {
      withSheetOrder(page.html, order);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      errors.push({ field: `sheetOrders.${i}.order`, reason: error.message });
      return;
    }
    const before = stored[pageId];
    orders[pageId] = before ? order.map((place) => before[place]) : order;
  });
  return { errors, orders };
}

/** Colours that are colours, places that are selectors. */
export function checkExceptions(exceptions: readonly ExceptionBody[]): FieldError[] {
  return exceptions.flatMap(({ kind, target }, i) => {
    const reason =
      kind === 'color' ? (colorOfCss(target) === null ? `"${target}" is no colour` : null) : selectorProblem(target);
    return reason === null ? [] : [{ field: `exceptions.${i}.target`, reason }];
  });
}
