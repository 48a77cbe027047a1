import { siblingsOf, type ElementNode } from '../dom/tree.js';
import { consult, type MatchContext } from './match-context.js';

const DISABLEABLE = new Set(['button', 'input', 'select', 'textarea', 'optgroup', 'option', 'fieldset']);
const NOT_TYPED_INTO = new Set([
  'hidden',
  'range',
  'color',
  'checkbox',
  'radio',
  'file',
  'submit',
  'image',
  'reset',
  'button',
]);
const PLACEHOLDER_TYPES = new Set(['text', 'search', 'url', 'tel', 'email', 'password', 'number']);
const RANGE_TYPES = new Set(['number', 'range', 'date', 'month', 'week', 'time', 'datetime-local']);
const VALIDATED = new Set(['input', 'select', 'textarea', 'button', 'output', 'object', 'fieldset', 'form']);

/** Whether an element is a hyperlink: HTML `a` and `area`, or SVG `a`, with an address. Source: HTML §"selector-link". */
export function isLink(element: ElementNode): boolean {
  if (element.namespace === 'html')
    return (element.localName === 'a' || element.localName === 'area') && element.attributes.has('href');
  return (
    element.namespace === 'svg' &&
    element.localName === 'a' &&
    (element.attributes.has('href') || element.attributes.has('xlink:href'))
  );
}

/** Whether an element is, or stands in, a control that HTML disables, or what ARIA says is disabled. Source: HTML §4.10.19.5; WAI-ARIA 1.2, aria-disabled. */
export function isInactive(element: ElementNode): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    if (
      node.attributes.get('aria-disabled')?.toLowerCase() === 'true' ||
      (node.attributes.has('disabled') && node.namespace === 'html' && DISABLEABLE.has(node.localName))
    )
      return true;
  return false;
}

/** Attribute by which a capture says what stood in the top layer; markup alone cannot. */
const TOP_LAYER = 'data-top-layer';

function isModal(element: ElementNode): boolean {
  return isHtml(element, 'dialog') && element.attributes.get(TOP_LAYER) === 'modal';
}

function isOpenPopover(element: ElementNode): boolean {
  return element.attributes.has('popover') && element.attributes.get(TOP_LAYER) === 'popover';
}

/** Whether an element stood in the top layer when the page was captured. Source: CSS Positioned Layout 4 §5. */
export function isInTopLayer(element: ElementNode): boolean {
  return isModal(element) || isOpenPopover(element);
}

const CONTROLS = new Set(['input', 'select', 'textarea', 'button']);

/** Whether the keyboard or a script could give it focus. Source: HTML §6.6.2. */
export function isFocusable(element: ElementNode): boolean {
  if (
    element.attributes.has('tabindex') ||
    isLink(element) ||
    element.localName === 'summary' ||
    element.localName === 'iframe'
  )
    return true;
  if (CONTROLS.has(element.localName))
    return element.attributes.get('type') !== 'hidden' && !element.attributes.has('disabled');
  const editable = element.attributes.get('contenteditable');
  return editable !== undefined && editable !== 'false';
}

/** Nearest hyperlink around an element, itself included. */
export function linkAround(element: ElementNode): ElementNode | null {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (isLink(node)) return node;
  return null;
}

/**
 * Whether a pseudo-class without argument holds for an element: a state given from outside decides,
 * then the document.
 * Source: HTML §4.16.3 Pseudo-classes, https://html.spec.whatwg.org/multipage/semantics-other.html#pseudo-classes
 */
export function matchesNamedPseudoClass(name: string, element: ElementNode, context: MatchContext): boolean {
  if (context.consulted && !BY_PLACE.has(name)) consult(context.consulted, element, name);
  const given = context.states.get(element);
  if (given) {
    if (given.has(name)) return true;
    if (given.has(`!${name}`)) return false;
    const opposite = OPPOSITES.get(name);
    if (opposite && given.has(opposite)) return false;
  }
  const test = TESTS.get(name);
  return test ? test(element, context) : false;
}

/** Pseudo-classes that no state brings about: where an element stands decides, or what it is. */
const BY_PLACE: ReadonlySet<string> = new Set([
  'root',
  'empty',
  'first-child',
  'last-child',
  'only-child',
  'first-of-type',
  'last-of-type',
  'only-of-type',
  'defined',
  'link',
  'visited',
  'any-link',
  '-webkit-any-link',
]);

