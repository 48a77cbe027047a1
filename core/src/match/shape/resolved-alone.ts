import { longhandsOfProperty } from '../../properties/grouped.js';
import { parsePage } from '../../resolve/page.js';
import { StyleView } from '../../resolve/style-view.js';

const known = new Map<string, string>();
const MOST_KNOWN = 500;

/** What a value of a property resolves to on an element by itself, by its first longhand: lengths in px, families as they are written. */
export function resolvedAlone(property: string, css: string): string {
  const key = `${property}: ${css}`;
  let found = known.get(key);
  if (found === undefined) {
    const page = parsePage('<p>', {
      path: 'alone.html',
      loadSheet: () => null,
      veneerPlace: 'head-end',
      veneer: `p { border-style: solid; ${key} }`,
    });
    const element = page.document.elements.find(({ localName }) => localName === 'p');
    found = element ? new StyleView(page).style(element).resolved(longhandsOfProperty(property)[0]) : css;
    if (known.size > MOST_KNOWN) known.clear();
    known.set(key, found);
  }
  return found;
}
