import type { PlanRequest } from '@upper-veneer/contract';
import type { MatchChoices, MatchScope } from '@upper-veneer/core';

/** What holds before anything is settled. */
export const NO_CHOICES: MatchChoices = { strategy: 'blend', locked: {}, equal: [], mains: null };

/** What is settled of a scope, as it goes to the server. */
export function planRequest(
  label: string,
  scope: MatchScope,
  { strategy, locked, equal, mains, properties, apart, merged, shapes }: MatchChoices,
): PlanRequest {
  return {
    label,
    scope: JSON.stringify(scope),
    strategy,
    settled: Object.entries(locked).map(([row, becomes]) =>
      becomes.kind === 'value' ? { row, value: becomes.value } : { row },
    ),
    equal: equal.map((rows) => ({ rows: [...rows] })),
    mains: (mains ?? []).map(({ pageId, element }) => ({ pageId, element })),
    ...(properties ? { properties: [...properties] } : {}),
    ...(shapes ? { shapes: Object.entries(shapes).map(([row, becomes]) => ({ row, becomes })) } : {}),
    ...(apart ? { apart: apart.map(({ row, places }) => ({ row, places: [...places] })) } : {}),
    ...(merged ? { merged: merged.map((rows) => ({ rows: [...rows] })) } : {}),
  };
}

/** A scope as the address holds it: `site`, `page-3`, `parts-2.7`. */
export function scopeInAddress(scope: MatchScope): string {
  switch (scope.kind) {
    case 'site':
      return 'site';
    case 'page':
      return `page-${scope.pageId}`;
    case 'parts':
      return `parts-${scope.partIds.join('.')}`;
  }
}

/** The scope an address holds; `null` where it holds none, or one of what is no longer there. */
export function scopeOfAddress(
  text: string | null,
  site: { readonly pages: readonly { readonly id: number }[]; readonly parts: readonly { readonly id: number }[] },
): MatchScope | null {
  if (text === 'site') return { kind: 'site' };
  const [kind, ids = ''] = (text ?? '').split('-');
  const numbers = ids.split('.').map(Number);
  if (kind === 'page' && site.pages.some(({ id }) => id === numbers[0])) return { kind: 'page', pageId: numbers[0] };
  const partIds = numbers.filter((number) => site.parts.some(({ id }) => id === number));
  return kind === 'parts' && partIds.length > 0 ? { kind: 'parts', partIds } : null;
}