/** Whether a state given to an element has a say in a pseudo-class. */
export function hasSay(given: ReadonlySet<string>, name: string): boolean {
  const opposite = OPPOSITES.get(name);
  return given.has(name) || given.has(`!${name}`) || (opposite !== undefined && given.has(opposite));
}

const OPPOSITES: ReadonlyMap<string, string> = new Map([
  ['enabled', 'disabled'],
  ['disabled', 'enabled'],
  ['valid', 'invalid'],
  ['invalid', 'valid'],
  ['required', 'optional'],
  ['optional', 'required'],
  ['read-only', 'read-write'],
  ['read-write', 'read-only'],
  ['in-range', 'out-of-range'],
  ['out-of-range', 'in-range'],
]);

type Test = (element: ElementNode, context: MatchContext) => boolean;
const isHtml = (element: ElementNode, ...names: string[]): boolean =>
  element.namespace === 'html' && names.includes(element.localName);
const typeOf = (element: ElementNode): string =>
  (element.attributes.get('type') ?? (element.localName === 'button' ? 'submit' : 'text')).toLowerCase();

const TESTS: ReadonlyMap<string, Test> = new Map<string, Test>([
  ['link', (element, context) => isLink(element) && element !== context.visitedLink],
  ['visited', (element, context) => element === context.visitedLink],
  ['any-link', isLink],
  ['-webkit-any-link', isLink],
  ['root', (element) => element.root.kind === 'document' && element.parent === null],
  ['empty', (element) => element.children.length === 0 && element.ownText === ''],
  ['first-child', (element) => element.position === 0],
  ['last-child', (element) => element.position === siblingsOf(element).length - 1],
  ['only-child', (element) => siblingsOf(element).length === 1],
  ['first-of-type', (element) => !hasSameType(element, 0, element.position)],
  ['last-of-type', (element) => !hasSameType(element, element.position + 1, siblingsOf(element).length)],
  [
    'only-of-type',
    (element) =>
      !hasSameType(element, 0, element.position) &&
      !hasSameType(element, element.position + 1, siblingsOf(element).length),
  ],
  [
    'defined',
    (element) => !(element.namespace === 'html' && (element.localName.includes('-') || element.attributes.has('is'))),
  ],
  ['disabled', (element, context) => isDisabled(element, context)],
  [
    'enabled',
    (element, context) =>
      element.namespace === 'html' && DISABLEABLE.has(element.localName) && !isDisabled(element, context),
  ],
  [
    'checked',
    (element) =>
      (isHtml(element, 'input') &&
        ['checkbox', 'radio'].includes(typeOf(element)) &&
        element.attributes.has('checked')) ||
      (isHtml(element, 'option') && isSelectedOption(element)),
  ],
  ['indeterminate', isIndeterminate],
  ['default', isDefault],
  ['required', (element) => canBeRequired(element) && element.attributes.has('required')],
  [
    'optional',
    (element) =>
      isHtml(element, 'button', 'input', 'select', 'textarea') &&
      !(canBeRequired(element) && element.attributes.has('required')),
  ],
  ['valid', (element, context) => isCandidate(element, context) && !isInvalid(element, context)],
  ['invalid', (element, context) => isCandidate(element, context) && isInvalid(element, context)],
  [
    'in-range',
    (element, context) => hasRange(element) && isCandidate(element, context) && rangeOffence(element) === null,
  ],
  [
    'out-of-range',
    (element, context) => hasRange(element) && isCandidate(element, context) && rangeOffence(element) !== null,
  ],
  ['read-write', (element, context) => isReadWrite(element, context)],
  ['read-only', (element, context) => element.namespace === 'html' && !isReadWrite(element, context)],
  ['placeholder-shown', isPlaceholderShown],
  ['modal', (element) => isModal(element)],
  ['popover-open', (element) => isOpenPopover(element)],
  ['open', (element) => isHtml(element, 'details', 'dialog') && element.attributes.has('open')],
  ['autofill', () => false],
  ['muted', (element) => isHtml(element, 'audio', 'video') && element.attributes.has('muted')],
  ['paused', (element) => isHtml(element, 'audio', 'video')],
]);

function hasSameType(element: ElementNode, from: number, to: number): boolean {
  const siblings = siblingsOf(element);
  for (let i = from; i < to; i += 1) {
    if (siblings[i].localName === element.localName && siblings[i].namespace === element.namespace) return true;
  }
  return false;
}

