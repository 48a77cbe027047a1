import { amendAttributes, type AttributeChange } from '../dom/amendment.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import { isLastingId, lastingClasses } from '../selectors/class-names.js';
import type { Page } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import type { StyleRule } from '../rules/style-rule.js';
import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { escapeIdentifier } from '../selectors/parse-selector.js';
import type { Opener } from './part.js';

/** Properties by which pages hide and show (common practice), with values that hide. */
const HIDING: ReadonlyMap<string, (value: string) => boolean> = new Map([
  ['display', (value) => value === 'none'],
  ['visibility', (value) => value === 'hidden' || value === 'collapse'],
  ['opacity', (value) => Number(value) === 0],
]);

/** Whether an element shows nothing as the page stands: by itself or by an ancestor. */
export function isHidden(view: StyleView, element: ElementNode): boolean {
  if (isGone(view, element)) return true;
  const visibility = view.style(element).resolved('visibility');
  return visibility === 'hidden' || visibility === 'collapse';
}

/** Whether an element or one around it takes all that is in it away. */
function isGone(view: StyleView, element: ElementNode): boolean {
  let byElement = gone.get(view);
  if (!byElement) gone.set(view, (byElement = new Map()));
  const asked: ElementNode[] = [];
  let answer = false;
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const known = byElement.get(node);
    if (known !== undefined) {
      answer = known;
      break;
    }
    asked.push(node);
  }
  for (const node of asked.reverse()) {
    const style = view.style(node);
    answer ||= style.resolved('display') === 'none' || Number(style.resolved('opacity')) === 0;
    byElement.set(node, answer);
  }
  return answer;
}

/** What is asked of one element is asked of all that are in it. */
const gone = new WeakMap<StyleView, Map<ElementNode, boolean>>();

/**
 * What would open a hidden element: attributes that hide it taken away, and, read from the page's own rules, the class
 * or attribute on it or an ancestor under which a rule shows it.
 * @returns no opener when the page's sheets know no way.
 */
export function proposeOpeners(page: Page, view: StyleView, element: ElementNode): Opener[] {
  const openers: Opener[] = [];
  for (const node of [element, ...ancestorsOf(element)]) {
    const selector = ownSelector(node);
    if (selector === null) continue;
    if (node.attributes.has('hidden')) openers.push({ selector, act: 'drop-attribute', name: 'hidden', value: '' });
    if (node.localName === 'dialog' && !node.attributes.has('open'))
      openers.push({ selector, act: 'set-attribute', name: 'open', value: '' });
    if (node.localName === 'details' && !node.attributes.has('open') && node !== element)
      openers.push({ selector, act: 'set-attribute', name: 'open', value: '' });
  }
  const hidingNode = hidingNodeOf(view, element);
  const isHiddenByRule =
    hidingNode !== null && !hidingNode.attributes.has('hidden') && hidingNode.localName !== 'dialog';
  const change = isHiddenByRule ? changeThatShows(page, hidingNode) : null;
  return change ? [...openers, change] : openers;
}

/** The element that hides it: itself or the ancestor nearest the root. */
function hidingNodeOf(view: StyleView, element: ElementNode): ElementNode | null {
  let found: ElementNode | null = null;
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const style = view.style(node);
    if ([...HIDING].some(([property, hides]) => hides(style.resolved(property)))) found = node;
  }
  return found;
}

/** A class or attribute that, put on the element or an ancestor, makes a rule match that shows it. */
function changeThatShows(page: Page, element: ElementNode): Opener | null {
  const rules = page.base.rules.filter((rule) => showsSomething(rule));
  const context = restContext(page.document);
  const chain = [element, ...ancestorsOf(element)];
  for (const rule of rules) {
    if (matchesAny(rule.selectors, element, context)) continue;
    for (const change of changesNamedIn(rule.selectorText)) {
      for (const node of chain) {
        if (
          change.act === 'add-class'
            ? node.classes.includes(change.name)
            : node.attributes.get(change.name) === change.value
        )
          continue;
        const selector = ownSelector(node);
        if (selector !== null && matchesAny(rule.selectors, amendedCopy(element, node, change), context))
          return { selector, ...change };
      }
    }
  }
  return null;
}

function showsSomething(rule: StyleRule): boolean {
  return rule.declarations.some(({ name, value }) => {
    const hides = HIDING.get(name);
    return hides
      ? !hides(value.trim())
      : (name === 'transform' || name === 'translate' || /^(?:left|right|top|bottom|inset)/.test(name)) &&
          /^(?:none|0)/.test(value.trim());
  });
}

/** Classes and attributes that a selector asks for. */
function changesNamedIn(selectorText: string): AttributeChange[] {
  const text = selectorText.replace(/:not\([^)]*\)/g, '');
  const classes = [...text.matchAll(/\.(-?[_a-z][\w-]*)/gi)].map(([, name]): AttributeChange => ({
    act: 'add-class',
    name,
    value: '',
  }));
  const attributes = [...text.matchAll(/\[([^[\]]*)\]/g)].flatMap(([, asked]): AttributeChange[] => {
    const at = asked.indexOf('=');
    const name = (at === -1 ? asked : asked.slice(0, at)).trim();
    const value =
      at === -1
        ? ''
        : asked
            .slice(at + 1)
            .trim()
            .replace(/^["']|["']$/g, '');
    // A test for a part of a value says nothing of the whole.
    return /^[a-z][\w-]*$/i.test(name) && !/["']/.test(value)
      ? [{ act: 'set-attribute', name: name.toLowerCase(), value }]
      : [];
  });
  return [...classes, ...attributes];
}

/** The element with one change on it or on an ancestor; the copies know their ancestors, not their siblings. */
function amendedCopy(element: ElementNode, node: ElementNode, change: AttributeChange): ElementNode {
  const parent = element === node ? element.parent : element.parent && amendedCopy(element.parent, node, change);
  if (element !== node) return parent === element.parent ? element : { ...element, parent, flatParent: parent };
  const attributes = amendAttributes(element.attributes, [change]);
  return {
    ...element,
    attributes,
    classes: (attributes.get('class') ?? '').split(/\s+/).filter((name) => name !== ''),
    id: attributes.get('id') || null,
  };
}

/** A selector an element can be found by again: its id or its lasting classes; `null` when it has neither. */
export function ownSelector(element: ElementNode): string | null {
  if (element.id && isLastingId(element.id)) return `#${escapeIdentifier(element.id)}`;
  if (element.localName === 'body' || element.localName === 'html') return element.localName;
  const classes = lastingClasses(element.classes);
  if (classes.length > 0) return `.${classes.map(escapeIdentifier).join('.')}`;
  return element.localName === 'dialog' ? 'dialog' : null;
}
