import { textOf, type ElementNode } from '../dom/tree.js';
import { lastingClasses } from '../reach/class-names.js';

const PLAIN_NAMES: ReadonlyMap<string, string> = new Map([
  ['a', 'link'], ['p', 'paragraph'], ['img', 'picture'], ['ul', 'list'], ['ol', 'list'], ['li', 'list item'], ['nav', 'navigation'], ['button', 'button'],
  ['input', 'field'], ['textarea', 'field'], ['select', 'choice'], ['label', 'label'], ['form', 'form'], ['table', 'table'], ['td', 'table cell'], ['th', 'table heading'],
  ['header', 'header'], ['footer', 'footer'], ['main', 'main content'], ['section', 'section'], ['article', 'article'], ['html', 'page'], ['body', 'page body'], ['span', 'piece of text'], ['div', 'block'], ['summary', 'summary'], ['details', 'fold-out'], ['dialog', 'dialog'], ['h1', 'heading'], ['s', 'struck-through text'], ['del', 'struck-through text'],
]);

/** Short name in CSS terms, for lineage and tags: `button.qs-go`, `#reserve`. */
export function shortName(element: ElementNode, pseudo = ''): string {
  const classes = lastingClasses(element.classes);
  const base = element.id ? `#${element.id}` : `${element.localName}${classes.slice(0, 2).map((name) => `.${name}`).join('')}`;
  return pseudo === '' ? base : `${base}::${pseudo}`;
}

/** What a person would call it: its text or label where it has one, else its kind. */
export function plainName(element: ElementNode, pseudo = ''): string {
  const label = element.attributes.get('aria-label') ?? element.attributes.get('alt') ?? element.attributes.get('placeholder') ?? '';
  const isShort = !['body', 'main', 'html', 'form', 'section', 'div', 'table', 'ul', 'ol', 'header', 'footer', 'nav', 'article'].includes(element.localName);
  const text = isShort ? textOf(element, 60) : '';
  const kind = PLAIN_NAMES.get(element.localName) ?? (/^h[1-6]$/.test(element.localName) ? 'heading' : element.localName);
  const name = text || label || (element.id ? `${kind} #${element.id}` : `${kind}${lastingClasses(element.classes)[0] ? ` .${lastingClasses(element.classes)[0]}` : ''}`);
  const shown = name.charAt(0).toUpperCase() + name.slice(1);
  return pseudo === '' ? shown : `${shown}, ${pseudoWords(pseudo)}`;
}

const PSEUDO_WORDS: Readonly<Record<string, string>> = {
  before: 'mark before', after: 'mark after', marker: 'list mark', placeholder: 'hint', selection: 'selected text', backdrop: 'backdrop', 'file-selector-button': 'file button',
  'first-letter': 'first letter', 'first-line': 'first line', '-webkit-scrollbar': 'scrollbar', '-webkit-scrollbar-thumb': 'scrollbar thumb', '-webkit-scrollbar-track': 'scrollbar track',
};

/** What a pseudo-element is, for people. */
export function pseudoWords(pseudo: string): string {
  return PSEUDO_WORDS[pseudo] ?? pseudo;
}