/** HTML §"enabling and disabling form controls": own attribute, or a disabled fieldset around it outside its first legend. */
function isDisabled(element: ElementNode, context: MatchContext): boolean {
  if (element.namespace !== 'html' || !DISABLEABLE.has(element.localName)) return false;
  if (element.attributes.has('disabled')) return true;
  if (element.localName === 'option') {
    const parent = element.parent;
    return parent !== null && isHtml(parent, 'optgroup') && parent.attributes.has('disabled');
  }
  if (element.localName === 'optgroup') return false;
  for (let child: ElementNode = element, node = element.parent; node; child = node, node = node.parent) {
    if (!isHtml(node, 'fieldset')) continue;
    consult(context.consulted, node, 'disabled');
    const off = context.states.get(node)?.has('disabled') || node.attributes.has('disabled');
    if (off && child !== node.children.find((n) => isHtml(n, 'legend'))) return true;
  }
  return false;
}

function isSelectedOption(option: ElementNode): boolean {
  let select = option.parent;
  while (select && !isHtml(select, 'select')) select = select.parent;
  if (!select || select.attributes.has('multiple')) return option.attributes.has('selected');
  const options: ElementNode[] = [];
  const walk = (node: ElementNode): void =>
    node.children.forEach((child) => (isHtml(child, 'option') ? options.push(child) : walk(child)));
  walk(select);
  // Of several in a list of one choice, the last is chosen (HTML §4.10.7, selectedness).
  const chosen = options.findLast((other) => other.attributes.has('selected'));
  if (chosen) return chosen === option;
  if (Number(select.attributes.get('size') ?? 1) > 1) return false;
  return options.find((other) => !other.attributes.has('disabled')) === option;
}

function formOwner(element: ElementNode): ElementNode | null {
  for (let node = element.parent; node; node = node.parent) if (isHtml(node, 'form')) return node;
  return null;
}

function isIndeterminate(element: ElementNode, context: MatchContext): boolean {
  if (isHtml(element, 'progress')) return !element.attributes.has('value');
  if (!isHtml(element, 'input') || typeOf(element) !== 'radio') return false;
  const name = element.attributes.get('name');
  if (!name) return !element.attributes.has('checked');
  const form = formOwner(element);
  return !context.document.elements.some(
    (other) =>
      isHtml(other, 'input') &&
      typeOf(other) === 'radio' &&
      other.attributes.get('name') === name &&
      formOwner(other) === form &&
      other.root === element.root &&
      other.attributes.has('checked'),
  );
}

function isDefault(element: ElementNode, context: MatchContext): boolean {
  if (isHtml(element, 'option')) return element.attributes.has('selected');
  if (isHtml(element, 'input') && ['checkbox', 'radio'].includes(typeOf(element)))
    return element.attributes.has('checked');
  if (!isSubmit(element)) return false;
  const form = formOwner(element);
  return (
    form !== null && context.document.elements.find((other) => isSubmit(other) && formOwner(other) === form) === element
  );
}

function isSubmit(element: ElementNode): boolean {
  return (
    (isHtml(element, 'button') && typeOf(element) === 'submit') ||
    (isHtml(element, 'input') && ['submit', 'image'].includes(typeOf(element)))
  );
}

function canBeRequired(element: ElementNode): boolean {
  if (isHtml(element, 'select', 'textarea')) return true;
  return (
    isHtml(element, 'input') &&
    !['hidden', 'range', 'color', 'submit', 'image', 'reset', 'button'].includes(typeOf(element))
  );
}

/** Whether constraint validation looks at an element; a form or fieldset answers for its controls. */
function isCandidate(element: ElementNode, context: MatchContext): boolean {
  if (element.namespace !== 'html' || !VALIDATED.has(element.localName)) return false;
  if (isHtml(element, 'form', 'fieldset')) return true;
  if (isHtml(element, 'output', 'object')) return false;
  if (isHtml(element, 'button')) return typeOf(element) === 'submit' && !isDisabled(element, context);
  if (isHtml(element, 'input') && ['hidden', 'reset', 'button', 'image'].includes(typeOf(element))) return false;
  if (element.attributes.has('readonly') && isHtml(element, 'input', 'textarea')) return false;
  return !isDisabled(element, context);
}

