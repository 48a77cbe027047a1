import { message, type Message } from '../message/message.js';
import { compositeOver } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { VISIONS, seenAs, type Vision } from '../color/vision.js';
import { siblingsOf, type ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { INDISTINCT } from '../palette/pair-matrix.js';
import { alikeKey, kindOf } from '../selectors/alike.js';
import { isCurrent } from '../selectors/current-marker.js';
import { nameTold } from '../selectors/describe-element.js';
import type { StyleView } from '../resolve/style-view.js';
import type { Color } from '../values/color.js';
import { hasFill } from '../match/job.js';
import { neighbourOf } from './answers.js';
import { placeAt, type Looked } from './looked.js';
import { differingOf } from './painted-difference.js';

/** Deficiencies that are looked at; without any colour only lightness is left, which contrast tells. */
const EYES: readonly Vision[] = VISIONS.filter((vision) => vision !== 'grey');

/** What is told by colour alone, as people with colour-vision deficiencies see it. Source: WCAG 2.2, 1.4.1; `seenAs` names its tables. */
export function lookWithOtherEyes(at: Looked): void {
  const { on, element, view, state } = at;
  if (on.isHidden(view, element)) return;
  if (state === 'rest' && isCurrent(element)) {
    const other = neighbourOf(element);
    if (other) compare(at, other, view, message('proof.current-its-neighbours'));
  }
  if (state === 'rest' && isAction(view, element)) {
    const [before] = besideIt(element);
    const other = before.find((node) => isAction(view, node) && !on.isHidden(view, node));
    if (other) compare(at, other, view, message('proof.two-actions-beside-each'));
  }
  if (state === 'rest' && kindOf(element) === 'link' && !isAction(view, element)) {
    // A reduced price or a warning beside a link: each in a colour of its own.
    const other = besideIt(element)
      .flat()
      .find((node) => isColoredText(view, node) && !on.isHidden(view, node));
    if (other) compare(at, other, view, message('proof.link-coloured-text-beside'));
  }
  if (state === 'invalid' && kindOf(element) === 'field')
    compare(at, element, on.rest, message('proof.refused-field-good'));
}

/** Whether it is something to press, drawn as a field of colour. */
function isAction(view: StyleView, element: ElementNode): boolean {
  const kind = kindOf(element);
  return (kind === 'button' || kind === 'link') && hasFill(view, element);
}

/** Whether it is text in another colour than what it stands in, and no link. */
function isColoredText(view: StyleView, element: ElementNode): boolean {
  return (
    element.ownText.trim() !== '' &&
    kindOf(element) === 'other' &&
    element.parent !== null &&
    view.style(element).resolved('color') !== view.style(element.parent).resolved('color')
  );
}

/** What stands beside an element, the nearest first: before it, and after it. */
function besideIt(element: ElementNode): readonly [before: ElementNode[], after: ElementNode[]] {
  const all = siblingsOf(element);
  return [all.slice(0, element.position).reverse(), all.slice(element.position + 1)];
}

function compare(at: Looked, other: ElementNode, otherView: StyleView, what: Message): void {
  const { on, element, view, into } = at;
  const properties = differingOf(on, [view, element], [otherView, other]);
  if (properties.length === 0 || properties.some((property) => !/color$|^fill$|^stroke$/.test(property))) return;
  into.look('eyes', element.number);
  const pairs = properties.flatMap((property): (readonly [Color, Color])[] => {
    const [a, b] = [view.style(element).color(property), otherView.style(other).color(property)];
    if (!a || !b) return [];
    const [under, beside] = [surroundingsOf(view, element).outside, surroundingsOf(otherView, other).outside];
    return [[compositeOver(a, under), compositeOver(b, beside)]];
  });
  if (pairs.length === 0) return;
  const apart = Math.max(...pairs.map(([a, b]) => deltaE2000(a, b)));
  if (apart < INDISTINCT) return;
  const worst = EYES.map((eye) => ({
    eye,
    deltaE: Math.max(...pairs.map(([a, b]) => deltaE2000(seenAs(a, eye), seenAs(b, eye)))),
  })).reduce((least, own) => (own.deltaE < least.deltaE ? own : least));
  if (worst.deltaE >= INDISTINCT) return;
  const [[a, b]] = pairs;
  into.note({
    kind: 'eyes',
    level: 'look',
    cause: ['merge', worst.eye, hexOf(a), hexOf(b), alikeKey(element)].join('|'),
    what: message('proof.merge-with', { what, eye: worst.eye }),
    name: nameTold(element),
    basis: message('proof.are-e2000-apart-as', {
      a: hexOf(a),
      b: hexOf(b),
      apart: apart.toFixed(1),
      deltaE: worst.deltaE.toFixed(1),
    }),
    figure: worst.deltaE,
    needed: INDISTINCT,
    unit: 'deltaE',
    place: placeAt(at, '', properties[0]),
    mend: null,
  });
}
