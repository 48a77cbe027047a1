import type { JudgedColor } from '../shared/census/census-store';
import { colorRows, type ColorFilter } from './color-rows';

const ALL: ColorFilter = { text: '', use: null, standing: null, isGrouped: false };

function color(hex: string, more: Partial<JudgedColor> = {}): JudgedColor {
  return {
    hex,
    uses: [{ use: 'fill', elements: 1, area: 10 }],
    elements: 1,
    area: 10,
    states: ['rest'],
    pageIds: [1],
    partIds: [],
    placeCount: 1,
    declarations: [],
    group: hex,
    standing: { kind: 'stray', nearest: 'Willow', deltaE: 20 },
    exception: '',
    ...more,
  };
}

describe('colorRows', () => {
  const colors = [
    color('#aa0000', { area: 60 }),
    color('#ab0000', { area: 30, group: '#aa0000', uses: [{ use: 'text', elements: 2, area: 30 }], elements: 2 }),
    color('#00aa00', {
      standing: { kind: 'near', nearest: 'Reed', deltaE: 3.14 },
      declarations: [{ declaration: 'color: green', sheet: 'theme.css', line: 4, selector: '.btn', places: 1 }],
    }),
    color('#b4582a', { area: 0, standing: { kind: 'brand', nearest: 'Willow', deltaE: 0 } }),
    color('#ff0000', { area: 0, exception: 'sale red' }),
  ];

  it('counts near-duplicates into the colour that stands for them', () => {
    const [row] = colorRows(colors, { ...ALL, isGrouped: true });
    expect([row.hex, row.area, row.elements, row.members.map(({ hex }) => hex)]).toEqual([
      '#aa0000',
      90,
      3,
      ['#ab0000'],
    ]);
    expect(row.share).toBeCloseTo(0.9, 6);
    expect(colorRows(colors, { ...ALL, isGrouped: true }).length).toBe(4);
  });

  it('narrows by use, standing and what is written', () => {
    expect(colorRows(colors, { ...ALL, use: 'text' }).map(({ hex }) => hex)).toEqual(['#ab0000']);
    expect(colorRows(colors, { ...ALL, standing: 'exception' }).map(({ hex }) => hex)).toEqual(['#ff0000']);
    expect(colorRows(colors, { ...ALL, text: '.BTN' }).map(({ hex }) => hex)).toEqual(['#00aa00']);
    expect(colorRows(colors, { ...ALL, text: '#ab' }).map(({ hex }) => hex)).toEqual(['#ab0000']);
  });

  it('says how each stands to the palette', () => {
    expect(colorRows(colors, ALL).map(({ standingWords }) => standingWords)).toEqual([
      'stray',
      'stray',
      'near Reed, ΔE 3.1',
      'Willow',
      'exception: sale red',
    ]);
  });
});
