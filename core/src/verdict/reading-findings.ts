import { compositeOver, contrastRatio } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { STATE_WORDS } from '../grid/rows.js';
import { wishOf } from '../veneer/wish-of.js';
import { settingWords } from '../site/environments.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { plainName } from '../selectors/describe-element.js';
import type { Color } from '../values/color.js';
import type { Override, Spot } from '../veneer/override.js';
import { colorOfValue, shadeOfValue, valueWords } from '../veneer/override-value.js';
import { MOST_SPOTS, type Finding, type Repair } from './finding.js';
import type { PlacedReading, ReadKind, ReadingTally } from './legibility.js';

/** What one and several of a kind are called, and what they fail at. */
const WORDS: Readonly<Record<ReadKind, readonly [one: string, many: string, fail: string]>> = {
  text: ['text', 'texts', 'cannot be read'],
  placeholder: ['placeholder', 'placeholders', 'cannot be read'],
  'selected text': ['selected text', 'selected texts', 'cannot be read'],
  sign: ['sign', 'signs', 'cannot be seen'],
  edge: ['edge', 'edges', 'cannot be seen'],
  ring: ['focus ring', 'focus rings', 'cannot be seen'],
};

/** What is said of all that a change tells on, kind by kind: how many fail, and the worst of all matches. */
export function readingFindings(
  site: SiteModel,
  override: Override,
  tallies: readonly ReadingTally[],
  width: number,
): Finding[] {
  return tallies.flatMap((tally) => [...judgedFinding(site, override, tally, width), ...doubtFinding(tally)]);
}

function judgedFinding(
  site: SiteModel,
  override: Override,
  { kind, judged, failing, already, worst, doubtful, hasChains }: ReadingTally,
  width: number,
): Finding[] {
  if (!worst) return [];
  const [one, many, fail] = WORDS[kind];
  const count = judged.size - doubtful.length;
  const noun = count === 1 ? one : many;
  const basis = `Worst of all matches: ${placeWords(site, worst)}, ${hexOf(worst.ink)} on ${hexOf(worst.ground)}, ${worst.ratio.toFixed(2)} : 1 where WCAG 2.2 asks ${worst.wanted}. ${hasChains ? 'Some pages were not measured at this width: there it is held against the fills of the ancestors, not against what is painted under its lines.' : 'Held against what is painted under the lines.'}`;
  if (failing.length === 0)
    return [
      {
        standing: 'holds',
        text:
          count > 1
            ? `${short(worst.ratio)} : 1 at worst of ${count} ${noun}`
            : `${short(worst.ratio)} : 1${kind === 'text' ? '' : `, ${noun}`}`,
        basis,
        spots: [worst.spot],
      },
    ];
  const repair = override.property === 'color' && kind === 'text' ? passingShade(site, override, failing, width) : null;
  return [
    {
      standing: 'fails',
      text:
        count === 1
          ? `${one} ${fail}, ${short(worst.ratio)} : 1`
          : `${failing.length} of ${count} ${noun} ${fail}, worst ${short(worst.ratio)} : 1`,
      basis: `${basis}${already > 0 ? ` ${already === failing.length ? 'All of them' : `${already} of them`} failed before this override too.` : ''}`,
      spots: uniqueSpots(failing).slice(0, MOST_SPOTS),
      ...(repair ? { repair } : {}),
    },
  ];
}

function doubtFinding({ kind, doubtful }: ReadingTally): Finding[] {
  if (doubtful.length === 0) return [];
  const [one, many] = WORDS[kind];
  const reasons = [...new Set(doubtful.map(({ doubt }) => doubt))];
  const isPicture = reasons.every((reason) => reason.includes('picture'));
  return [
    {
      standing: 'look',
      text: `${doubtful.length} ${doubtful.length === 1 ? one : many} over ${isPicture ? (doubtful.length === 1 ? 'a picture' : 'pictures') : 'what cannot be reckoned'}`,
      basis: `${reasons.join('; ')}. ${isPicture ? 'The strip reads the contrast of each state from the pixels under the lines of the one chosen.' : 'The figure is left out.'}`,
      spots: doubtful.map(({ spot }) => spot).slice(0, MOST_SPOTS),
    },
  ];
}

function placeWords(site: SiteModel, { spot, state, setting }: PlacedReading): string {
  const page = pageOf(site, spot.pageId);
  const name = site.source.pages.find(({ id }) => id === spot.pageId)?.name ?? '';
  return `\u201c${plainName(elementOf(page, spot.element), '')}\u201d on ${name}, ${STATE_WORDS[state].toLowerCase()}, ${settingWords([setting])}`;
}

function uniqueSpots(readings: readonly PlacedReading[]): Spot[] {
  return [...new Map(readings.map(({ spot }) => [`${spot.pageId}/${spot.element}`, spot])).values()];
}

/** Points of lightness between the shades that are tried, and the farthest. */
const SHADE_STEP = 6;
const FARTHEST_SHADE = 60;

/** The nearest shade of an override's text colour that is read on every ground where it fails now; `null` where none is. */
function passingShade(
  site: SiteModel,
  override: Override,
  failing: readonly PlacedReading[],
  width: number,
): Repair | null {
  const passes = (color: Color): boolean =>
    failing.every(({ ground, wanted }) => contrastRatio(compositeOver(color, ground), ground) >= wanted);
  for (let step = SHADE_STEP; step <= FARTHEST_SHADE; step += SHADE_STEP) {
    for (const steps of [-step, step]) {
      const value = shadeOfValue(override.value, steps, site.palette);
      const color = value && colorOfValue(value, site.palette);
      if (color && passes(color))
        return { label: valueWords(site, value), wishes: [wishOf(override, width, { value })] };
    }
  }
  return null;
}

function short(ratio: number): string {
  return (Math.floor(ratio * 10) / 10).toFixed(1);
}