function isInvalid(element: ElementNode, context: MatchContext): boolean {
  if (isHtml(element, 'form', 'fieldset')) {
    const walk = (node: ElementNode): boolean =>
      node.children.some(
        (child) =>
          (!isHtml(child, 'form', 'fieldset') && matchesNamedPseudoClass('invalid', child, context)) || walk(child),
      );
    return walk(element);
  }
  const value = valueOf(element);
  if (element.attributes.has('required') && canBeRequired(element) && isMissing(element, value, context)) return true;
  if (!isHtml(element, 'input') || value === '') return false;
  const type = typeOf(element);
  if (
    type === 'email' &&
    !/^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*$/.test(
      value,
    )
  )
    return true;
  if (type === 'url' && !/^[a-zA-Z][a-zA-Z0-9+.-]*:/.test(value)) return true;
  const pattern = element.attributes.get('pattern');
  if (pattern && PLACEHOLDER_TYPES.has(type) && type !== 'number' && pattern.length < 500 && value.length < 200) {
    try {
      if (!new RegExp(`^(?:${pattern})$`, 'v').test(value)) return true;
    } catch {
      return false;
    }
  }
  return rangeOffence(element) !== null;
}

function isMissing(element: ElementNode, value: string, context: MatchContext): boolean {
  if (!isHtml(element, 'input')) return value === '';
  const type = typeOf(element);
  if (type === 'checkbox') return !element.attributes.has('checked');
  if (type === 'radio') {
    const name = element.attributes.get('name');
    return !context.document.elements.some(
      (other) =>
        isHtml(other, 'input') &&
        typeOf(other) === 'radio' &&
        other.attributes.get('name') === name &&
        formOwner(other) === formOwner(element) &&
        other.attributes.has('checked'),
    );
  }
  return value === '';
}

function valueOf(element: ElementNode): string {
  if (isHtml(element, 'textarea')) return element.ownText;
  if (!isHtml(element, 'select')) return element.attributes.get('value') ?? '';
  const options: ElementNode[] = [];
  const walk = (node: ElementNode): void =>
    node.children.forEach((child) => (isHtml(child, 'option') ? options.push(child) : walk(child)));
  walk(element);
  const chosen = options.find(isSelectedOption);
  return chosen ? (chosen.attributes.get('value') ?? chosen.ownText.trim()) : '';
}

function hasRange(element: ElementNode): boolean {
  return (
    isHtml(element, 'input') &&
    RANGE_TYPES.has(typeOf(element)) &&
    (element.attributes.has('min') || element.attributes.has('max') || typeOf(element) === 'range')
  );
}

function rangeOffence(element: ElementNode): 'under' | 'over' | null {
  const value = element.attributes.get('value') ?? '';
  if (!isHtml(element, 'input') || value === '' || !RANGE_TYPES.has(typeOf(element)) || typeOf(element) === 'range')
    return null;
  const numeric = typeOf(element) === 'number';
  const read = (text: string | undefined): number | string | null =>
    text === undefined || text === '' ? null : numeric ? Number(text) : text;
  const own = read(value);
  const min = read(element.attributes.get('min'));
  const max = read(element.attributes.get('max'));
  // Date and time texts of one type order as their strings do.
  if (own !== null && min !== null && own < min) return 'under';
  return own !== null && max !== null && own > max ? 'over' : null;
}

function isReadWrite(element: ElementNode, context: MatchContext): boolean {
  if (element.namespace !== 'html') return false;
  if (isHtml(element, 'input'))
    return !NOT_TYPED_INTO.has(typeOf(element)) && !element.attributes.has('readonly') && !isDisabled(element, context);
  if (isHtml(element, 'textarea')) return !element.attributes.has('readonly') && !isDisabled(element, context);
  for (let node: ElementNode | null = element; node; node = node.parent) {
    const editable = node.attributes.get('contenteditable')?.toLowerCase();
    if (editable !== undefined) return editable !== 'false';
  }
  return false;
}

function isPlaceholderShown(element: ElementNode): boolean {
  if (!element.attributes.has('placeholder')) return false;
  if (isHtml(element, 'textarea')) return element.ownText === '';
  return (
    isHtml(element, 'input') && PLACEHOLDER_TYPES.has(typeOf(element)) && (element.attributes.get('value') ?? '') === ''
  );
}
