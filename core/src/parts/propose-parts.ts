import { message, type Message } from '../message/message.js';
import { ancestorsOf, textOf, type ElementNode } from '../dom/tree.js';
import { lastingClasses } from '../selectors/class-names.js';
import type { Page } from '../resolve/page.js';
import { escapeIdentifier } from '../selectors/parse-selector.js';
import { StyleView } from '../resolve/style-view.js';
import { ownSelector, isHidden, proposeOpeners } from './propose-openers.js';
import type { Opener, Reachability } from './part.js';
import { capital } from '../text/capital.js';

/** A part the structure of the pages suggests. */
export interface PartProposal {
  readonly name: string;
  readonly kind: string;
  readonly selector: string;
  readonly openers: readonly Opener[];
  /** Why it is taken for a part, in plain words. */
  readonly because: Message;
  /** Ids of the pages it is on. */
  readonly pageIds: readonly number[];
}

interface Candidate {
  readonly element: ElementNode;
  readonly name: string;
  readonly kind: string;
  readonly because: Message;
  readonly selector: string | null;
}

const LANDMARKS: readonly (readonly [test: (element: ElementNode) => boolean, name: string, because: Message])[] = [
  [
    (e) => (e.localName === 'header' && !isInside(e, SECTIONING)) || e.attributes.get('role') === 'banner',
    'Header',
    message('part-because.banner'),
  ],
  [(e) => e.localName === 'main' || e.attributes.get('role') === 'main', 'Main content', message('part-because.main')],
  [
    (e) => (e.localName === 'footer' && !isInside(e, SECTIONING)) || e.attributes.get('role') === 'contentinfo',
    'Footer',
    message('part-because.content-information'),
  ],
  [
    (e) => e.localName === 'nav' || e.attributes.get('role') === 'navigation',
    'Navigation',
    message('part-because.navigation'),
  ],
  [
    (e) => e.localName === 'aside' || e.attributes.get('role') === 'complementary',
    'Side content',
    message('part-because.complementary'),
  ],
];
/** Inside these a header or footer belongs to a piece, not to the page (HTML §4.3.8). */
const SECTIONING = new Set(['article', 'aside', 'main', 'nav', 'section', 'dialog']);
/** Distinct class names of one stem that make a widget of what holds them (common practice). */
const LEAST_STEM_NAMES = 3;
const COMMON_STEMS = new Set([
  'is',
  'has',
  'js',
  'no',
  'u',
  'col',
  'row',
  'btn',
  'page',
  'site',
  'text',
  'bg',
  'main',
  'item',
  'menu',
  'nav',
  'post',
  'wp',
  'icon',
  'mt',
  'mb',
  'py',
  'px',
  'flex',
  'grid',
  'd',
]);

/**
 * Parts proposed from landmarks, forms, dialogs, frames, shadow roots, class-name stems and fixed bars, over all pages, in document order.
 * @param pages by id; each is asked for when it is its turn, so that not all need be there at once.
 */
export function proposeParts(pages: Iterable<readonly [pageId: number, page: Page]>): PartProposal[] {
  const found = new Map<string, PartProposal>();
  for (const [pageId, page] of pages) {
    const view = new StyleView(page);
    const candidates = [...structural(page), ...named(page), ...stemmed(page), ...fixed(page, view)].sort(
      (a, b) => a.element.number - b.element.number,
    );
    const taken = new Set<ElementNode>();
    for (const { element, name, kind, because, selector } of candidates) {
      if (selector === null || taken.has(element)) continue;
      taken.add(element);
      const existing = found.get(selector);
      if (existing) {
        if (!existing.pageIds.includes(pageId))
          found.set(selector, { ...existing, pageIds: [...existing.pageIds, pageId] });
        continue;
      }
      const openers = kind !== 'framed' && isHidden(view, element) ? proposeOpeners(page, view, element) : [];
      found.set(selector, { name, kind, selector, openers, because, pageIds: [pageId] });
    }
  }
  return distinctlyNamed([...found.values()]);
}

/** How far CSS gets into an element. */
export function reachabilityOf(element: ElementNode): Reachability {
  if (element.localName === 'iframe' || element.localName === 'frame') return 'framed';
  return element.shadowRoot || element.root.kind === 'shadow' ? 'shadow' : 'in page';
}

