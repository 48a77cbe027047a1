import type { Palette } from '../veneer/palette.js';
import { rebranded } from './rebrand.js';

describe('a rebrand over sites', () => {
  const there: Palette = {
    swatches: [
      { id: 7, name: ' willow', css: '#b4582a' },
      { id: 8, name: 'Chalk', css: 'white' },
      { id: 9, name: 'Own', css: '#123456' },
    ],
    roles: [{ role: 'accent', swatchId: 7, shade: -4 }],
  };

  it('carries colours by the names both have, and nothing else', () => {
    const by: Palette = {
      swatches: [
        { id: 1, name: 'Willow', css: '#0b6e99' },
        { id: 2, name: 'Chalk', css: '#fff' },
        { id: 3, name: 'New', css: '#000' },
      ],
      roles: [],
    };
    expect(rebranded(there, by)).toEqual({
      palette: { ...there, swatches: [{ id: 7, name: ' willow', css: '#0b6e99' }, ...there.swatches.slice(1)] },
      shared: 2,
      changes: [{ name: ' willow', before: '#b4582a', after: '#0b6e99' }],
    });
    expect(rebranded(there, { swatches: [], roles: [] })).toEqual({ palette: there, shared: 0, changes: [] });
  });
});
