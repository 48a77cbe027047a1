import type { PlanRequest } from '@upper-veneer/contract';
import type { MatchChoices, MatchScope } from '@upper-veneer/core';

/** What holds before anything is settled. */
export const NO_CHOICES: MatchChoices = { strategy: 'blend', locked: {}, equal: [], mains: null };

/** What is settled of a scope, as it goes to the server. */
export function planRequest(
  label: string,
  scope: MatchScope,
  { strategy, locked, equal, mains }: MatchChoices,
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
  };
}
