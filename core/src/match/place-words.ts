import { distinct, message, type Message } from '../message/message.js';
import type { CensusState } from '../census/census-states.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { nameTold } from '../selectors/describe-element.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import type { Job } from './job.js';

/** Names by which makers of sheets say a warning (common practice). */
const WARNING_NAMES = /(?:^|[-_])(?:error|danger|invalid|sale|urgent|fail(?:ed|ure)?)(?:$|[-_])/i;

/** Whether an element says a warning or an error: by its state, or a name on it or its parent. */
export function saysWarning(element: ElementNode, state: CensusState): boolean {
  if (state === 'invalid') return true;
  return lineageOf(element)
    .slice(-2)
    .some((node) => node.classes.some((name) => WARNING_NAMES.test(name)));
}

/** OKLCH hues of a warning red, degrees, and the chroma from which it says one in running text (common practice). */
const RED_HUES = [12, 40] as const;
const RED_CHROMA = 0.1;

/** Whether a text or the edge of a control is of the red that says a warning by itself. */
export function isWarningRed(job: Job, color: Color): boolean {
  if (job !== 'text' && job !== 'entry' && job !== 'frame') return false;
  const [, chroma, hue] = channelsIn(color, 'oklch');
  return chroma >= RED_CHROMA && hue >= RED_HUES[0] && hue <= RED_HUES[1];
}

/** Jobs that say already which pseudo-element is meant. */
const SAYS_PSEUDO: ReadonlySet<Job> = new Set<Job>(['placeholder', 'icon', 'highlight', 'selected', 'thumb', 'track']);

/** What a row paints: `fill of Apply, Hold my place and 2 more`. */
export function paintsMessage(
  job: Job,
  places: readonly { readonly node: ElementNode; readonly pseudo: string }[],
): Message {
  const names = distinct(
    // The job says already what the pseudo-element is.
    places.map(({ node, pseudo }) =>
      SAYS_PSEUDO.has(job) && node.parent === null
        ? message('match.everywhere')
        : nameTold(node, SAYS_PSEUDO.has(job) ? '' : pseudo),
    ),
  );
  return message(`match.paints.${job}`, { shown: names.slice(0, 2), more: Math.max(0, names.length - 2) });
}
