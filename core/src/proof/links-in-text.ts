import { message } from '../message/message.js';
import { contrastRatio, compositeOver, RATIOS } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { isRunningLink } from '../reach/running-links.js';
import { nameTold } from '../selectors/describe-element.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { placeAt, type Looked } from './looked.js';

/** Longhands by which a link can be told from the text around it other than by its colour. */
const TELLING = [
  'font-weight',
  'font-style',
  'text-decoration-line',
  'background-color',
  'background-image',
  'font-size',
];

/**
 * A link in running text that colour alone tells from it needs 3 : 1 against that text, or another mark such as a line.
 * Source: WCAG 2.2, 1.4.1, techniques G183 and F73.
 */
export function lookAtRunningLink(at: Looked): void {
  const { on, element, view, state, into } = at;
  if ((state !== 'rest' && state !== 'visited') || !isRunningLink(element) || !element.flatParent) return;
  if (on.isHidden(view, element)) return;
  into.look('reads', element.number);
  const [link, around] = [view.style(element), view.style(element.flatParent)];
  if (drawsLine(link) || TELLING.some((longhand) => link.resolved(longhand) !== around.resolved(longhand))) return;
  const [ink, text] = [link.color('color'), around.color('color')];
  if (!ink || !text) return;
  const { ground } = surroundingsOf(view, element);
  const [shown, beside] = [compositeOver(ink, ground), compositeOver(text, ground)];
  const ratio = contrastRatio(shown, beside);
  if (ratio >= RATIOS.nonText) return;
  into.note({
    kind: 'reads',
    level: 'fails',
    cause: `told|${hexOf(shown)}|${hexOf(beside)}`,
    what: message('proof.told-from-its-text'),
    name: nameTold(element),
    basis: message('proof.beside-e-without-line', {
      shown: hexOf(shown),
      beside: hexOf(beside),
      deltaE2000: deltaE2000(shown, beside).toFixed(1),
    }),
    figure: ratio,
    needed: RATIOS.nonText,
    unit: 'ratio',
    place: placeAt({ ...at, state: 'rest' }, '', 'text-decoration-line'),
    mend: {
      kind: 'set',
      values: { 'text-decoration-line': { kind: 'literal', css: 'underline' } },
      label: message('proof.underlined-thin'),
    },
  });
}

function drawsLine(style: ElementStyle): boolean {
  return (
    style.resolved('border-bottom-width') !== '0px' && !/^(?:none|hidden)$/.test(style.resolved('border-bottom-style'))
  );
}