function structural(page: Page): Candidate[] {
  return page.document.elements.flatMap((element): Candidate[] => {
    if (element.root.kind !== 'document') return [];
    if (element.localName === 'iframe')
      return [
        {
          element,
          name: labelOf(element) ?? element.attributes.get('title') ?? 'Framed content',
          kind: 'framed',
          because: message('part-because.frame'),
          selector: frameSelector(element),
        },
      ];
    if (element.shadowRoot)
      return [
        {
          element,
          name: labelOf(element) ?? humanized(element.localName),
          kind: 'shadow',
          because: message('part-because.shadow'),
          selector: ownSelector(element) ?? element.localName,
        },
      ];
    const role = element.attributes.get('role') ?? '';
    if (
      element.localName === 'dialog' ||
      role === 'dialog' ||
      role === 'alertdialog' ||
      element.attributes.get('aria-modal') === 'true'
    )
      return [
        {
          element,
          name: nameOf(element, 'Dialog'),
          kind: 'pop-up',
          because: message('part-because.dialog'),
          selector: ownSelector(element),
        },
      ];
    if (element.localName === 'form' || role === 'search' || role === 'form')
      return [
        {
          element,
          name: nameOf(element, role === 'search' ? 'Search' : 'Form'),
          kind: 'form',
          because: message('part-because.form'),
          selector: ownSelector(element) ?? (isOnly(page, element) ? element.localName : null),
        },
      ];
    const landmark = LANDMARKS.find(([test]) => test(element));
    if (!landmark) return [];
    const [, name, because] = landmark;
    return [
      {
        element,
        name: labelOf(element) ?? name,
        kind: 'theme',
        because,
        selector: ownSelector(element) ?? landmarkSelector(page, element),
      },
    ];
  });
}

/** What people call by these names is a part wherever it stands, without a landmark to say so (common practice of CSS packages). */
const NAMED: readonly (readonly [test: RegExp, name: string, kind: string])[] = [
  [/^(?:site-|page-|main-|top-?)?(?:header|masthead|topbar|top-bar|appbar|app-bar)$/i, 'Header', 'theme'],
  [/^(?:site-|page-|main-)?footer$/i, 'Footer', 'theme'],
  [/^(?:(?:main|primary|site|top|side)-)?(?:menu|navbar|nav-bar|navigation|breadcrumbs?)$/i, 'Menu', 'theme'],
  [/^(?:sidebar|side-bar)$/i, 'Sidebar', 'theme'],
  [/^drawer$/i, 'Drawer', 'pop-up'],
  [
    /^(?:message|messages|alert|alerts|notification|notifications|notice|toast|toasts|banner|flash-message|snackbar)$/i,
    'Messages',
    'theme',
  ],
  [/^(?:modal|popup|pop-up|lightbox)$/i, 'Dialog', 'pop-up'],
  [/^(?:cookie|consent)[\w-]*$/i, 'Consent', 'pop-up'],
  [/^(?:search|searchform|search-form|search-box)$/i, 'Search', 'form'],
];
/** Elements that one such class may stand on, on one page: more of them are pieces, not parts. */
const MOST_NAMED = 6;

function named(page: Page): Candidate[] {
  const byClass = new Map<
    string,
    { readonly element: ElementNode; readonly name: string; readonly kind: string; readonly count: number }
  >();
  for (const element of page.document.elements) {
    if (element.root.kind !== 'document' || (element.children.length === 0 && textOf(element, 4) === '')) continue;
    for (const own of lastingClasses(element.classes)) {
      const entry = NAMED.find(([test]) => test.test(own));
      if (!entry || [...ancestorsOf(element)].some((above) => above.classes.includes(own))) continue;
      const known = byClass.get(own);
      byClass.set(
        own,
        known ? { ...known, count: known.count + 1 } : { element, name: entry[1], kind: entry[2], count: 1 },
      );
    }
  }
  return [...byClass]
    .filter(([, { count }]) => count <= MOST_NAMED)
    .map(([own, { element, name, kind, count }]): Candidate => ({
      element,
      name: labelOf(element) ?? name,
      kind,
      because: message('part-because.class', { own, count }),
      selector: count === 1 ? ownSelector(element) : `.${escapeIdentifier(own)}`,
    }));
}

