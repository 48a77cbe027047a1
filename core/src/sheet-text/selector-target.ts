import { isMessage, message, type Message } from '../message/message.js';
import { generate, parse, walk, type CssNode, type Selector } from 'css-tree';
import type { OverrideState } from '../veneer/override.js';

/** What a selector asks for: the elements, their pseudo-element, the state they are in. */
export interface SelectorTarget {
  /** The selector without pseudo-element and state, by which its elements are gathered. */
  readonly elements: string;
  /** Without colons; `''` for the element. */
  readonly pseudo: string;
  readonly state: OverrideState;
  /** Whole selector as written. */
  readonly selector: string;
}

/** States by the pseudo-class that the styled element itself must match. Source: Selectors 4 §§8–13, HTML §4.16. */
const STATE_OF: Readonly<Record<string, OverrideState>> = {
  hover: 'hover',
  focus: 'focus',
  'focus-visible': 'focus',
  active: 'active',
  visited: 'visited',
  disabled: 'disabled',
  checked: 'checked',
  indeterminate: 'indeterminate',
  invalid: 'invalid',
  'user-invalid': 'invalid',
  valid: 'valid',
  'user-valid': 'valid',
  'read-only': 'read-only',
  autofill: 'autofilled',
  '-webkit-autofill': 'autofilled',
};
/** Pseudo-classes that hang on what visitors do, which is told of the styled element alone. */
const CHANGING: ReadonlySet<string> = new Set([
  ...Object.keys(STATE_OF),
  'focus-within',
  'placeholder-shown',
  'enabled',
  'read-write',
  'target',
  'popover-open',
  'modal',
  'fullscreen',
  'open',
]);

/** The pseudo-classes of a selector that hang on what visitors do, in order, such as `hover`; inside `:not()` and its like too. */
export function changingIn(selector: string): readonly string[] {
  const found: string[] = [];
  walk(parse(selector, { context: 'selectorList' }), {
    visit: 'PseudoClassSelector',
    enter(node) {
      if (CHANGING.has(node.name.toLowerCase())) found.push(node.name.toLowerCase());
    },
  });
  return found;
}

/**
 * What each selector of a list asks for, those alike together; or why no override stands for it.
 * @param selector one that a browser takes.
 */
export function selectorTargets(selector: string): readonly SelectorTarget[] | Message {
  const root = parse(selector, { context: 'selectorList', positions: true });
  if (root.type !== 'SelectorList') return message('sheet.no-selector');
  const together = new Map<string, SelectorTarget>();
  for (const complex of root.children) {
    if (complex.type !== 'Selector') return message('sheet.no-selector');
    const { start, end } = complex.loc ?? { start: { offset: 0 }, end: { offset: selector.length } };
    const target = targetOf(complex, selector.slice(start.offset, end.offset));
    if (isMessage(target)) return target;
    const key = `${target.state} ${target.pseudo}`;
    const like = together.get(key);
    const join = (name: 'elements' | 'selector'): string => (like ? `${like[name]}, ${target[name]}` : target[name]);
    together.set(key, { ...target, elements: join('elements'), selector: join('selector') });
  }
  return [...together.values()];
}

function targetOf(complex: Selector, selector: string): SelectorTarget | Message {
  const nodes = complex.children.toArray();
  const first = 1 + nodes.findLastIndex(({ type }) => type === 'Combinator');
  const subject = nodes.slice(first);
  const at = subject.findIndex(({ type }) => type === 'PseudoElementSelector');
  const own = at === -1 ? subject : subject.slice(0, at);
  const after = at === -1 ? [] : subject.slice(at);
  if (after.length > 1) return message('sheet.more-after-pseudo');
  const states = own.filter((node) => stateOfNode(node) !== null);
  if (states.length > 1) return message('sheet.two-states');
  const kept = [...nodes.slice(0, first), ...own.filter((node) => !states.includes(node))];
  const elements = writtenNodes(kept, own.length === states.length);
  if (changingIn(elements).length > 0) return message('sheet.other-state');
  const [pseudo] = after;
  const name = pseudo?.type === 'PseudoElementSelector' ? pseudo.name.toLowerCase() : '';
  if (name === 'part' || name === 'slotted') return message('sheet.into-shadow');
  return { elements, pseudo: name, state: (states[0] && stateOfNode(states[0])) ?? 'rest', selector };
}

function writtenNodes(nodes: readonly CssNode[], isBare: boolean): string {
  const text = nodes.map((node) => generate(node)).join('');
  return isBare ? `${text}*` : text;
}

function stateOfNode(node: CssNode): OverrideState | null {
  if (node.type !== 'PseudoClassSelector') return null;
  if (generate(node).toLowerCase() === ':not(:placeholder-shown)') return 'filled';
  return STATE_OF[node.name.toLowerCase()] ?? null;
}
