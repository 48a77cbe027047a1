import { parsePage } from './page.js';
import { PerElement } from './per-element.js';

describe('PerElement', () => {
  const { document } = parsePage('<body><p>Quiet water</p><p>Second bend</p></body>');
  const [first, second] = document.elements.filter(({ localName }) => localName === 'p');

  it('keeps elements and their pseudo-elements apart', () => {
    const kept = new PerElement<string>(document);
    kept.set(first, '', 'element');
    kept.set(first, 'before', 'before');
    expect(kept.get(first, '')).toBe('element');
    expect(kept.get(first, 'before')).toBe('before');
    expect(kept.get(first, 'after')).toBeUndefined();
    expect(kept.get(second, '')).toBeUndefined();
  });

  it('does not take an element of another document for the one with its number', () => {
    const other = parsePage('<body><h1>Elsewhere</h1><h2>Further</h2></body>').document.elements[first.number];
    const kept = new PerElement<string>(document);
    kept.set(first, '', 'here');
    expect(other.number).toBe(first.number);
    expect(kept.get(other, '')).toBeUndefined();
    kept.set(other, '', 'there');
    expect([kept.get(first, ''), kept.get(other, '')]).toEqual(['here', 'there']);
  });

  it('takes over what passes and leaves the first as it is', () => {
    const kept = new PerElement<string>(document);
    for (const element of [first, second]) for (const pseudo of ['', 'after']) kept.set(element, pseudo, pseudo);
    const only = kept.only((element) => element === second);
    expect([only.get(first, ''), only.get(first, 'after')]).toEqual([undefined, undefined]);
    expect([only.get(second, ''), only.get(second, 'after')]).toEqual(['', 'after']);
    only.set(second, '', 'other');
    expect(kept.get(second, '')).toBe('');
  });
});
