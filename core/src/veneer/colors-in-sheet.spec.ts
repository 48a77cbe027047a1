import { colorsInSheet } from './colors-in-sheet.js';

describe('colorsInSheet', () => {
  it('finds colours by notation and by the sheet’s own custom properties, where they stand', () => {
    const css =
      ':root { --a: #b4582a; --b: var(--a) }\n.x { color: var(--a); border: 1px solid rgb(0 0 255 / 50%); background: linear-gradient(red, currentcolor) }\n.y { margin: 0 auto; color: var(--none, blue) }';
    expect(colorsInSheet(css).map(({ start, hex }) => [css.slice(start, start + 4), hex])).toEqual([
      ['#b45', '#b4582a'],
      ['var(', '#b4582a'],
      ['var(', '#b4582a'],
      ['rgb(', '#0000ff80'],
      ['red,', '#ff0000'],
    ]);
  });

  it('says nothing of what is broken', () => {
    expect(colorsInSheet('.a { color: ; } } {')).toEqual([]);
    expect(colorsInSheet('')).toEqual([]);
  });
});
