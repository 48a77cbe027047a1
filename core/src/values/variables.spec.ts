import { substituteVariables } from './variables.js';

describe('substituteVariables', () => {
  const values = new Map([
    ['--a', 'red'],
    ['--len', '20'],
    ['--empty', ''],
    ['--list', '1px, 2px'],
  ]);
  const lookUp = (name: string): string | null => values.get(name) ?? null;
  // Source: CSS Variables 1 §3 and its examples; comments stand where tokens meet.
  const rows: readonly (readonly [text: string, expected: string | null])[] = [
    ['var(--a)', 'red'],
    ['1px solid var(--a)', '1px solid red'],
    ['var( --a )', 'red'],
    ['VAR(--a)', 'red'],
    ['var(--missing)', null],
    ['var(--missing, blue)', 'blue'],
    ['var(--missing,)', ''],
    ['var(--a, blue)', 'red'],
    ['var(--missing, var(--a))', 'red'],
    ['var(--missing, var(--gone))', null],
    ['var(--missing, var(--gone, var(--a, x)))', 'red'],
    ['var(--empty)', ''],
    ['rgb(var(--list), 3px)', 'rgb(1px, 2px, 3px)'],
    ['var()', null],
    ['var(a)', null],
    ['var(--a b)', null],
    ['env(safe-area-inset-top)', '0px'],
    ['env(unknown, 4px)', '4px'],
    ['env(unknown)', null],
    ['plain', 'plain'],
    ['url(var(--a))', 'url(var(--a))'],
  ];
  for (const [text, expected] of rows) {
    it(`${text} gives ${expected ?? 'an invalid value'}`, () => {
      expect(substituteVariables(text, lookUp)?.replaceAll('/**/', '').trim() ?? null).toBe(expected);
    });
  }

  // CSS Variables 1 §3.1, example 11: `var(--len)px` is a number and an identifier, not a length.
  it('does not join tokens', () => {
    expect(substituteVariables('var(--len)px', lookUp)).toBe('20/**/px');
    expect(substituteVariables('1var(--len)', lookUp)).not.toBe('120');
  });

  it('bounds what grows without end', () => {
    const bomb = (name: string): string | null => (name === '--z' ? 'x'.repeat(600_000) : null);
    expect(substituteVariables('var(--z) var(--z)', bomb)).toBeNull();
  });
});
