import { withMerge, withPart, withProposals, withoutPart } from './part-edits';

const OPENER = { selector: '.b', act: 'add-class', name: 'open', value: '' } as const;
const PARTS = [
  { id: 1, name: 'Header', kind: 'theme', selector: '#top', openers: [] },
  { id: 2, name: 'Drawer', kind: 'pop-up', selector: '.b', openers: [OPENER] },
];

describe('part edits', () => {
  it('rename and change one part, and say so', () => {
    const renamed = withPart(PARTS, 2, { name: 'Basket' });
    expect([renamed.label, renamed.parts.map(({ name }) => name)]).toEqual([
      'Rename Drawer to Basket',
      ['Header', 'Basket'],
    ]);
    expect(withPart(PARTS, 1, { selector: 'header' }).parts[0].selector).toBe('header');
    expect(withoutPart(PARTS, 1).parts.map(({ id }) => id)).toEqual([2]);
  });

  it('merge selectors, openers and overrides', () => {
    const request = withMerge(PARTS, 2, 1);
    expect(request?.merged).toEqual([{ from: 2, into: 1 }]);
    expect(request?.parts).toEqual([{ ...PARTS[0], selector: '#top, .b', openers: [{ ...OPENER }] }]);
    expect(withMerge(PARTS, 1, 1)).toBeNull();
    expect(withMerge(PARTS, 9, 1)).toBeNull();
  });

  it('take proposals in under names nobody has', () => {
    const proposal = {
      name: 'Header',
      kind: 'theme',
      selector: 'nav',
      openers: [],
      because: 'a navigation landmark',
      pageIds: [1],
    };
    const request = withProposals(PARTS, [proposal, proposal]);
    expect(request.parts.slice(2).map(({ id, name }) => [id, name])).toEqual([
      [0, 'Header 2'],
      [0, 'Header 3'],
    ]);
    expect(request.label).toBe('Take in 2 parts');
  });
});
