import { sheetDifference } from './sheet-difference.js';

describe('sheetDifference', () => {
  const before =
    '/* a */ .go { color: red; padding: 2px } @media (hover: hover) { .go:hover { color: blue } } .gone { top: 0 }';

  it('is none where rules say the same, however they are written', () => {
    const same = '.gone{top:0}\n@media (hover: hover) {.go:hover{color: blue;}}\n.go{padding:2px;color:red}';
    expect(sheetDifference(before, same)).toEqual([]);
  });

  it('names the rules that came, changed or went, with the declarations that differ', () => {
    const after =
      '.go { color: red; padding: 4px !important } @media (hover: hover) { .go:hover { color: blue } .new { left: 0 } }';
    expect(sheetDifference(before, after)).toEqual([
      { within: [], selector: '.go', gone: ['padding: 2px'], come: ['padding: 4px !important'], kind: 'changed' },
      { within: ['@media (hover: hover)'], selector: '.new', gone: [], come: ['left: 0'], kind: 'come' },
      { within: [], selector: '.gone', gone: ['top: 0'], come: [], kind: 'gone' },
    ]);
  });

  it('counts each selector of a list by itself, and puts those together that differ alike', () => {
    expect(sheetDifference('a, b { top: 0 } c { top: 0 }', 'a { top: 0 } c, b { top: 0 }')).toEqual([]);
    expect(sheetDifference(':root { --x: 1 } a, b:is(x, y), c { top: 0 }', ':root { --x: 2 } c { top: 0 }')).toEqual([
      { within: [], selector: 'a, b:is(x,y)', gone: ['top: 0'], come: [], kind: 'gone' },
      { within: [], selector: ':root', gone: ['--x: 1'], come: ['--x: 2'], kind: 'changed' },
    ]);
  });

  it('reads what is broken as far as it goes', () => {
    expect(sheetDifference('.a { color: red', '} .a { color: red }').length).toBeLessThanOrEqual(2);
    expect(sheetDifference('', '')).toEqual([]);
  });
});
