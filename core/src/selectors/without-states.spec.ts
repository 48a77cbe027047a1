import { parseHtml } from '../dom/parse-html.js';
import type { ElementNode } from '../dom/tree.js';
import { seededRandom } from '../testing/random.js';
import { restContext } from './match-context.js';
import { matchesAny } from './match-selector.js';
import { parseSelectorList } from './parse-selector.js';
import { withoutStates } from './without-states.js';

const PAGE =
  '<!doctype html><body><div class=a><p class=b>1</p><p class="b c">2</p><a href=x class=c>3</a></div><form class=c><input class=a placeholder=p><button class=b disabled>4</button></form></body>';
const GIVEN = [
  'hover',
  'focus',
  'focus-visible',
  'focus-within',
  'active',
  'disabled',
  'checked',
  'invalid',
  '!placeholder-shown',
] as const;

function matched(selector: string): string[] {
  const document = parseHtml(PAGE);
  const list = withoutStates(parseSelectorList(selector));
  return document.elements
    .filter((element) => matchesAny(list, element, restContext(document)))
    .map(({ localName, classes }) => [localName, ...classes].join('.'));
}

describe('withoutStates', () => {
  // Worked out by hand from Selectors 4: what each may match in some state or other.
  const rows: readonly (readonly [selector: string, matched: readonly string[]])[] = [
    ['.a:hover > .b', ['p.b', 'p.b.c']],
    ['div:hover .b + .c:focus', ['p.b.c', 'a.c']],
    ['p:not(:hover)', ['p.b', 'p.b.c']],
    ['p:not(.c):active', ['p.b']],
    ['p:not(.c, :hover)', ['p.b']],
    ['p:not(.c:hover)', ['p.b', 'p.b.c']],
    ['form:has(:invalid) input', ['input.a']],
    ['form:has(a:hover)', []],
    [':is(p, button):disabled', ['p.b', 'p.b.c', 'button.b']],
    ['p:nth-child(1 of :hover)', ['p.b', 'p.b.c']],
    ['p:nth-child(1)', ['p.b']],
    ['a:link, a:visited', ['a.c']],
    [':hover', ['html', 'head', 'body', 'div.a', 'p.b', 'p.b.c', 'a.c', 'form.c', 'input.a', 'button.b']],
  ];
  for (const [selector, expected] of rows)
    it(`${selector} may match ${expected.join(', ') || 'nothing'}`, () =>
      expect(matched(selector)).toEqual([...expected]));

  it('leaves nothing out that a selector matches in some drawn state of all elements', () => {
    const random = seededRandom(41);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const compound = (depth: number): string => {
      const own = pick(['.a', '.b', '.c', 'p', 'div', 'input', '']);
      const test = pick([
        '',
        ':hover',
        ':focus-within',
        ':not(:hover)',
        ':disabled',
        ':not(:placeholder-shown)',
        ':checked',
        ...(depth > 0 ? [`:is(${compound(0)}, ${compound(0)})`, `:not(${compound(0)})`, `:has(${compound(0)})`] : []),
      ]);
      return own + test || '*';
    };
    let hits = 0;
    for (let round = 0; round < 1200; round += 1) {
      const document = parseHtml(PAGE);
      const selector = `${compound(1)}${pick([' ', ' > ', ' + ', ' ~ '])}${compound(1)}`;
      const states = new Map<ElementNode, Set<string>>(
        document.elements.map((element) => [element, new Set(GIVEN.filter(() => random() < 0.4))]),
      );
      const [list, bare] = [parseSelectorList(selector), withoutStates(parseSelectorList(selector))];
      for (const element of document.elements) {
        if (!matchesAny(list, element, { ...restContext(document), states })) continue;
        hits += 1;
        expect(matchesAny(bare, element, restContext(document)))
          .withContext(`${selector} on ${element.localName}`)
          .toBeTrue();
      }
    }
    expect(hits).toBeGreaterThan(200);
  });
});
