import { isMessage } from '../message/message.js';
import { say, spoken } from '@upper-veneer/words';
import { compileOptionsOf, dressSite, openSite } from '../site/site-model.js';
import { valueOfCustomProperty, customPropertyOf } from '../veneer/custom-property.js';
import { writtenValue } from '../veneer/written-value.js';
import { pieceAt, type PieceQuestion } from './copy-piece.js';
import { putInSnippet } from './put-in-snippet.js';
import { sheetToEdit } from './read-sheet.js';
import { ruleAt, rulesOn } from './rule-at.js';
import { changingIn, selectorTargets } from './selector-target.js';
import { sheetWords } from './sheet-words.js';
import { writtenConditions } from './written-widths.js';

const SITE = dressSite(
  openSite({
    pages: [
      {
        id: 1,
        name: 'x',
        path: 'x.html',
        html: '<!doctype html><style>:root { --river: teal } a { color: red }</style><body><nav class=bar id=top><a class="go css-1x2y3z4" href=x>1</a></nav><p class=go>2</p>',
      },
    ],
    stylesheets: {},
    parts: [
      { id: 7, name: 'Bar', kind: 'theme', selector: '.bar', openers: [] },
      { id: 8, name: 'Foot', kind: 'theme', selector: '.foot', openers: [] },
    ],
    veneerPlace: 'head-end',
    prefix: 'brand',
  }),
  [
    {
      id: 'a',
      partId: 7,
      pageId: 1,
      element: 5,
      pseudo: '',
      reach: 'one',
      state: 'hover',
      property: 'color',
      value: { kind: 'role', role: 'accent', shade: -12 },
      selector: '.bar a:hover',
      important: false,
    },
  ],
  {
    swatches: [
      { id: 1, name: 'Willow', css: '#b4582a' },
      { id: 2, name: 'Willow d2', css: '#ffffff' },
    ],
    roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
  },
);
const TEXT = sheetToEdit(SITE);

