import { parsePage, parseSelectorList, SelectorError, matchingElements } from '@upper-veneer/core';
import { launchBrowser } from '../support/browser.js';
import { packagePages } from '../support/package-pages.js';

const COUNT = 2500;
const NAMES = ['a', 'div', 'li', 'p', 'button', 'input', 'span', '*', 'th', 'td', 'label', 'ul', 'nav'];
const CLASSES = [
  'btn',
  'nav-item',
  'active',
  'card',
  'disabled',
  'badge',
  'nav-link',
  'form-control',
  'page-item',
  'text-primary',
];
const TESTS = [
  '[href]',
  '[type="checkbox"]',
  '[role=alert]',
  '[class^="btn"]',
  '[class~="active" i]',
  ':first-child',
  ':last-child',
  ':nth-child(2n+1)',
  ':nth-child(-n + 3)',
  ':nth-last-of-type(2)',
  ':only-child',
  ':empty',
  ':checked',
  ':disabled',
  ':enabled',
  ':required',
  ':any-link',
  ':nth-child(2 of .btn)',
  ':read-only',
  ':placeholder-shown',
  ':root',
  ':invalid',
];

describe('random selectors', () => {
  // Reference: Chromium's querySelectorAll on the same page.
  it(`${COUNT} drawn selectors match in the core what they match in Chromium`, async () => {
    let state = 99;
    const draw = (): number => (state = (state * 1664525 + 1013904223) % 4294967296) / 4294967296;
    const pick = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)];
    const compound = (depth: number): string => {
      let text = draw() < 0.4 ? pick(NAMES) : '';
      if (draw() < 0.5) text += `.${pick(CLASSES)}`;
      if (draw() < 0.3) text += pick(TESTS);
      if (depth < 2 && draw() < 0.25)
        text += `:${pick(['not', 'is', 'where', 'has'])}(${Array.from({ length: 1 + Math.floor(draw() * 2) }, () => complex(depth + 1)).join(', ')})`;
      return text === '' ? pick(NAMES) : text;
    };
    const complex = (depth: number): string => {
      let text = compound(depth);
      while (draw() < 0.4) text += `${pick([' ', ' > ', ' + ', ' ~ '])}${compound(depth)}`;
      return text;
    };
    const selectors = Array.from({ length: COUNT }, () => complex(0));
    const html = packagePages().get('bootstrap.html') ?? '';
    const page = parsePage(html);
    const own = selectors.map((selector) => {
      try {
        return matchingElements(page, parseSelectorList(selector))
          .map(({ number }) => number)
          .join();
      } catch (error) {
        if (error instanceof SelectorError) return 'refused';
        throw error;
      }
    });
    const browser = await launchBrowser();
    const tab = await browser.newPage();
    const theirs = await tab.evaluate(
      ([text, list]) => {
        const document_ = new DOMParser().parseFromString(text, 'text/html');
        const all = new Map([...document_.querySelectorAll('*')].map((element, i) => [element, i]));
        return list.map((selector) => {
          try {
            return [...document_.querySelectorAll(selector)].map((element) => all.get(element)).join();
          } catch {
            return 'refused';
          }
        });
      },
      [html, selectors] as const,
    );
    await browser.close();
    selectors.forEach((selector, i) => expect(own[i]).withContext(selector).toBe(theirs[i]));
    expect(theirs.filter((found) => found !== '' && found !== 'refused').length).toBeGreaterThan(COUNT / 4);
  });
});
