import { distinct, message, type Message } from '../message/message.js';
import type { CensusState } from '../census/census-states.js';
import type { ElementNode } from '../dom/tree.js';
import { nameTold } from '../selectors/describe-element.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import type { Job } from './job.js';

/** Names by which makers of sheets say a warning (common practice). */
const WARNING_NAMES = /(?:^|[-_])(?:error|danger|invalid|sale|urgent|fail(?:ed|ure)?)(?:$|[-_])/i;

/** Whether an element says a warning or an error: by its state, or a name on it or its parent. */
export function saysWarning(element: ElementNode, state: CensusState): boolean {
  if (state === 'invalid') return true;
  let says = warning.get(element);
  if (says === undefined) {
    says = [element, element.flatParent].some(
      (node) => node?.classes.some((name) => WARNING_NAMES.test(name)) ?? false,
    );
    warning.set(element, says);
  }
  return says;
}

const warning = new WeakMap<ElementNode, boolean>();

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

const EVERYWHERE = message('match.everywhere');

/** What a row paints: `fill of Apply, Hold my place and 2 more`. */
export function paintsMessage(
  job: Job,
  places: readonly { readonly node: ElementNode; readonly pseudo: string }[],
): Message {
  // The job says already what the pseudo-element is.
  const told = places.map(({ node, pseudo }) =>
    SAYS_PSEUDO.has(job) && node.parent === null ? EVERYWHERE : nameTold(node, SAYS_PSEUDO.has(job) ? '' : pseudo),
  );
  // Most places are the same few elements in several states.
  const names = distinct([...new Set(told)]);
  return message(`match.paints.${job}`, { shown: names.slice(0, 2), more: Math.max(0, names.length - 2) });
}
