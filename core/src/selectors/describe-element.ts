import { textOf, type ElementNode } from '../dom/tree.js';
import { lastingClasses } from './class-names.js';

const PLAIN_NAMES: ReadonlyMap<string, string> = new Map([
  ['a', 'link'],
  ['p', 'paragraph'],
  ['img', 'picture'],
  ['ul', 'list'],
  ['ol', 'list'],
  ['li', 'list item'],
  ['nav', 'navigation'],
  ['button', 'button'],
  ['input', 'field'],
  ['textarea', 'field'],
  ['select', 'choice'],
  ['label', 'label'],
  ['form', 'form'],
  ['table', 'table'],
  ['td', 'table cell'],
  ['th', 'table heading'],
  ['header', 'header'],
  ['footer', 'footer'],
  ['main', 'main content'],
  ['section', 'section'],
  ['article', 'article'],
  ['html', 'page'],
  ['body', 'page body'],
  ['span', 'piece of text'],
  ['div', 'block'],
  ['summary', 'summary'],
  ['details', 'fold-out'],
  ['dialog', 'dialog'],
  ['h1', 'heading'],
  ['s', 'struck-through text'],
  ['del', 'struck-through text'],
]);

/** Short name in CSS terms, for lineage and tags: `button.qs-go`, `#reserve`. */
export function shortName(element: ElementNode, pseudo = ''): string {
  const classes = lastingClasses(element.classes);
  const base = element.id
    ? `#${element.id}`
    : `${element.localName}${classes
        .slice(0, 2)
        .map((name) => `.${name}`)
        .join('')}`;
  return pseudo === '' ? base : `${base}::${pseudo}`;
}

/** What a person would call it: its text or label where it has one, else its kind. */
export function plainName(element: ElementNode, pseudo = ''): string {
  const label =
    element.attributes.get('aria-label') ??
    element.attributes.get('alt') ??
    element.attributes.get('placeholder') ??
    '';
  const isHolder = [
    'body',
    'main',
    'html',
    'form',
    'section',
    'div',
    'table',
    'ul',
    'ol',
    'header',
    'footer',
    'nav',
    'article',
    'aside',
    'dialog',
    'fieldset',
    'details',
  ].includes(element.localName);
  // A block is told by a text of its own, or by the heading it begins with.
  const text = isHolder
    ? element.ownText.trim() === ''
      ? headingIn(element)
      : textOf(element, 60)
    : textOf(element, 60);
  const kind =
    PLAIN_NAMES.get(element.localName) ?? (/^h[1-6]$/.test(element.localName) ? 'heading' : element.localName);
  const telling = tellingClass(element);
  const name =
    (isHolder ? label || text : text || label) ||
    (element.id
      ? `${kind} #${element.id}`
      : telling === null
        ? kind
        : `${wordsOf(telling)}${kind === 'block' || kind === 'piece of text' || wordsOf(telling).includes(kind) ? '' : `, ${kind}`}`);
  const shown = name.charAt(0).toUpperCase() + name.slice(1);
  return pseudo === '' ? shown : `${shown}, ${pseudoWords(pseudo)}`;
}

/** The first heading or legend inside that stands before anything else is read; empty for none. */
function headingIn(element: ElementNode, depth = 0): string {
  for (const child of element.children) {
    if (/^(?:h[1-6]|legend|summary|caption)$/.test(child.localName)) return textOf(child, 60);
    const found = depth < 3 ? headingIn(child, depth + 1) : '';
    if (found !== '' || textOf(child, 2) !== '') return found;
  }
  return '';
}

/** Classes that say how something is laid out or whose it is, not what it is (common practice). */
const SAYS_LITTLE =
  /^(?:ui|wp|js|is|has|col|row|grid|flex|container|wrapper|wrap|inner|outer|clearfix|block|box|item|d|m|p|w|h|text|bg|border|rounded|shadow|[a-z]{1,2}|[a-z]+-\d+)(?:-|$)/i;

/** The class that says most of what an element is; `null` for none. */
function tellingClass(element: ElementNode): string | null {
  const classes = lastingClasses(element.classes);
  return classes.filter((name) => !SAYS_LITTLE.test(name)).at(-1) ?? classes.at(0) ?? null;
}

function wordsOf(name: string): string {
  return name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[-_]+/g, ' ')
    .trim()
    .toLowerCase();
}

const PSEUDO_WORDS: Readonly<Record<string, string>> = {
  before: 'mark before',
  after: 'mark after',
  marker: 'list mark',
  placeholder: 'hint',
  selection: 'selected text',
  backdrop: 'backdrop',
  'file-selector-button': 'file button',
  'first-letter': 'first letter',
  'first-line': 'first line',
  '-webkit-scrollbar': 'scrollbar',
  '-webkit-scrollbar-thumb': 'scrollbar thumb',
  '-webkit-scrollbar-track': 'scrollbar track',
};

/** What a pseudo-element is, for people. */
export function pseudoWords(pseudo: string): string {
  return PSEUDO_WORDS[pseudo] ?? pseudo;
}
