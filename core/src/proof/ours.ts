import { message } from '../message/message.js';
import type { Painting } from '../census/paintings.js';
import { hexOf } from '../color/read-notation.js';
import { nameTold } from '../selectors/describe-element.js';
import { jobOf, jobMessage } from '../match/job.js';
import { channelsIn } from '../values/convert-color.js';
import { isOfBrowser, isOfVeneer, placeAt, sameIn, type Looked } from './looked.js';

/** Colours that are none of the brand's, over everything that is painted; those that are nearly one of it are to be looked at. */
export function lookAtStrays(at: Looked): void {
  const { on, element, view, state, into } = at;
  if (!on.known.hasPalette) return;
  const rest = state === 'rest' ? [] : on.paintingsIn(on.rest, element);
  for (const painting of on.paintingsIn(view, element)) {
    const { color, pseudo, property } = painting;
    const before = state === 'rest' ? null : sameIn(rest, painting);
    if (property === 'text-decoration-color' && followsItsText(painting)) continue;
    // What is the theme's in a state alone is told there.
    if (state !== 'rest' && (before === null || hexOf(before.color) === hexOf(color))) continue;
    if (state !== 'rest' && before && (on.known.isBrand(before.color) || isOfVeneer(before))) continue;
    if (state !== 'rest' && isOfBrowser(painting) && state !== 'visited') continue;
    into.look('ours', element.number);
    if (on.known.isOurs(on.page, element, color) || on.known.isBound(painting) || isPlainShadow(painting)) continue;
    const { kind, nearest, deltaE } = on.known.standingOf(color);
    const hex = hexOf({ ...color, alpha: 1 });
    const job = jobOf(view, element, painting);
    const former = on.known.formerOf(color);
    if (former) {
      into.note({
        kind: 'ours',
        level: 'fails',
        cause: `former|${former.css}|${job}`,
        what: message('proof.left-old', { css: former.css, job: jobMessage(job) }),
        name: nameTold(element, pseudo),
        basis: message('proof.e2000-from-which-named', {
          hex,
          deltaE: former.deltaE.toFixed(1),
          css: former.css,
          nearest,
          deltaE2: deltaE.toFixed(1),
        }),
        figure: former.deltaE,
        needed: null,
        unit: 'deltaE',
        place: placeAt(at, pseudo, property, painting.index),
        mend: { kind: 'nearest', property, hex, job },
      });
      continue;
    }
    into.note({
      kind: 'ours',
      level: kind === 'near' ? 'look' : 'fails',
      cause: hex,
      what: message('proof.not-ours', { hex, kind, nearest, job: jobMessage(job) }),
      name: nameTold(element, pseudo),
      basis: message('proof.no-brand-colour-nearest', { nearest, deltaE: deltaE.toFixed(1) }),
      figure: deltaE,
      needed: null,
      unit: 'deltaE',
      place: placeAt(at, pseudo, property, painting.index),
      mend: { kind: 'nearest', property, hex, job },
    });
  }
}

/** OKLCH chroma under which a see-through shadow is only dark (common practice). */
const COLOURLESS = 0.02;

/** A see-through shadow without a colour of its own darkens whatever lies under it. */
export function isPlainShadow({ use, color }: Painting): boolean {
  return use === 'shadow' && (color.alpha ?? 0) < 1 && channelsIn(color, 'oklch')[1] < COLOURLESS;
}

/** A line under a text in the text's own colour is told with that. */
function followsItsText({ color, style }: Painting): boolean {
  const text = style.color('color');
  return text !== null && hexOf(text) === hexOf(color);
}
