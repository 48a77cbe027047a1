import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { browserComputed } from './browser-reference.js';

/**
 * Holds the core against the engine the specs run in: every element of a page, every property given.
 * In Node only the row's own expectations count.
 */
export async function expectLikeBrowser(html: string, properties: readonly string[], pseudo = ''): Promise<void> {
  const reference = await browserComputed(html, properties, pseudo === '' ? undefined : `::${pseudo}`);
  if (!reference) return;
  const page = parsePage(html);
  const view = new StyleView(page, { environment: { width: 1280, height: 800 } });
  page.document.elements.forEach((element, i) => {
    const own = properties.map((property) => `${property}: ${near(view.style(element, pseudo).resolved(property))}`);
    const theirs = properties.map((property, p) => `${property}: ${near(reference[i][p])}`);
    expect(own)
      .withContext(`element ${i}, ${element.localName}.${element.classes.join('.')}`)
      .toEqual(theirs);
  });
}

/** Rounds numbers, so that the last digits of float and double arithmetic do not tell texts apart. */
function near(text: string): string {
  return text.replace(/-?(?<!\d)\d*\.\d+(?:e[+-]?\d+)?/g, (number) =>
    String(Math.round(Number(number) * 500) / 500 + 0),
  );
}
