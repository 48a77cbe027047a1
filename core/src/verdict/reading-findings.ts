import { distinct, inner, message, sentences, type Message } from '../message/message.js';
import { compositeOver, contrastRatio } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { stateTold } from '../grid/rows.js';
import { wishOf } from '../veneer/wish-of.js';
import { settingsTold } from '../site/environments.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { nameTold } from '../selectors/describe-element.js';
import type { Color } from '../values/color.js';
import type { Override, Spot } from '../veneer/override.js';
import { colorOfValue, shadeOfValue, valueTold } from '../veneer/override-value.js';
import { MOST_SPOTS, type Finding, type Repair } from './finding.js';
import type { PlacedReading, ReadingTally } from './legibility.js';

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
  // What is judged in one state can be in doubt in another.
  const count = Math.max(1, judged.size - doubtful.length);
  const basis = message('verdict.worst-of-all', {
    place: placeWords(site, worst),
    ink: hexOf(worst.ink),
    ground: hexOf(worst.ground),
    ratio: worst.ratio.toFixed(2),
    wanted: worst.wanted,
    against: hasChains ? 'ancestors' : 'painted',
  });
  const ratio = short(worst.ratio);
  if (failing.length === 0)
    return [
      {
        standing: 'holds',
        text: message(`verdict.reads.${kind}`, { ratio, count }),
        basis,
        spots: [worst.spot],
      },
    ];
  const repair = override.property === 'color' && kind === 'text' ? passingShade(site, override, failing, width) : null;
  return [
    {
      standing: 'fails',
      text: message(`verdict.reads-not.${kind}`, { ratio, count, failing: failing.length }),
      basis:
        already > 0
          ? sentences(
              basis,
              message('verdict.failed-before', { already, all: already === failing.length ? 'yes' : 'no' }),
            )
          : basis,
      spots: uniqueSpots(failing).slice(0, MOST_SPOTS),
      ...(repair ? { repair } : {}),
    },
  ];
}

function doubtFinding({ kind, doubtful }: ReadingTally): Finding[] {
  if (doubtful.length === 0) return [];
  const reasons = distinct(doubtful.map(({ doubt }) => doubt));
  const under = reasons.every(({ code }) => code === 'ground.picture-lies-under') ? 'over-picture' : 'unreckoned';
  return [
    {
      standing: 'look',
      text: message(`verdict.doubt.${under}.${kind}`, { count: doubtful.length }),
      basis: message(`verdict.doubt-basis.${under}`, {
        reasons: reasons.map((own, i) => (i === 0 ? own : inner(own))),
      }),
      spots: doubtful.map(({ spot }) => spot).slice(0, MOST_SPOTS),
    },
  ];
}

function placeWords(site: SiteModel, { spot, state, setting }: PlacedReading): Message {
  const page = pageOf(site, spot.pageId);
  const name = site.source.pages.find(({ id }) => id === spot.pageId)?.name ?? '';
  return message('verdict.place', {
    element: nameTold(elementOf(page, spot.element), ''),
    page: name,
    state: inner(stateTold(state)),
    where: settingsTold([setting]),
  });
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
        return {
          label: valueTold(site, value),
          wishes: [wishOf(override, width, { value })],
        };
    }
  }
  return null;
}

function short(ratio: number): string {
  return (Math.floor(ratio * 10) / 10).toFixed(1);
}
