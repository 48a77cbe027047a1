import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { isLink } from '../selectors/element-states.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { escapeIdentifier, parseSelectorList } from '../selectors/parse-selector.js';
import { lastingClasses } from '../selectors/class-names.js';

/** Elements whose links are for going about the site, or for acting. */
const NOT_RUNNING: ReadonlySet<string> = new Set([
  'nav',
  'menu',
  'button',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'summary',
  'th',
]);
const BLOCKS = ['p', 'li', 'dd', 'td', 'blockquote', 'figcaption', 'label', 'div', 'address'] as const;
/** Blocks that hold text whatever stands in them. */
const PROSE: ReadonlySet<string> = new Set(['p', 'dd', 'blockquote', 'figcaption']);
/** Names that say a link is drawn as a button (common practice). */
const LIKE_BUTTON = /(?:^|[-_])(?:btn|button|cta)(?:$|[-_])/i;
/** Words around a link that make its line a running text. */
const LEAST_AROUND = 12;

/** Whether a link stands in running text: in a paragraph, or where words of the same block go on around it. Menus, logos, buttons, heads of cards and lists of links are none. */
export function isRunningLink(element: ElementNode): boolean {
  if (!isLink(element) || element.attributes.get('role') === 'button' || element.ownText.trim() === '') return false;
  let block: ElementNode | null = null;
  for (const node of ancestorsOf(element)) {
    if (
      NOT_RUNNING.has(node.localName) ||
      node.attributes.get('role') === 'navigation' ||
      node.attributes.get('role') === 'menu'
    )
      return false;
    if (!block && (BLOCKS as readonly string[]).includes(node.localName)) block = node;
  }
  if (!block || element.classes.some((name) => LIKE_BUTTON.test(name))) return false;
  return PROSE.has(block.localName) || wordsAround(block, element) >= LEAST_AROUND;
}

/** Letters of a block that are in no link, other inline elements among them. */
function wordsAround(block: ElementNode, link: ElementNode): number {
  let count = 0;
  const walk = (node: ElementNode): void => {
    if (node === link || isLink(node)) return;
    count += node.ownText.replace(/\s+/g, ' ').trim().length;
    for (const child of node.children) if (!(BLOCKS as readonly string[]).includes(child.localName)) walk(child);
  };
  walk(block);
  return count;
}

/** A selector for links in running text over all pages: it takes no other link, and as many of them as one selector can. `null` where there are none. */
export function runningLinks(
  pages: readonly Page[],
): { readonly selector: string; readonly elements: readonly ElementNode[]; readonly missed: number } | null {
  const wanted = new Set(
    pages.flatMap((page) =>
      page.document.elements.filter((element) => element.root === page.document.root && isRunningLink(element)),
    ),
  );
  if (wanted.size === 0) return null;
  const blocks = BLOCKS.filter((tag) => [...wanted].some((link) => blockOf(link)?.localName === tag));
  const scopes = ['', 'main ', 'article ', ...sharedClasses([...wanted]).map((name) => `.${escapeIdentifier(name)} `)];
  // `a` alone where every anchor there is a link.
  const subjects = ['a', 'a[href]', 'a:not([class])', 'a[href]:not([class])'];
  let best: { selector: string; elements: ElementNode[] } | null = null;
  for (const scope of scopes) {
    for (const subject of subjects) {
      // Of each kind of block all links are running ones, or it is left out.
      const pure = blocks.filter((tag) => find(pages, `${scope}${tag} ${subject}`).every((link) => wanted.has(link)));
      if (pure.length === 0) continue;
      const selector = `${scope}${pure.length === 1 ? pure[0] : `:is(${pure.join(', ')})`} ${subject}`;
      const elements = find(pages, selector);
      if (
        !best ||
        elements.length > best.elements.length ||
        (elements.length === best.elements.length && selector.length < best.selector.length)
      )
        best = { selector, elements };
    }
  }
  return best && best.elements.length > 0 ? { ...best, missed: wanted.size - best.elements.length } : null;
}

function find(pages: readonly Page[], selector: string): ElementNode[] {
  return pages.flatMap((page) => matchingElements(page, parseSelectorList(selector)));
}

function blockOf(link: ElementNode): ElementNode | null {
  for (const node of ancestorsOf(link)) if ((BLOCKS as readonly string[]).includes(node.localName)) return node;
  return null;
}

/** Classes of ancestors that more than one of the links share. */
function sharedClasses(links: readonly ElementNode[]): string[] {
  const counts = new Map<string, number>();
  for (const link of links)
    for (const name of new Set([...ancestorsOf(link)].flatMap(({ classes }) => lastingClasses(classes))))
      counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts]
    .filter(([, count]) => count > 1)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 8)
    .map(([name]) => name);
}
