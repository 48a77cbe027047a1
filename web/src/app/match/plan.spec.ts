import type { MatchScope } from '@upper-veneer/core';
import { planRequest, scopeInAddress, scopeOfAddress } from './plan';

describe('the plan of a match', () => {
  const site = { pages: [{ id: 1 }, { id: 3 }], parts: [{ id: 2 }, { id: 7 }] };

  it('is found again by its address', () => {
    const scopes: MatchScope[] = [{ kind: 'site' }, { kind: 'page', pageId: 3 }, { kind: 'parts', partIds: [2, 7] }];
    for (const scope of scopes) expect(scopeOfAddress(scopeInAddress(scope), site)).toEqual(scope);
  });

  it('is of nothing where the address names what is not there', () => {
    for (const text of [null, '', 'page-9', 'parts-5', 'parts-', 'page-x', 'sites', '-', 'parts-2x'])
      expect(scopeOfAddress(text, site)).withContext(String(text)).toBeNull();
    expect(scopeOfAddress('parts-2.99', site)).toEqual({ kind: 'parts', partIds: [2] });
  });

  it('goes to the server with a value for each row that has one, and none for what is left alone', () => {
    const request = planRequest(
      'Set',
      { kind: 'site' },
      {
        strategy: 'blend',
        locked: {
          a: { kind: 'leave' },
          b: { kind: 'value', value: { kind: 'role', role: 'ink', shade: 4 } },
        },
        equal: [['a', 'b']],
        mains: null,
      },
    );
    expect(request.settled).toEqual([{ row: 'a' }, { row: 'b', value: { kind: 'role', role: 'ink', shade: 4 } }]);
    expect([request.scope, request.mains]).toEqual(['{"kind":"site"}', []]);
  });
});
