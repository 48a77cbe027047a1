import { lookDifference } from './look-difference.js';

// Reference: which properties take a <color> alone is said in each property's definition, CSS Color 4 §3 and CSS Backgrounds 3.
describe('lookDifference', () => {
  const before =
    ':root { --brand-accent: #b4582a } .a { color: #111; border-radius: 3px } .b { background: var(--brand-ink) }';

  it('counts a changed declaration once, and says that colour alone differs', () => {
    const after =
      ':root { --brand-accent: #0f4a48 } .a { color: #222; border-radius: 3px } .b { background: var(--brand-accent) }';
    expect(lookDifference(before, after)).toEqual({ declarations: 3, isColorAlone: true, others: [] });
  });

  it('names what differs besides colour', () => {
    const after = `${before.replace('3px', '9px').replace('var(--brand-ink)', 'linear-gradient(#fff, #000)')} .c { font-weight: 700 }`;
    expect([...lookDifference(before, after).others].sort()).toEqual(['background', 'border-radius', 'font-weight']);
  });

  it('finds none between a sheet and itself', () => expect(lookDifference(before, before).declarations).toBe(0));
});
