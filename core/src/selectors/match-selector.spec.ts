import { parseHtml } from '../dom/parse-html.js';
import { browserMatches } from '../testing/browser-reference.js';
import { restContext } from './match-context.js';
import { matchesAny } from './match-selector.js';
import { SelectorError, parseSelectorList } from './parse-selector.js';

const PAGE = `<!doctype html><html lang="en-GB"><head><title>t</title></head><body class="page">
<ul id="list" class="menu"><li class="a">1</li><li class="b x">2</li><li class="a x"><a href="#">3</a></li><li>4</li></ul>
<form><fieldset disabled><legend><input id="in-legend"></legend><input id="off"><button>go</button></fieldset>
<input type="checkbox" checked><input type="radio" name="r"><input type="radio" name="r" checked>
<input type="text" required><input type="text" value="v" required readonly><input type="number" min="1" max="3" value="7"><input type="email" value="nobody"><input placeholder="p"><input placeholder="p" value="v">
<select><option>1</option><option selected>2</option></select><textarea></textarea></form>
<section><h2>h</h2><p data-kind="Note one">p <em></em> <b>b</b></p><p>q<!-- c --></p><p lang="fr">r<span lang="fr-CA">s</span></p></section>
<div DIR="rtl"><i></i></div><details open><summary>s</summary></details><a>no link</a><svg><a href="x"><path/></a><linearGradient/></svg>
</body></html>`;

/** Matches of the core, by running number; `refused` when the selector is. */
function coreMatches(selector: string): number[] | 'refused' {
  const document = parseHtml(PAGE);
  try {
    const list = parseSelectorList(selector);
    return document.elements
      .filter((element) => matchesAny(list, element, restContext(document)))
      .map(({ number }) => number);
  } catch (error) {
    if (error instanceof SelectorError) return 'refused';
    throw error;
  }
}

const REFUSED = -1;

describe('matchesSelector', () => {
  // Counts were taken from Chromium; in Karma the elements themselves are compared with querySelectorAll.
  const rows: readonly (readonly [selector: string, count: number])[] = [
    ['li', 4],
    ['.a', 2],
    ['#list > .x', 2],
    ['#list .x a', 1],
    ['li + li', 3],
    ['li.a ~ li', 3],
    ['li.b + .x', 1],
    ['ul li:first-child', 1],
    ['li:last-child', 1],
    ['li:nth-child(2n+1)', 2],
    ['li:nth-child(odd)', 2],
    ['li:nth-child(-n+2)', 2],
    ['li:nth-last-child(2)', 1],
    ['p:nth-of-type(2)', 1],
    ['p:last-of-type', 1],
    ['h2:only-of-type', 1],
    ['section > :nth-child(3)', 1],
    ['li:nth-child(2 of .a)', 1],
    ['li:nth-last-child(1 of .a)', 1],
    [':nth-child(1 of p)', 1],
    ['li:not(.a)', 2],
    ['li:not(.a, .b)', 1],
    [':is(li, p):not(.x)', 5],
    [':where(#list) > li', 4],
    ['ul:has(> .b)', 1],
    ['li:has(a)', 1],
    ['li:has(+ .b)', 1],
    ['h2:has(~ p em)', 1],
    ['section:has(p:nth-child(4))', 1],
    ['body:has(.nothing)', 0],
    ['li:has(~ li ~ li)', 2],
    ['[data-kind]', 1],
    ['[data-kind="Note one"]', 1],
    ['[data-kind="note one"]', 0],
    ['[data-kind="note one" i]', 1],
    ['[data-kind~="one"]', 1],
    ['[data-kind^="No"]', 1],
    ['[data-kind$="ne"]', 1],
    ['[data-kind*="te o"]', 1],
    ['[data-kind*=""]', 0],
    ['[lang|="fr"]', 2],
    ['[type="TEXT"]', 2],
    ['[type="TEXT" s]', REFUSED],
    ['[TYPE="text"]', 2],
    [':empty', 16],
    [':root', 1],
    ['html:root > body', 1],
    [':lang(fr)', 2],
    [':lang("fr-CA")', REFUSED],
    [':lang(en)', 44],
    [':lang("*-CA")', REFUSED],
    [':disabled', 3],
    [':enabled', 14],
    ['fieldset input:enabled', 1],
    [':checked', 3],
    [':required', 2],
    [':optional', 12],
    [':read-only', 35],
    ['input:read-write', 6],
    [':placeholder-shown', 1],
    ['input:invalid', 3],
    [':out-of-range', 1],
    [':in-range', 0],
    ['form:invalid', 1],
    ['input:valid', 6],
    [':default', 4],
    [':any-link', 2],
    [':link', 2],
    ['a:not(:any-link)', 1],
    ['details:open', 1],
    ['details[open] > summary', 1],
    ['svg path', 1],
    ['LI', 4],
    ['linearGradient', 1],
    ['lineargradient', 1],
    ['*', 46],
    ['body *', 42],
    [':scope', 1],
    [':scope > body', 1],
    ['em:empty + b', 1],
    ['li:nth-child(0)', 0],
    ['li:nth-child(n+3)', 2],
    ['li:nth-child(3n-1)', 1],
    [':is()', 0],
    [':not(*)', 0],
    ['a:hover', 0],
    ['li:nth-child(even of :not(.b))', 1],
    [':indeterminate', 0],
    ['p:only-child', 0],
  ];
  for (const [selector, count] of rows) {
    it(`${selector} matches ${count}`, () => {
      const own = coreMatches(selector);
      const reference = browserMatches(PAGE, selector);
      if (reference !== null) expect(own).toEqual(reference);
      expect(own === 'refused' ? REFUSED : own.length).toBe(count);
    });
  }

  it('does not mistake property names for pseudo-classes', () => {
    expect(coreMatches(':constructor')).toBe('refused');
    expect(coreMatches(':toString')).toBe('refused');
  });

  it('folds the case of classes and ids in quirks mode', () => {
    const document = parseHtml('<p class="Note" id="One">x');
    expect(document.quirks).toBe(true);
    expect(
      document.elements.filter((element) => matchesAny(parseSelectorList('.note#one'), element, restContext(document)))
        .length,
    ).toBe(1);
  });

  it('stops when the budget is used up', () => {
    const document = parseHtml(`<body>${'<div>'.repeat(200)}`);
    const context = { ...restContext(document), budget: { steps: 1000 } };
    const list = parseSelectorList('.none div div');
    expect(() => document.elements.map((element) => matchesAny(list, element, context))).toThrowError(
      /matching-this-page-took/,
    );
  });
});
