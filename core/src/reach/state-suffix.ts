import { currentMarkerFor } from '../selectors/current-marker.js';
import { relationOf } from '../elsewhere/carriers.js';
import { flipsOf } from '../elsewhere/flips.js';
import { isSwitchState, type OverrideState, type SwitchState } from '../veneer/override.js';
import { subjectCandidates } from './selector-candidates.js';
import { findThreshold, type Place } from './threshold.js';
import type { SelectorRequest } from './selector-request.js';

/**
 * The pseudo-class of a state. Focus and invalidity follow the rule that decides now: where the page shows focus to
 * the pointer too, or marks a field before it is touched, so must the override.
 */
export function stateSuffix(request: SelectorRequest, lead: Place, targets: readonly Place[]): string {
  const { state } = request;
  if (isSwitchState(state)) return switchSuffix(state, lead);
  if (state === 'current') {
    const own = currentMarkerFor(lead.element);
    // Lists of one kind may mark their current one in different ways.
    const marks = [
      ...new Set(
        targets
          .flatMap(({ element }) => currentMarkerFor(element) ?? [])
          .filter(({ on }) => on === own?.on)
          .map(({ selector }) => selector),
      ),
    ].sort();
    return marks.length > 1 ? `:is(${marks.join(', ')})` : (own?.selector ?? '');
  }
  if (state === 'open') return lead.element.attributes.has('popover') ? ':popover-open' : '[open]';
  if (state === 'focus' || state === 'invalid' || state === 'valid') {
    const bar = findThreshold({ ...request, places: targets.slice(0, 1) });
    if (state === 'valid') return bar.setBy && /:valid/.test(bar.setBy.rule) ? ':valid' : ':user-valid';
    if (state === 'focus') return bar.setBy && /:focus(?![-\w])/.test(bar.setBy.rule) ? ':focus' : ':focus-visible';
    return bar.setBy && /[^-]invalid/.test(bar.setBy.rule) ? ':invalid' : ':user-invalid';
  }
  return STATE_SUFFIX[state];
}

/** How the element that is switched is asked about; one that stands inside, by `:has()`. */
function switchSuffix(state: SwitchState, { page, element, parent, flip: asLead }: Place): string {
  const flip = asLead ?? (parent && flipsOf(parent, page.document)[state]);
  if (!parent || !flip) return '';
  if (relationOf(element, parent)?.relation !== 'inside') return flip.selector;
  const [tag, named = tag] = subjectCandidates(parent);
  return `:has(> ${(parent.localName === 'input' ? tag : named).text}${flip.selector})`;
}

const STATE_SUFFIX: Readonly<
  Record<Exclude<OverrideState, 'current' | 'focus' | 'invalid' | 'valid' | 'open' | SwitchState>, string>
> = {
  rest: '',
  autofilled: ':autofill',
  indeterminate: ':indeterminate',
  'read-only': ':read-only',
  visited: ':visited',
  hover: ':hover',
  active: ':active',
  disabled: ':disabled',
  checked: ':checked',
  filled: ':not(:placeholder-shown)',
  'parent-hover': ':hover',
  'parent-invalid': ':invalid',
};
