import type { Refusal } from './http/refusal.js';
import { message } from '@upper-veneer/core';
import type { PlanRequest } from '@upper-veneer/contract';
import type { Becomes, MatchChoices } from '@upper-veneer/core';

/** Whether a scope's text is one: the site, a page, or parts. */
export function checkScope(text: string): Refusal[] {
  return isScope(text) ? [] : [{ field: 'scope', reason: message('wrong.no-scope') }];
}

function isScope(text: string): boolean {
  let scope: unknown;
  try {
    scope = JSON.parse(text);
  } catch {
    return false;
  }
  if (typeof scope !== 'object' || scope === null || !('kind' in scope)) return false;
  if (scope.kind === 'site') return true;
  if (scope.kind === 'page') return 'pageId' in scope && Number.isSafeInteger(scope.pageId);
  return (
    scope.kind === 'parts' &&
    'partIds' in scope &&
    Array.isArray(scope.partIds) &&
    scope.partIds.every((id) => Number.isSafeInteger(id))
  );
}

/** What is settled, as the core takes it. */
export function choicesOf({
  strategy,
  settled,
  equal,
  mains,
  properties,
  apart,
  merged,
  shapes,
}: Omit<PlanRequest, 'label' | 'scope'>): MatchChoices {
  return {
    strategy,
    locked: Object.fromEntries(
      settled.map(({ row, value }): [string, Becomes] => [row, value ? { kind: 'value', value } : { kind: 'leave' }]),
    ),
    equal: equal.map(({ rows }) => rows),
    mains: mains.length > 0 ? mains.map(({ pageId, element }) => ({ pageId, element })) : null,
    ...(properties ? { properties } : {}),
    ...(shapes?.length ? { shapes: Object.fromEntries(shapes.map(({ row, becomes }) => [row, becomes])) } : {}),
    ...(apart?.length ? { apart: apart.map(({ row, places }) => ({ row, places })) } : {}),
    ...(merged?.length ? { merged: merged.map(({ rows }) => rows) } : {}),
  };
}
