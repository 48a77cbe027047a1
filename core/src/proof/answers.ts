import { message } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import { siblingsOf, type ElementNode } from '../dom/tree.js';
import { proofStateTold } from './proof-state.js';
import { alikeKey, kindOf } from '../selectors/alike.js';
import { isCurrent } from '../selectors/current-marker.js';
import { isLink } from '../selectors/element-states.js';
import { StyleView } from '../resolve/style-view.js';
import { jobOf } from '../match/job.js';
import { nameTold } from '../selectors/describe-element.js';
import { homeKey, isOfBrowser, isOfVeneer, placeAt, roleOr, sameIn, type Looked } from './looked.js';
import { isPlainShadow } from './ours.js';
import { LAID_OUT, differingOf, differsIn } from './painted-difference.js';

/** States that tell themselves apart, and in which no colour of the theme comes back. */
export function lookAtAnswers(at: Looked): void {
  if (at.state === 'rest') {
    lookAtCurrent(at);
    lookAtOff(at);
    return;
  }
  lookForTheme(at);
  if (at.state === 'hover') lookAtHover(at);
  if (at.state === 'checked') lookAtChecked(at);
}

/** What the theme still shows in a state of what is ours at rest: a fill, an edge, or a gradient, shadow or dimming laid over it. */
function lookForTheme(at: Looked): void {
  const { on, element, view, state, into } = at;
  if (!on.known.hasPalette || on.isHidden(view, element)) return;
  const paintings = on.paintingsIn(view, element);
  const rest = on.paintingsIn(on.rest, element);
  for (const painting of paintings) {
    const before = sameIn(rest, painting);
    if (before && hexOf(before.color) === hexOf(painting.color)) continue;
    if (isOfVeneer(painting) || (isOfBrowser(painting) && state !== 'visited')) continue;
    into.look('answers', element.number);
    if (on.known.isOurs(on.page, element, painting.color) || isPlainShadow(painting)) continue;
    const isOursAtRest = before
      ? on.known.isBrand(before.color) || isOfVeneer(before)
      : rest.some((other) => other.pseudo === painting.pseudo && (isOfVeneer(other) || on.known.isBrand(other.color)));
    if (!isOursAtRest) continue;
    const beside = message('proof.beside-rest', {
      before: before ? 'other' : 'none',
      color: before ? hexOf(before.color) : '',
    });
    into.note({
      kind: 'answers',
      level: 'fails',
      cause: ['theme', state, homeKey(painting), hexOf(painting.color)].join('|'),
      what: message('proof.still-shows-theme', { state: proofStateTold(state), use: painting.use }),
      name: nameTold(element, painting.pseudo),
      basis: message('proof.state-painted', { color: hexOf(painting.color), property: painting.property, beside }),
      figure: null,
      needed: null,
      unit: 'none',
      place: placeAt(at, painting.pseudo, painting.property, painting.index),
      mend: before
        ? { kind: 'step' }
        : painting.use === 'gradient' || painting.use === 'shadow'
          ? {
              kind: 'set',
              values: { [painting.property]: { kind: 'literal', css: 'none' } },
              label: message('proof.without'),
            }
          : {
              kind: 'nearest',
              property: painting.property,
              hex: hexOf(painting.color),
              job: jobOf(view, element, painting),
            },
    });
  }
  lookForDimming(at);
}

function lookForDimming(at: Looked): void {
  const { on, element, view, state, into } = at;
  if (state === 'disabled' || view.style(element).identity === on.rest.style(element).identity) return;
  const [now, then] = [view, on.rest].map((own) => Number(own.style(element).resolved('opacity')));
  if (now === then || now === 0 || then === 0) return;
  const fill = on.paintingsIn(view, element).find(({ use, pseudo }) => use === 'fill' && pseudo === '');
  if (!fill || !isOfVeneer(fill)) return;
  into.look('answers', element.number);
  into.note({
    kind: 'answers',
    level: 'look',
    cause: ['dimmed', state, alikeKey(element)].join('|'),
    what: message('proof.dimmed-theme', { state: proofStateTold(state) }),
    name: nameTold(element),
    basis: message('proof.its-opacity-goes-from', { then, now }),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', 'opacity'),
    mend: {
      kind: 'set',
      values: { opacity: { kind: 'literal', css: String(then) } },
      label: message('proof.as-strong-as-rest'),
    },
  });
}

