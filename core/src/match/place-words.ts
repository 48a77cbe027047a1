import type { CensusState } from '../census/census-states.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { plainName } from '../selectors/describe-element.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { JOB_WORDS, type Job } from './job.js';

/** Names by which makers of sheets say a warning (common practice). */
const WARNING_NAMES = /(?:^|[-_])(?:error|danger|warn(?:ing)?|alert|invalid|sale|urgent|fail(?:ed|ure)?)(?:$|[-_])/i;

/** Whether an element says a warning or an error: by its state, its role, or a name on it or its parent. */
export function saysWarning(element: ElementNode, state: CensusState): boolean {
  if (state === 'invalid') return true;
  return lineageOf(element)
    .slice(-2)
    .some((node) => node.attributes.get('role') === 'alert' || node.classes.some((name) => WARNING_NAMES.test(name)));
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

/** What a row paints in words: `fill of an action: Apply, Hold my place and 2 more`. */
export function paintsWords(
  job: Job,
  places: readonly { readonly node: ElementNode; readonly pseudo: string }[],
): string {
  const names = [...new Set(places.map(({ node, pseudo }) => plainName(node, pseudo)))];
  const shown = names.slice(0, 2).join(', ');
  const more = names.length - 2;
  return `${JOB_WORDS[job]}: ${shown}${more > 0 ? ` and ${more} more` : ''}`;
}
