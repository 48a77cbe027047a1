import type { Code } from '@upper-veneer/words';
import { inner, message, type Message } from '../message/message.js';
import { textOf, type ElementNode } from '../dom/tree.js';
import { lastingClasses } from './class-names.js';
import { capital } from '../text/capital.js';

const KINDS = {
  a: 'element.link',
  p: 'element.paragraph',
  img: 'element.picture',
  ul: 'element.list',
  ol: 'element.list',
  li: 'element.list-item',
  nav: 'element.navigation',
  button: 'element.button',
  input: 'element.field',
  textarea: 'element.field',
  select: 'element.choice',
  label: 'element.label',
  form: 'element.form',
  table: 'element.table',
  td: 'element.table-cell',
  th: 'element.table-heading',
  header: 'element.header',
  footer: 'element.footer',
  main: 'element.main-content',
  section: 'element.section',
  article: 'element.article',
  html: 'element.page',
  body: 'element.page-body',
  span: 'element.piece-of-text',
  div: 'element.block',
  summary: 'element.summary',
  details: 'element.fold-out',
  dialog: 'element.dialog',
  s: 'element.struck-through-text',
  del: 'element.struck-through-text',
} as const satisfies Readonly<Record<string, Code>>;

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
export function nameTold(element: ElementNode, pseudo = ''): Message {
  let name = names.get(element);
  if (!name) names.set(element, (name = ownName(element)));
  return pseudo === '' ? name : message('element.part', { element: name, part: pseudoTold(pseudo) });
}

/** An element is asked for by name in every state and width it is looked at in. */
const names = new WeakMap<ElementNode, Message>();

function ownName(element: ElementNode): Message {
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
  const name = isHolder ? label || text : text || label;
  return name === '' ? byKind(element) : message('plain', { text: capital(name) });
}

/** What it is called that has neither text nor label: by its id, by the class that says most, by its kind. */
function byKind(element: ElementNode): Message {
  const { localName, id } = element;
  const code = codeOf(localName);
  const kind = code ? message(code) : message('plain', { text: capital(localName) });
  const telling = tellingClass(element);
  if (id) return message('element.by-id', { kind, id });
  if (telling === null) return kind;
  const name = capital(wordsOf(telling));
  const saysNothing = localName === 'div' || localName === 'span' || wordsOf(telling).includes(localName);
  return saysNothing ? message('plain', { text: name }) : message('element.by-class', { name, kind: inner(kind) });
}

function codeOf(localName: string): Code | null {
  if (/^h[1-6]$/.test(localName)) return 'element.heading';
  return Object.hasOwn(KINDS, localName) ? KINDS[localName as keyof typeof KINDS] : null;
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

const PARTS: Readonly<Record<string, Code>> = {
  before: 'part.before',
  after: 'part.after',
  marker: 'part.marker',
  placeholder: 'part.placeholder',
  selection: 'part.selection',
  backdrop: 'part.backdrop',
  'file-selector-button': 'part.file-selector-button',
  'first-letter': 'part.first-letter',
  'first-line': 'part.first-line',
  '-webkit-scrollbar': 'part.scrollbar',
  '-webkit-scrollbar-thumb': 'part.scrollbar-thumb',
  '-webkit-scrollbar-track': 'part.scrollbar-track',
};

/** What a pseudo-element is, for people. */
export function pseudoTold(pseudo: string): Message {
  const code = PARTS[pseudo];
  return code ? message(code) : message('plain', { text: pseudo });
}
