import { matchingElements } from '../selectors/matching-elements.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import { pageOf, type SiteModel } from './site-model.js';

/** An element found, and what it was found by. */
export interface FoundElements {
  readonly by: 'selector' | 'text';
  readonly elements: readonly number[];
}

const UNSEEN = new Set(['head', 'title', 'meta', 'link', 'style', 'script', 'base', 'template']);

/** Elements of a page by a selector, or by a piece of the text they show, shadow trees among them. */
export function findElements(site: SiteModel, pageId: number, text: string): FoundElements {
  const page = pageOf(site, pageId);
  const wanted = text.trim();
  if (wanted === '') return { by: 'text', elements: [] };
  try {
    const found = matchingElements(page, parseSelectorList(wanted));
    if (found.length > 0) return { by: 'selector', elements: found.map(({ number }) => number) };
  } catch (error) {
    if (!(error instanceof SelectorError)) throw error;
  }
  const folded = wanted.toLowerCase();
  const holds = page.document.elements.filter(
    ({ localName, ownText, attributes }) =>
      !UNSEEN.has(localName) &&
      [
        ownText,
        attributes.get('placeholder') ?? '',
        attributes.get('alt') ?? '',
        attributes.get('aria-label') ?? '',
        attributes.get('part') ?? '',
      ].some((own) => own.replace(/\s+/g, ' ').toLowerCase().includes(folded)),
  );
  return { by: 'text', elements: holds.map(({ number }) => number) };
}