/** A link or button that gives no answer to the pointer. */
function lookAtHover(at: Looked): void {
  const { on, element, view, state, into } = at;
  const kind = kindOf(element);
  if ((kind !== 'link' && kind !== 'button') || element.attributes.has('disabled') || isCurrent(element)) return;
  if (on.isHidden(view, element)) return;
  into.look('answers', element.number);
  if (differsIn(on, view, element).kind !== 'none') return;
  into.note({
    kind: 'answers',
    level: 'look',
    cause: ['like rest', state, alikeKey(element)].join('|'),
    what: message('proof.looks-hovered-as-rest'),
    name: nameTold(element),
    basis: message('proof.nothing-painted-or-changes'),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', kind === 'button' ? 'background-color' : 'color'),
    mend: { kind: 'step' },
  });
}

/** Fields that can be ticked. Source: HTML §4.10.5.1.15 and §4.10.5.1.16. */
function canBeTicked({ localName, attributes }: ElementNode): boolean {
  return localName === 'input' && ['checkbox', 'radio'].includes(attributes.get('type')?.toLowerCase() ?? '');
}

/** A page with a box in it unticked that is ticked as captured. */
function unticked({ on, element }: Looked): StyleView {
  const states = new Map([[element, new Set(['!checked', '![checked'])]]);
  return new StyleView(on.page, { environment: on.rest.environment, states });
}

function withInside(element: ElementNode): ElementNode[] {
  return [element, ...element.children.flatMap(withInside)];
}

/** A box that is ticked and looks as if it were not: only where the page draws it itself. */
function lookAtChecked(at: Looked): void {
  const { on, element, view, into } = at;
  if (!canBeTicked(element) || view.style(element).resolved('appearance') !== 'none') return;
  if (on.isHidden(view, element)) return;
  into.look('answers', element.number);
  const [ticked, other] = element.attributes.has('checked') ? [on.rest, unticked(at)] : [view, on.rest];
  const tells = (node: ElementNode): boolean => differingOf(on, [ticked, node], [other, node]).length > 0;
  // The box is one of its siblings.
  if (siblingsOf(element).flatMap(withInside).some(tells)) return;
  into.note({
    kind: 'answers',
    level: 'fails',
    cause: ['like unticked', alikeKey(element)].join('|'),
    what: message('proof.looks-ticked-as-unticked'),
    name: nameTold(element),
    basis: message('proof.page-draws-itself-nothing'),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', 'background-color'),
    mend: null,
  });
}

/** The current one of several beside its neighbours. */
function lookAtCurrent(at: Looked): void {
  const { on, element, view, into } = at;
  if (!isCurrent(element) || (!isLink(element) && kindOf(element) !== 'button' && element.localName !== 'span')) return;
  const other = neighbourOf(element);
  if (!other || on.isHidden(view, element)) return;
  into.look('answers', element.number);
  const holder = element.parent;
  const otherHolder = other.parent;
  const differs = [
    ...differingOf(on, [view, element], [view, other]),
    ...(holder && otherHolder && holder !== otherHolder ? differingOf(on, [view, holder], [view, otherHolder]) : []),
  ].filter((property) => !LAID_OUT.includes(property));
  if (differs.length > 0) return;
  into.note({
    kind: 'answers',
    level: 'look',
    cause: ['current', alikeKey(element)].join('|'),
    what: message('proof.current-looks-like-its'),
    name: nameTold(element),
    basis: message('proof.beside-nothing-painted-tells', { other: nameTold(other) }),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', 'color'),
    mend: {
      kind: 'set',
      values: { color: roleOr(on.site, 'accent', 'inherit') },
      label: message('proof.in-the-accent'),
    },
  });
}

/** One of the others in a list, to hold the current one against. */
export function neighbourOf(element: ElementNode): ElementNode | null {
  const own = siblingsOf(element).filter((node) => node.localName === 'a' && node !== element && !isCurrent(node));
  if (own.length > 0) return own[0];
  const item = element.parent;
  if (item?.localName !== 'li') return null;
  for (const other of siblingsOf(item)) {
    const link = other.children.find((node) => isLink(node) && !isCurrent(node));
    if (link && other !== item) return link;
  }
  return null;
}

/** A control that is off, beside one of its kind that is not. */
function lookAtOff(at: Looked): void {
  const { on, element, view, into } = at;
  if (!element.attributes.has('disabled') || !['button', 'input', 'select', 'textarea'].includes(element.localName))
    return;
  if (on.isHidden(view, element)) return;
  const other = on.page.document.elements.find(
    (node) => node !== element && !node.attributes.has('disabled') && alikeKey(node) === alikeKey(element),
  );
  if (!other) return;
  into.look('answers', element.number);
  if (differingOf(on, [view, element], [view, other]).some((property) => !LAID_OUT.includes(property))) return;
  into.note({
    kind: 'answers',
    level: 'look',
    cause: ['off', alikeKey(element)].join('|'),
    what: message('proof.looks-off-as'),
    name: nameTold(element),
    basis: message('proof.nothing-painted-tells-from', { other: nameTold(other) }),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', 'background-color'),
    mend: null,
  });
}
