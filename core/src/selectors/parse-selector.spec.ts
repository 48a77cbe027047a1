import { SelectorError, escapeIdentifier, parseSelectorList } from './parse-selector.js';
import { formatSpecificity } from './specificity.js';

describe('specificity', () => {
  const rows: readonly (readonly [source: string, selector: string, specificity: string])[] = [
    // Selectors 4 §17, examples 33 to 35.
    ['Selectors 4 §17', '*', '0·0·0'],
    ['Selectors 4 §17', 'LI', '0·0·1'],
    ['Selectors 4 §17', 'UL LI', '0·0·2'],
    ['Selectors 4 §17', 'UL OL+LI', '0·0·3'],
    ['Selectors 4 §17', 'H1 + *[REL=up]', '0·1·1'],
    ['Selectors 4 §17', 'UL OL LI.red', '0·1·3'],
    ['Selectors 4 §17', 'LI.red.level', '0·2·1'],
    ['Selectors 4 §17', '#x34y', '1·0·0'],
    ['Selectors 4 §17', '#s12:not(FOO)', '1·0·1'],
    ['Selectors 4 §17', '.foo :is(.bar, #baz)', '1·1·0'],
    ['Selectors 4 §17', ':is(em, #foo)', '1·0·0'],
    ['Selectors 4 §17', '.qux:where(em, #foo#bar#baz)', '0·1·0'],
    ['Selectors 4 §17', ':nth-child(even of li, .item)', '0·2·0'],
    ['Selectors 4 §17', ':not(em, strong#foo)', '1·0·1'],
    ['Selectors 4 §4.5', 'a:has(> img)', '0·0·2'],
    ['CSS 2.2 §6.4.3', 'li:first-line', '0·0·2'],
    ['CSS 2.2 §6.4.3', 'ul ol li.red', '0·1·3'],
    ['CSS Scoping 1 §3.3', ':host(.x)', '0·2·0'],
    ['CSS Scoping 1 §3.3', ':host', '0·1·0'],
    ['CSS Scoping 1 §3.3', '::slotted(.x)', '0·1·1'],
    ['CSS Shadow Parts 1 §3', 'x-a::part(label)', '0·0·2'],
    ['pseudo-class after a pseudo-element', '::-webkit-scrollbar-thumb:hover', '0·1·1'],
    ['nested lists', ':is(:not(#a, .b), .c .d .e)', '1·0·0'],
  ];
  for (const [source, selector, specificity] of rows) {
    it(`${source}: ${selector} is ${specificity}`, () => {
      expect(formatSpecificity(parseSelectorList(selector)[0].specificity)).toBe(specificity);
    });
  }

  // CSS Nesting 1 §3.2: & counts as the most specific selector of the list around it.
  it('counts & as the list it stands for', () => {
    const outer = parseSelectorList('#a, b');
    expect(formatSpecificity(parseSelectorList('& c', { nesting: outer, relative: 'nesting' })[0].specificity)).toBe(
      '1·0·1',
    );
    expect(formatSpecificity(parseSelectorList('.d', { nesting: outer, relative: 'nesting' })[0].specificity)).toBe(
      '1·1·0',
    );
  });
});

describe('parseSelectorList', () => {
  const refused = [
    '',
    ',a',
    'a,',
    'a >',
    '> a',
    'a > > b',
    '#1a',
    '.1a',
    'a:unknown',
    '::unknown',
    'a::before b',
    ':not()',
    ':not(::before)',
    ':has(:has(a))',
    ':nth-child(x)',
    '[a=b q]',
    '[=a]',
    'a,,b',
    ':hover(x)',
    '::slotted(a b)',
    ':host(a b)',
    '%',
    '{',
    'a::before.x',
    '::before:hover',
    '::slotted(a):hover',
    'a:horizontal',
    '::selection:hover',
    '::part()',
    ':lang()',
  ];
  for (const selector of refused) {
    it(`refuses ${selector || 'nothing'}`, () => {
      expect(() => parseSelectorList(selector)).toThrowError(SelectorError);
    });
  }

  it('forgives inside :is() and :where() only, as Selectors 4 §18.1 has it', () => {
    expect(parseSelectorList(':is(a, :unknown, !!)')[0].specificity).toEqual([0, 0, 1]);
    expect(parseSelectorList(':where(:unknown)').length).toBe(1);
    expect(() => parseSelectorList(':not(a, :unknown)')).toThrowError(SelectorError);
  });

  it('decodes escapes', () => {
    expect(parseSelectorList('.\\31 a')[0].compounds[0].classes).toEqual(['1a']);
    expect(parseSelectorList('#a\\:b')[0].compounds[0].ids).toEqual(['a:b']);
    expect(escapeIdentifier('1a:b')).toBe('\\31 a\\:b');
  });

  it('passes over namespaces', () => {
    expect(parseSelectorList('svg|a', { namespaces: new Map([['svg', '']]) })[0].compounds[0].type).toBe('a');
    expect(() => parseSelectorList('svg|a')).toThrowError(/namespace-prefix-not-declared/);
    expect(parseSelectorList('*|*')[0].compounds[0].type).toBeNull();
  });

  it('bounds what is hostile', () => {
    expect(() => parseSelectorList(`${':is('.repeat(5000)}a${')'.repeat(5000)}`)).toThrowError(/nested-deeper/);
    expect(() => parseSelectorList('a'.repeat(100_001))).toThrowError(/has-characters-bound/);
    expect(parseSelectorList(Array.from({ length: 2000 }, () => ':has(a)').join('')).length).toBe(1);
  });
});
