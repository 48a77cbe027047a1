import { rankLayers } from './compare.js';

describe('rankLayers', () => {
  // Source: CSS Cascading 5 §6.4.3, the order of nested layers and its examples.
  const rows: readonly (readonly [names: readonly string[], ranked: readonly string[]])[] = [
    [
      ['reset', 'framework', 'components'],
      ['reset', 'framework', 'components'],
    ],
    [
      ['framework', 'framework.default', 'framework.theme'],
      ['framework.default', 'framework.theme', 'framework'],
    ],
    [
      ['a', 'b', 'a.x'],
      ['a.x', 'a', 'b'],
    ],
    [
      ['b', 'a', 'b.y', 'b.y.z'],
      ['b.y.z', 'b.y', 'b', 'a'],
    ],
    [[], []],
  ];
  for (const [names, ranked] of rows) {
    it(`ranks ${names.join(', ') || 'none'} as ${ranked.join(' < ') || 'none'}`, () => {
      expect([...rankLayers(names)].sort((a, b) => a[1] - b[1]).map(([name]) => name)).toEqual([...ranked]);
    });
  }
});
