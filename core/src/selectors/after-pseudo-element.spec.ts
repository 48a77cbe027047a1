import { browserSelector, browserSupports } from '../testing/browser-reference.js';
import { WEBKIT_PSEUDO_ELEMENTS, isOfScrollbars, mayFollow } from './after-pseudo-element.js';
import { SelectorError, parseSelectorList } from './parse-selector.js';
import {
  ANSWERED_PSEUDO_CLASSES,
  OTHER_PSEUDO_ELEMENTS,
  RESOLVED_PSEUDO_ELEMENTS,
  SCROLLBAR_PSEUDO_CLASSES,
} from './pseudo-names.js';
import type { SelectorList } from './selector.js';

function parse(selector: string, strict = false): SelectorList | null {
  try {
    return parseSelectorList(selector, { strict });
  } catch (error) {
    if (error instanceof SelectorError) return null;
    throw error;
  }
}

const WITH_ARGUMENTS: Readonly<Record<string, string>> = {
  highlight: 'highlight(x)',
  'scroll-button': 'scroll-button(up)',
  picker: 'picker(select)',
  ...Object.fromEntries(
    ['group', 'image-pair', 'old', 'new', 'group-children'].map((name) => [
      `view-transition-${name}`,
      `view-transition-${name}(x)`,
    ]),
  ),
};
const ELEMENTS = [
  ...RESOLVED_PSEUDO_ELEMENTS,
  ...OTHER_PSEUDO_ELEMENTS,
  '-webkit-input-placeholder',
  '-webkit-file-upload-button',
  '-webkit-slider-thumb',
  '-webkit-unknown',
  '-moz-unknown',
  'nope',
  'part(a)',
  'slotted(a)',
  'cue(b)',
].map((name) => WITH_ARGUMENTS[name] ?? name);
const CLASSES = [
  ...ANSWERED_PSEUDO_CLASSES,
  ...SCROLLBAR_PSEUDO_CLASSES,
  'scope',
  'host',
  'lang(en)',
  'dir(ltr)',
  'state(a)',
  'nth-child(1)',
  'not(.a)',
  'not(:hover)',
  'not(:hover, .a)',
  'not(:checked)',
  'is(:hover)',
  'is(:focus)',
  'where(:active)',
  'has(a)',
  '-webkit-any(:hover)',
  'is(:hover:active)',
  'is(:nope)',
  'is()',
];

describe('what may follow a pseudo-element', () => {
  // Source: Chromium's CSS.supports('selector(…)'), read off version 156; asked again for every pair in Karma.
  const rows: readonly (readonly [selector: string, isTaken: boolean])[] = [
    ['::before:hover', false],
    ['::before::marker', true],
    ['::before::before', false],
    ['::placeholder:hover', false],
    ['::-webkit-input-placeholder:hover', true],
    ['::-webkit-file-upload-button:focus', true],
    ['::file-selector-button:hover', true],
    ['::file-selector-button:disabled', false],
    ['::file-selector-button:not(.a)', false],
    ['::part(a):disabled', true],
    ['::part(a):first-child', false],
    ['::part(a):not(:checked)', true],
    ['::part(a)::before', true],
    ['::part(a)::part(b)', false],
    ['::slotted(a)::before', true],
    ['::slotted(a)::selection', false],
    ['::slotted(a):hover', false],
    ['::-webkit-scrollbar-thumb:focus', false],
    ['::-webkit-scrollbar-thumb:horizontal', true],
    ['::-webkit-slider-thumb:enabled', false],
    ['::scroll-button(up):enabled', true],
    ['::view-transition-old(x):only-child', true],
    ['::highlight', false],
    ['::cue', true],
    ['::cue(b):hover', false],
    ['::-webkit-unknown', false],
  ];
  for (const [selector, isTaken] of rows)
    it(`${selector} is ${isTaken ? 'taken' : 'refused'}`, () => expect(parse(selector, true) !== null).toBe(isTaken));

  // Engines move on: what a newer one takes besides is a few pairs of some 4,500.
  const MOST_NEWS = 30;

  it('is as the engine has it for every pseudo-element, pseudo-class and pseudo-element after it', () => {
    const selectors = ELEMENTS.flatMap((element) =>
      [
        '',
        ...CLASSES.map((name) => `:${name}`),
        ...ELEMENTS.slice(0, 9).map((name) => `::${name}`),
        '.a',
        '[a]',
        ' b',
      ].map((after) => `a::${element}${after}`),
    );
    const differing = selectors.filter((selector) => {
      const isTaken = parse(selector, true) !== null;
      return isTaken !== (browserSupports(`selector(${selector})`) ?? isTaken);
    });
    expect(selectors.length).toBeGreaterThan(4_000);
    expect(differing.length).withContext(differing.join('\n')).toBeLessThan(MOST_NEWS);
    expect(mayFollow('hover', 'before')).toBeFalse();
    expect(isOfScrollbars('-webkit-resizer')).toBeTrue();
    expect(WEBKIT_PSEUDO_ELEMENTS.has('slider-thumb')).toBeTrue();
  });
});

