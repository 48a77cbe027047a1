import type { ElementNode } from '../dom/tree.js';
import { currentMarkerFor } from '../selectors/current-marker.js';
import { isFocusable, linkAround } from '../selectors/element-states.js';
import { isOfAnother, type OverrideState } from '../veneer/override.js';

const DISABLEABLE = new Set(['button', 'input', 'select', 'textarea']);
const TYPED_INTO = new Set([
  'text',
  'search',
  'url',
  'tel',
  'email',
  'password',
  'number',
  'date',
  'time',
  'month',
  'week',
  'datetime-local',
]);

/** States that apply to an element or pseudo-element of its kind, rest first. */
export function applicableStates(element: ElementNode, pseudo = ''): OverrideState[] {
  if (pseudo.startsWith('-webkit-scrollbar')) return ['rest'];
  if (pseudo === 'selection' || pseudo === 'backdrop') return ['rest'];
  const type = (element.attributes.get('type') ?? 'text').toLowerCase();
  const isField =
    element.localName === 'textarea' ||
    element.localName === 'select' ||
    (element.localName === 'input' && TYPED_INTO.has(type));
  const isTicked = element.localName === 'input' && (type === 'checkbox' || type === 'radio');
  const states: OverrideState[] = ['rest'];
  if (isField && element.attributes.has('placeholder') && pseudo !== 'placeholder') states.push('filled');
  if (isField && pseudo === '') states.push('autofilled');
  if (isTicked) states.push('checked');
  if (isTicked && type === 'checkbox') states.push('indeterminate');
  if (
    pseudo === '' &&
    (element.localName === 'details' || element.localName === 'dialog' || element.attributes.has('popover'))
  )
    states.push('open');
  if (linkAround(element)) states.push('visited');
  states.push('hover');
  // What stands in a control does not hold the focus itself: that is a state of the control.
  if (isFocusable(element)) states.push('focus');
  if (isInteractive(element)) states.push('active');
  if (isField || isTicked) states.push('valid', 'invalid');
  if (isField && element.localName !== 'select') states.push('read-only');
  if (currentMarkerFor(element)) states.push('current');
  if (DISABLEABLE.has(element.localName)) states.push('disabled');
  return states;
}

/** Whether an element can come into a state at all: what is gathered by kind holds some that cannot, such as a tick box that is never filled. */
export function canBeIn(element: ElementNode, state: OverrideState, pseudo = ''): boolean {
  return isOfAnother(state) || pseudo.startsWith('-webkit-') || applicableStates(element, pseudo).includes(state);
}

/** Whether the element, or what it stands in, takes focus or is pressed. */
function isInteractive(element: ElementNode): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    if (node.localName === 'label' || node.localName === 'summary') return true;
    if (isFocusable(node)) return true;
  }
  return false;
}