/** Elements whose inside shares a stem of class names, such as `qs-`, that is not used outside. */
function stemmed(page: Page): Candidate[] {
  const byStem = new Map<string, { readonly names: Set<string>; readonly elements: ElementNode[] }>();
  for (const element of page.document.elements) {
    if (element.root.kind !== 'document') continue;
    for (const name of lastingClasses(element.classes)) {
      const stem = /^([a-z]{2,10})(?:-|__|_)/i.exec(name)?.[1].toLowerCase();
      if (!stem || COMMON_STEMS.has(stem)) continue;
      const entry = byStem.get(stem) ?? { names: new Set(), elements: [] };
      entry.names.add(name);
      entry.elements.push(element);
      byStem.set(stem, entry);
    }
  }
  return [...byStem].flatMap(([stem, { names, elements }]): Candidate[] => {
    if (names.size < LEAST_STEM_NAMES) return [];
    // Its outermost elements; one stem may stand in a page several times.
    const inside = new Set(elements);
    const tops = elements.filter((element) => ![...ancestorsOf(element)].some((ancestor) => inside.has(ancestor)));
    if (tops.length > 4) return [];
    return tops.map((element) => {
      const holder =
        element.parent &&
        element.parent.children.length === 1 &&
        element.parent.id &&
        ownSelector(element.parent)?.startsWith('#')
          ? element.parent
          : element;
      return {
        element: holder,
        name: nameOf(holder, humanized(holder.id ?? lastingClasses(holder.classes)[0] ?? stem)),
        kind: 'embedded widget',
        because: message('part-because.stem', { count: names.size, stem }),
        selector: ownSelector(holder),
      };
    });
  });
}

function fixed(page: Page, view: StyleView): Candidate[] {
  return page.document.elements.flatMap((element): Candidate[] => {
    if (
      element.root.kind !== 'document' ||
      element.localName === 'iframe' ||
      view.style(element).resolved('position') !== 'fixed' ||
      textOf(element, 10) === ''
    )
      return [];
    return [
      {
        element,
        name: nameOf(element, 'Fixed bar'),
        kind: 'pop-up',
        because: message('part-because.fixed'),
        selector: ownSelector(element),
      },
    ];
  });
}

/** What people call it: a label, the heading it begins with, its id or class in words, else what it is. */
function nameOf(element: ElementNode, kind: string): string {
  const own = element.id ?? lastingClasses(element.classes)[0];
  return labelOf(element) ?? headingOf(element) ?? (own && /[a-z]{4}/i.test(own) ? humanized(own) : kind);
}

function labelOf(element: ElementNode): string | null {
  const label = element.attributes.get('aria-label')?.trim();
  return label ? capital(label.slice(0, 60)) : null;
}

function headingOf(element: ElementNode): string | null {
  for (const child of element.children) {
    const own = /^h[1-6]$|^legend$/.test(child.localName) ? textOf(child, 60) : headingOf(child);
    if (own) return own;
  }
  return null;
}

function humanized(name: string): string {
  return capital(
    name
      .replace(/([a-z])([A-Z])/g, '$1 $2')
      .replace(/[-_]+/g, ' ')
      .trim()
      .toLowerCase(),
  );
}

function isInside(element: ElementNode, names: ReadonlySet<string>): boolean {
  return [...ancestorsOf(element)].some(({ localName }) => names.has(localName));
}

function isOnly(page: Page, element: ElementNode): boolean {
  return page.document.elements.filter(({ localName }) => localName === element.localName).length === 1;
}

/** A landmark without id or class: by its own name where it is the only one, else as a child of what it stands in. */
function landmarkSelector(page: Page, element: ElementNode): string | null {
  const name =
    LANDMARKS.some(([test]) => test(element)) &&
    ['header', 'main', 'footer', 'nav', 'aside'].includes(element.localName)
      ? element.localName
      : `[role="${element.attributes.get('role') ?? ''}"]`;
  if (isOnly(page, element)) return name;
  const parent = element.parent
    ? (ownSelector(element.parent) ??
      (element.parent.localName === 'header' || element.parent.localName === 'footer'
        ? element.parent.localName
        : null))
    : null;
  return parent ? `${parent} > ${name}` : null;
}

function frameSelector(element: ElementNode): string {
  const own = ownSelector(element);
  if (own) return own;
  const title = element.attributes.get('title');
  return title
    ? `iframe[title="${title.replace(/["\\\n]/g, (char) => `\\${char === '\n' ? 'a ' : char}`)}"]`
    : 'iframe';
}

function distinctlyNamed(proposals: readonly PartProposal[]): PartProposal[] {
  const taken = new Set<string>();
  return proposals.map((proposal) => {
    let { name } = proposal;
    for (let number = 2; taken.has(name.toLowerCase()); number += 1) name = `${proposal.name} ${number}`;
    taken.add(name.toLowerCase());
    return { ...proposal, name };
  });
}