describe('pieces of a sheet’s text', () => {
  it('name elements, pseudo-element and state as Selectors 4 has them', () => {
    expect(spoken(selectorTargets('nav > a:hover'))).toEqual([
      { elements: 'nav>a', pseudo: '', state: 'hover', selector: 'nav > a:hover' },
    ]);
    expect(spoken(selectorTargets('p:not(.x)::before'))).toEqual([
      { elements: 'p:not(.x)', pseudo: 'before', state: 'rest', selector: 'p:not(.x)::before' },
    ]);
    expect(spoken(selectorTargets('nav :user-invalid'))).toEqual([
      { elements: 'nav *', pseudo: '', state: 'invalid', selector: 'nav :user-invalid' },
    ]);
    expect(spoken(selectorTargets('input:not(:placeholder-shown)'))).toEqual([
      jasmine.objectContaining({ elements: 'input', state: 'filled' }),
    ]);
    for (const beyond of ['a:hover:focus', 'a:hover b', ':has(:checked)', 'x::part(y)', 'a::before:hover'])
      expect(spoken(selectorTargets(beyond)))
        .withContext(beyond)
        .toEqual(jasmine.any(String));
    expect(changingIn('a:hover:not(:disabled) b:first-child')).toEqual(['hover', 'disabled']);
  });

  // Media Queries 4 §2.4.3 and §4.1: both ways of writing a width.
  it('read widths in either notation, and nothing else', () => {
    expect(writtenConditions(['@media (min-width: 600px) and (max-width:900px)'])).toEqual({
      widths: { min: 600, max: 900 },
      isHoverOnly: false,
    });
    expect(writtenConditions(['@media (width >= 600px)', '@media (hover: hover)'])).toEqual({
      widths: { min: 600, max: null },
      isHoverOnly: true,
    });
    for (const other of ['@media (min-width: 40em)', '@media print', '@media not (min-width: 1px)', '@supports (a: b)'])
      expect(writtenConditions([other]))
        .withContext(other)
        .toBe(other);
  });

  it('read a value back from what it is written as', () => {
    const { palette } = SITE;
    const options = compileOptionsOf(SITE);
    for (const shade of [0, -12, 7]) {
      const value = { kind: 'role', role: 'accent', shade } as const;
      expect(valueOfCustomProperty(customPropertyOf(value, palette, options)?.name ?? '', palette, options)).toEqual(
        value,
      );
    }
    const of = (css: string): ReturnType<typeof writtenValue> => writtenValue(css, palette, options);
    expect(of('linear-gradient(var(--brand-accent), #fff 50%)')).toEqual({
      kind: 'composite',
      css: 'linear-gradient({0}, #fff 50%)',
      colors: [{ kind: 'role', role: 'accent', shade: 0 }],
    });
    expect(of('var(--river)')).toEqual({ kind: 'literal', css: 'var(--river)' });
    expect(of('var(--brand-accent, red)')).toBeNull();
    // A swatch that reads like a shade of another is none of it.
    expect(of('var(--brand-willow-d2)')).toEqual({ kind: 'swatch', swatchId: 1, shade: -2 });
    expect(of('var(--brand-willow-d-2)')).toEqual({ kind: 'swatch', swatchId: 2, shade: 0 });
  });

  // CSS Variables 1 §3: what follows the comma stands in where the property is not there.
  it('are copied as a rule, a line or a bare value, by name, with the colour behind it, or by colour alone', () => {
    const at = TEXT.indexOf('color: var');
    const copy = (question: PieceQuestion): string | null => pieceAt(TEXT, at, question, compileOptionsOf(SITE));
    const hex = /--brand-accent-d12: (#[0-9a-f]{6})/.exec(TEXT)?.[1] ?? '';
    expect(copy({ piece: 'value', form: 'with fallback', hasSemicolon: false })).toBe(
      `var(--brand-accent-d12, ${hex})`,
    );
    expect(copy({ piece: 'declaration', form: 'plain', hasSemicolon: true })).toBe(`color: ${hex};`);
    expect(copy({ piece: 'rule', form: 'as written', hasSemicolon: false })).toBe(
      '.bar a:hover {\n  color: var(--brand-accent-d12);\n}',
    );
    expect(
      pieceAt('/* nothing */', 3, { piece: 'rule', form: 'plain', hasSemicolon: false }, compileOptionsOf(SITE)),
    ).toBeNull();
  });

  it('tell the rule at a place, what it does and whom it styles, and the rules of an element', () => {
    const at = TEXT.indexOf('.bar a:hover');
    expect(ruleAt(SITE, TEXT, at + 3)).toEqual(
      jasmine.objectContaining({
        selector: '.bar a:hover',
        specificity: [0, 2, 1],
        pages: 1,
        state: 'hover',
        partId: 7,
      }),
    );
    expect(ruleAt(SITE, TEXT, at + 3)?.gloss.length).toBe(1);
    expect(ruleAt(SITE, TEXT, 2)).toBeNull();
    const [spot] = ruleAt(SITE, TEXT, at)?.spots ?? [];
    expect(rulesOn(SITE, TEXT, spot)).toEqual([at]);
    expect(rulesOn(SITE, TEXT, { pageId: 1, element: 0 })).toEqual([]);
  });

  it('are put in where the part they are for has its section, once', () => {
    const put = putInSnippet(
      SITE,
      TEXT,
      '.bar .go { color: blue }\np { color: red }\n.bar a:hover { color: var(--brand-accent-d12) }',
    );
    if (isMessage(put)) throw new Error(say(put));
    expect(put.twice).toEqual(['.bar a:hover']);
    expect(put.put).toBe(2);
    expect(put.text.slice(put.text.indexOf('/* Bar */'))).toBe(
      `${TEXT.slice(TEXT.indexOf('/* Bar */')).trimEnd()}\n.bar .go { color: blue }\n\n/* Everywhere */\np { color: red }\n`,
    );
    expect(spoken(putInSnippet(SITE, TEXT, 'a { color: red'))).toBe('leaves "{" open');
    expect(spoken(putInSnippet(SITE, '', 'p { color: red }'))).toEqual(
      jasmine.objectContaining({ text: '/* Everywhere */\np { color: red }\n' }),
    );
  });

  it('offer what the site has', () => {
    const words = sheetWords(SITE);
    expect(words.classes).toEqual(['go', 'bar']);
    expect([words.ids, words.properties]).toEqual([['top'], ['--river']]);
    expect(words.palette.map(({ name }) => name)).toEqual([
      '--brand-accent',
      '--brand-willow',
      '--brand-willow-d-2',
      '--brand-accent-d12',
    ]);
  });
});
