import { message } from '../message/message.js';
import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { isShape } from '../dom/svg-shapes.js';
import { textOf, type ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { kindOf } from '../selectors/alike.js';
import { isFocusable } from '../selectors/element-states.js';
import { nameTold } from '../selectors/describe-element.js';
import { alikeKey } from '../selectors/alike.js';
import { differsIn } from './painted-difference.js';
import { homeKey, placeAt, type Looked } from './looked.js';

/** Icons, carets and what shows the focus: what is seen rather than read. Source: WCAG 2.2, 1.4.11 and 2.4.7. */
export function lookAtWhatIsSeen(at: Looked): void {
  lookAtIcon(at);
  lookAtCaret(at);
  lookAtThumb(at);
  lookAtFocus(at);
}

/** A shape that alone says what a control does. */
function lookAtIcon(at: Looked): void {
  const { on, element, view, into } = at;
  if (!isShape(element)) return;
  const control = controlAround(element);
  if (!control || textOf(control, 2) !== '' || on.isHidden(view, element)) return;
  const paintings = on.paintingsIn(view, element).filter(({ use }) => use === 'icon');
  if (paintings.length === 0) return;
  into.look('seen', element.number);
  const { ground } = surroundingsOf(view, element);
  const best = paintings
    .map((painting) => ({ painting, ratio: contrastRatio(compositeOver(painting.color, ground), ground) }))
    .reduce((a, b) => (b.ratio > a.ratio ? b : a));
  if (best.ratio >= RATIOS.nonText) return;
  const { property } = best.painting;
  const ink = hexOf(compositeOver(best.painting.color, ground));
  into.note({
    kind: 'seen',
    level: 'fails',
    cause: ['icon', homeKey(best.painting), ink, hexOf(ground)].join('|'),
    what: message('proof.icon'),
    name: nameTold(control),
    basis: message('proof.only-thing-says-what', { ink, ground: hexOf(ground) }),
    figure: best.ratio,
    needed: RATIOS.nonText,
    unit: 'ratio',
    place: placeAt(at, '', property),
    mend: { kind: 'recolour', property, ink, grounds: [hexOf(ground)], job: 'icon' },
  });
}

function lookAtCaret(at: Looked): void {
  const { on, element, view, into } = at;
  const caret = on.paintingsIn(view, element).find(({ property }) => property === 'caret-color');
  if (!caret || on.isHidden(view, element)) return;
  into.look('seen', element.number);
  const { ground } = surroundingsOf(view, element);
  const ink = compositeOver(caret.color, ground);
  const ratio = contrastRatio(ink, ground);
  if (ratio >= RATIOS.nonText) return;
  into.note({
    kind: 'seen',
    level: 'fails',
    cause: ['caret', homeKey(caret), hexOf(ink), hexOf(ground)].join('|'),
    what: message('proof.caret'),
    name: nameTold(element),
    basis: message('proof.caret-basis', { ink: hexOf(ink), ground: hexOf(ground) }),
    figure: ratio,
    needed: RATIOS.nonText,
    unit: 'ratio',
    place: placeAt(at, '', 'caret-color'),
    mend: {
      kind: 'recolour',
      property: 'caret-color',
      ink: hexOf(ink),
      grounds: [hexOf(ground)],
      job: 'caret',
    },
  });
}

function lookAtThumb(at: Looked): void {
  const { on, element, view, into, state } = at;
  if (state !== 'rest') return;
  const paintings = on.paintingsIn(view, element);
  const thumbs = paintings.filter(
    ({ pseudo, property, index }) =>
      pseudo === '-webkit-scrollbar-thumb' || (property === 'scrollbar-color' && index === 0),
  );
  for (const thumb of thumbs) {
    const track = paintings.find(
      ({ pseudo, property, index }) =>
        property === thumb.property &&
        (property === 'scrollbar-color' ? index === 1 : pseudo === '-webkit-scrollbar-track'),
    );
    const { ground } = surroundingsOf(view, element);
    const under = track ? compositeOver(track.color, ground) : ground;
    const ink = compositeOver(thumb.color, under);
    const ratio = contrastRatio(ink, under);
    into.look('seen', element.number);
    if (ratio >= RATIOS.nonText) continue;
    into.note({
      kind: 'seen',
      level: 'fails',
      cause: ['thumb', homeKey(thumb), hexOf(ink), hexOf(under)].join('|'),
      what: message('proof.scrollbar-thumb'),
      name: nameTold(element),
      basis: message('proof.its-track-what-lies', {
        ink: hexOf(ink),
        track: track ? 'yes' : 'no',
        under: hexOf(under),
      }),
      figure: ratio,
      needed: RATIOS.nonText,
      unit: 'ratio',
      place: placeAt(at, thumb.pseudo, thumb.property),
      mend: {
        kind: 'recolour',
        property: thumb.property,
        ink: hexOf(ink),
        grounds: [hexOf(under)],
        job: 'thumb',
        // One property says both, by the standard (CSS Scrollbars 1 §2).
        ...(thumb.property === 'scrollbar-color' ? { beside: track ? hexOf(track.color) : 'transparent' } : {}),
      },
    });
  }
}

/** Something has to show that an element has the focus. Source: WCAG 2.2, 2.4.7. */
function lookAtFocus(at: Looked): void {
  const { on, element, view, into, state } = at;
  if (state !== 'focus' || !isFocusable(element) || element.localName === 'iframe') return;
  if (element.attributes.get('tabindex') === '-1' || on.isHidden(view, element)) return;
  into.look('seen', element.number);
  const difference = differsIn(on, view, element);
  if (difference.kind === 'none') {
    const decided = view.style(element).ranked('outline-style')[0];
    into.note({
      kind: 'seen',
      level: 'fails',
      cause: [
        'no focus',
        decided?.block.rule
          ? homeKey({ decided, style: view.style(element), property: 'outline-style' })
          : alikeKey(element),
      ].join('|'),
      what: message('proof.nothing-shows-focus'),
      name: nameTold(element),
      basis: message('proof.with-focus-keyboard-looks'),
      figure: null,
      needed: null,
      unit: 'none',
      place: placeAt(at, '', 'outline-color'),
      mend: { kind: 'ring' },
    });
    return;
  }
  if (difference.kind !== 'forced away') return;
  into.note({
    kind: 'eyes',
    level: 'look',
    cause: ['forced focus', alikeKey(element)].join('|'),
    what: message('proof.forced-colours-nothing-shows'),
    name: nameTold(element),
    basis: message('proof.only-tells-which-forced', { words: difference.words }),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, '', 'outline-color'),
    mend: {
      kind: 'set',
      values: {
        'outline-style': { kind: 'literal', css: 'solid' },
        'outline-width': { kind: 'literal', css: '2px' },
        'outline-color': { kind: 'literal', css: 'transparent' },
      },
      label: message('proof.clear-outline-which-forced'),
    },
  });
}

function controlAround(element: ElementNode): ElementNode | null {
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const kind = kindOf(node);
    if (kind === 'button' || kind === 'link') return node;
  }
  return null;
}
