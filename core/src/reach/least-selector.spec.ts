import { seededRandom } from '../testing/random.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import { parsePage, type Page } from '../resolve/page.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { compareSpecificity, type Specificity } from '../selectors/selector.js';
import { addSpecificity } from '../selectors/specificity.js';
import { alikeKey } from '../selectors/alike.js';
import { clears, findThreshold, type Place } from './threshold.js';
import { writeSelector } from './write-selector.js';

const TAGS = ['p', 'div', 'span', 'li', 'section'];
const CLASSES = ['card', 'title', 'note', 'price'];
const RULES = [
  'p',
  '.card',
  '.note',
  '#main .title',
  '.card .price',
  'div span',
  '#main',
  '.title.note',
  'section > p',
  'span.note',
];

/** A small page drawn by a seed: a few levels, names here and there, a theme that sets colours. */
function drawPage(random: () => number): Page {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const draw = (depth: number): string => {
    const tag = depth > 2 ? pick(['p', 'span']) : pick(TAGS);
    const names = CLASSES.filter(() => random() < 0.25);
    const inner =
      depth > 3 || tag === 'p'
        ? 'x'
        : Array.from({ length: 1 + Math.floor(random() * 3) }, () => draw(depth + 1)).join('');
    return `<${tag}${names.length > 0 ? ` class="${names.join(' ')}"` : ''}>${inner}</${tag}>`;
  };
  const theme = Array.from({ length: 4 }, () => `${pick(RULES)} { color: ${pick(['red', 'blue', 'green'])} }`).join(
    '\n',
  );
  return parsePage(
    `<!doctype html><style>${theme}</style><body><main id="main">${draw(0)}${draw(0)}</main><aside class="card">${draw(1)}</aside></body>`,
  );
}

interface Grammatical {
  readonly text: string;
  readonly specificity: Specificity;
}

/** Every way to name an element by its own names: tag, up to two classes, id, in any mixture. */
function compoundsOf(element: ElementNode): Grammatical[] {
  const sets: string[][] = [[]];
  for (const name of element.classes) for (const set of [...sets]) if (set.length < 2) sets.push([...set, name]);
  return sets.flatMap((set) =>
    ['', element.localName].flatMap((tag) =>
      ['', ...(element.id ? [`#${element.id}`] : [])].flatMap((id): Grammatical[] => {
        const text = tag + id + set.map((name) => `.${name}`).join('');
        return text === '' ? [] : [{ text, specificity: [id ? 1 : 0, set.length, tag ? 1 : 0] }];
      }),
    ),
  );
}

/** The grammar: a compound of the element, alone or under an ancestor named by a class, an id or a tag. A bare `div` or `span` around it says nothing that lasts. */
function* grammar(element: ElementNode): Generator<Grammatical> {
  const above = [...ancestorsOf(element)].map((node): Grammatical[] => [
    ...node.classes.map((name): Grammatical => ({ text: `.${name}`, specificity: [0, 1, 0] })),
    ...(node.id ? [{ text: `#${node.id}`, specificity: [1, 0, 0] as const }] : []),
    ...(['div', 'span', 'html'].includes(node.localName)
      ? []
      : [{ text: node.localName, specificity: [0, 0, 1] as const }]),
  ]);
  const join = (left: Grammatical, right: Grammatical): Grammatical => ({
    text: `${left.text} ${right.text}`,
    specificity: addSpecificity(left.specificity, right.specificity),
  });
  for (const subject of compoundsOf(element)) {
    yield subject;
    for (const context of above.flat()) yield join(context, subject);
  }
}

describe('the least selector', () => {
  // Exhaustive: every selector of the grammar is tried on every page.
  it('is no more specific than any in the grammar that does the job', () => {
    let compared = 0;
    let steady = 0;
    for (let seed = 1; seed <= 400; seed += 1) {
      const random = seededRandom(seed);
      const page = drawPage(random);
      const all = page.document.elements.filter(({ localName }) => TAGS.includes(localName));
      const lead = all[Math.floor(random() * all.length)];
      const isOne = random() < 0.4;
      const targets: Place[] = all
        .filter((node) =>
          isOne ? node === lead : node.localName === lead.localName && alikeKey(node) === alikeKey(lead),
        )
        .map((element) => ({ page, element }));
      const question = {
        places: targets,
        pseudo: '',
        state: 'rest' as const,
        longhands: ['color'],
        isReplaced: () => false,
      };
      const written = writeSelector({
        ...question,
        lead: { page, element: lead },
        targets,
        pages: [page],
        everywhere: false,
      });
      if (!written.ok || written.selector.includes(', ')) continue;
      const bar = findThreshold(question);
      const wanted = new Set(targets.map(({ element }) => element));
      const doesTheJob = (text: string): boolean => {
        const found = matchingElements(page, parseSelectorList(text));
        return found.length === wanted.size && found.every((element) => wanted.has(element));
      };
      expect(doesTheJob(written.selector)).withContext(`seed ${seed}: ${written.selector} matches exactly`).toBeTrue();
      if (!written.leansOnPlace && !written.selector.includes(':not(')) steady += 1;
      for (const { text, specificity } of grammar(lead)) {
        // Tags alone are no name where the element has one.
        if (lead.classes.length > 0 && !/[.#]/.test(text) && text.includes(' ')) continue;
        if (compareSpecificity(specificity, written.specificity) >= 0 || !clears(specificity, bar)) continue;
        compared += 1;
        expect(doesTheJob(text))
          .withContext(`seed ${seed}: ${text} would do as well as ${written.selector}`)
          .toBeFalse();
      }
    }
    expect(compared).toBeGreaterThan(500);
    expect(steady).toBeGreaterThan(150);
  });
});
