import { openOnePage, numberOn } from '../testing/one-page-site.js';
import { iconKindOf } from './icon-kind.js';
import { elementOf, pageOf, viewIn } from '../site/site-model.js';

// What recolours what: SVG 2 §13.2, CSS Masking 1 §3, CSS Generated Content 3 §2; a picture takes no colour from CSS.
describe('iconKindOf', () => {
  const rows: readonly (readonly [
    what: string,
    theme: string,
    body: string,
    pseudo: string,
    expected: string | null,
  ])[] = [
    ['a glyph', '.i::before { content: "\\2713" }', '<b class=i>x</b>', 'before', 'glyph color'],
    ['an empty box', '.i::before { content: "" }', '<b class=i>x</b>', 'before', null],
    ['a picture put in by content', '.i::after { content: url(a.svg) }', '<b class=i>x</b>', 'after', 'picture null'],
    [
      'a picture behind a generated box',
      '.i::after { content: ""; background: url(a.svg) }',
      '<b class=i>x</b>',
      'after',
      'picture null',
    ],
    ['a mask', '.i { mask-image: url(a.svg); background: red }', '<b class=i></b>', '', 'mask background-color'],
    ['a shape', '', '<svg><path class=i d="M0 0"/></svg>', '', 'inline SVG fill'],
    [
      'a shape drawn by its line',
      '.i { fill: none; stroke: red }',
      '<svg><path class=i d="M0 0"/></svg>',
      '',
      'inline SVG stroke',
    ],
    [
      'a shape in the colour of the text',
      '',
      '<svg><path class=i fill="currentColor" d="M0 0"/></svg>',
      '',
      'inline SVG color',
    ],
    ['a picture', '', '<img class=i src=a.png>', '', 'picture null'],
    [
      'an empty element with a picture',
      '.i { background-image: url(a.png) }',
      '<span class=i></span>',
      '',
      'picture null',
    ],
    ['a text over a picture', '.i { background-image: url(a.png) }', '<span class=i>text</span>', '', null],
    ['a text', '', '<span class=i>text</span>', '', null],
  ];
  for (const [what, theme, body, pseudo, expected] of rows) {
    it(`${what} is ${expected ?? 'no icon'}`, () => {
      const site = openOnePage(theme, body);
      const page = pageOf(site, 1);
      const element = elementOf(page, numberOn(site, '.i'));
      const kind = iconKindOf(viewIn(page, element, 'rest', 1280), element, pseudo);
      expect(kind && `${kind.kind} ${kind.recolour}`).toBe(expected);
    });
  }
});