describe('functional pseudo-classes', () => {
  // Source: Selectors 4 §18.1 and Chromium's serialization of the rule, '' where it drops it.
  const rows: readonly (readonly [selector: string, kept: string])[] = [
    ['a:is(:nope)', 'a:is()'],
    ['a:is(b,:nope)', 'a:is(b)'],
    ['a:where(:nope)', 'a:where()'],
    ['a:not(b,:nope)', ''],
    ['a:has(b,:nope)', ''],
    ['a:has()', ''],
    ['a:nth-child(1 of b,:nope)', ''],
    ['a:-webkit-any(b,:nope)', ''],
    ['a:-webkit-any(b)', 'a:-webkit-any(b)'],
    [':host(:nope)', ''],
    ['::slotted(:nope)', ''],
    ['a:is(::before, b)', 'a:is(b)'],
    ['a:not(::before)', ''],
    ['a:has(:is(:has(b)))', 'a:has(:is())'],
    ['a:not(:is(:nope))', 'a:not(:is())'],
    ['a:is(b c, :not(:nope))', 'a:is(b c)'],
    ['a:is(> b)', 'a:is()'],
    ['::file-selector-button:is([aria-current], :hover)', '::file-selector-button:is(:hover)'],
    ['::part(a):is(.b)', '::part(a):is()'],
    ['::part(a):is(:hover, .b)', '::part(a):is(:hover)'],
    ['::before:is(:hover)', '::before:is()'],
    ['::part(a):where(.b):hover', '::part(a):where():hover'],
    ['::file-selector-button:is(:not(:hover))', '::file-selector-button:is(:not(:hover))'],
    ['::file-selector-button:is(:not(.a))', '::file-selector-button:is()'],
    ['::-webkit-unknown', '::-webkit-unknown'],
    ['::-moz-unknown', ''],
    [':-webkit-unknown', ''],
    ['a:lang(en, de)', ''],
    ['a:dir(foo)', 'a:dir(foo)'],
    ['a:current(b)', ''],
    ['a:nth-child(1 of b::before)', 'a:nth-child(1 of b::before)'],
    ['a:is(b)::before', 'a:is(b)::before'],
    ['a:where()', 'a:where()'],
    ['a:not()', ''],
  ];
  for (const [selector, kept] of rows) {
    it(`${selector} is ${kept === '' ? 'dropped' : `kept as ${kept}`}`, () => {
      const list = parse(selector);
      expect(list !== null).toBe(kept !== '');
      const reference = browserSelector(selector);
      if (reference !== null) expect(reference).toBe(kept);
      // What is forgiven is gone: the list is the one that is kept.
      if (list !== null) expect(strip(list)).toEqual(strip(parse(kept)));
    });
  }
});

/** A list without its texts, by which two spellings of one selector differ. */
function strip(list: SelectorList | null): unknown {
  return JSON.parse(JSON.stringify(list, (key, value: unknown) => (key === 'text' ? undefined : value)));
}
