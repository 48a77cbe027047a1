import type { CensusState } from '../census/census-states.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { plainName } from '../selectors/describe-element.js';
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

/** Short words for jobs before what they are of: `fill of Apply`. */
const OF_WORDS: Readonly<Record<Job, string>> = {
  ground: 'fill of',
  action: 'fill of',
  field: 'fill of',
  text: 'text of',
  heading: 'heading',
  link: 'link',
  label: 'label of',
  entry: 'entry in',
  placeholder: 'placeholder in',
  line: 'edge of',
  frame: 'edge of',
  ring: 'ring of',
  icon: 'icon of',
  caret: 'caret in',
  accent: 'native accent of',
  shadow: 'shadow of',
  highlight: 'highlight of selected text,',
  selected: 'selected text,',
  thumb: 'scrollbar thumb,',
  track: 'scrollbar track,',
};

/** Jobs that say already which pseudo-element is meant. */
const SAYS_PSEUDO: ReadonlySet<Job> = new Set<Job>(['placeholder', 'icon', 'highlight', 'selected', 'thumb', 'track']);

/** What a row paints in words: `fill of Apply, Hold my place and 2 more`. */
export function paintsWords(
  job: Job,
  places: readonly { readonly node: ElementNode; readonly pseudo: string }[],
): string {
  const names = [
    ...new Set(
      // The job says already what the pseudo-element is.
      places.map(({ node, pseudo }) =>
        SAYS_PSEUDO.has(job) && node.parent === null
          ? 'everywhere'
          : plainName(node, SAYS_PSEUDO.has(job) ? '' : pseudo),
      ),
    ),
  ];
  const shown = names.slice(0, 2).join(', ');
  const more = names.length - 2;
  return `${OF_WORDS[job]} ${shown}${more > 0 ? ` and ${more} more` : ''}`;
}
