import { STATE_WORDS } from '../grid/rows.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Override } from '../veneer/override.js';
import { valueWords, type OverrideValue } from '../veneer/override-value.js';
import { MOST_SPOTS, type Finding } from './finding.js';
import type { SiteModel } from '../site/site-model.js';
import type { Others } from './others.js';
import type { StateLook } from './state-looks.js';
import { proposedForState } from '../plan/state-steps.js';
import { wishOf } from '../veneer/wish-of.js';

/** What is said of a state that an override covers or leaves behind, with the value that mends it. @param others elements whose states tell on the target. */
export function lookFinding(
  site: SiteModel,
  override: Override,
  { state, kind, property, before, shown, spots }: StateLook,
  others: Others,
  width: number,
): Finding {
  if (kind === 'laid over') return laidOverFinding(override, { state, property, before, shown, spots }, others, width);
  const proposed = proposedForState(site, override.value, state);
  const said = others.get(state)?.words ?? '';
  const word = said === '' ? STATE_WORDS[state].toLowerCase() : `where ${said}`;
  const isShade = proposed !== override.value;
  // What was hidden comes back as it was where no shade of ours tells the state.
  const value: OverrideValue = kind === 'left behind' || isShade ? proposed : { kind: 'literal', css: before };
  const wish = wishOf(override, width, {
    state,
    value,
    ...(others.has(state) ? { parent: others.get(state)?.element.number ?? null } : {}),
  });
  const when = said === '' ? `In state ${word}` : capital(word);
  const more = shown.length > 1 ? ` and ${shown.length - 1} more` : '';
  const left = said === '' ? `${word} still ${shown[0]}${more}` : `still ${shown[0]}${more} ${word}`;
  const hidden = said === '' ? `hides ${word}` : `hides that ${said}`;
  return {
    standing: 'look',
    text: kind === 'hidden' ? hidden : left,
    basis:
      kind === 'hidden'
        ? `${when} the page showed ${shown.join(', ')}; the rule for rest is now stronger, so the state looks as at rest.`
        : `${when} declarations of the page still decide ${override.property}: ${shown.join(', ')}.`,
    spots: spots.slice(0, MOST_SPOTS),
    state,
    repair: {
      label: `${said === '' ? STATE_WORDS[state] : capital(word)}: ${value === proposed ? valueWords(site, value) : before}`,
      wishes: [wish],
    },
  };
}

const LAID_WORDS: Readonly<Record<string, string>> = {
  'background-image': 'lays a gradient or picture over it',
  'box-shadow': 'lays a shadow over it',
  opacity: 'dims it',
  'text-shadow': 'shadows it',
};

/** What is said of a state that comes in through another property, with the offer to keep that one as at rest. */
function laidOverFinding(
  override: Override,
  { state, property, before, shown, spots }: Pick<StateLook, 'state' | 'property' | 'before' | 'shown' | 'spots'>,
  others: Others,
  width: number,
): Finding {
  const said = others.get(state)?.words ?? '';
  const word = said === '' ? STATE_WORDS[state] : `Where ${said}`;
  const laid = LAID_WORDS[property] ?? `changes ${property}`;
  return {
    standing: 'look',
    text: said === '' ? `${word.toLowerCase()} ${laid}` : `${laid} where ${said}`,
    basis: `${said === '' ? `In state ${word.toLowerCase()}` : word} declarations of the page set ${property}: ${shown.join(' and ')}; at rest it is ${before}.`,
    spots: spots.slice(0, MOST_SPOTS),
    state,
    repair: {
      label: `${word}: ${property} as at rest`,
      wishes: [
        wishOf(override, width, {
          state,
          property,
          value: { kind: 'literal', css: before },
          ...(others.has(state) ? { parent: others.get(state)?.element.number ?? null } : {}),
        }),
      ],
    },
  };
}

/** A gradient or picture that lies over the plain fill, with the offer to clear it. */
export function clearingOf(style: ElementStyle, override: Override, width: number): Finding[] {
  const image = style.computed('background-image');
  if (image.kind !== 'text' || image.text === 'none') return [];
  return [
    {
      standing: 'look',
      text: 'a gradient or picture covers this fill',
      basis: image.text,
      repair: {
        label: 'Clear it',
        wishes: [wishOf(override, width, { property: 'background-image', value: { kind: 'literal', css: 'none' } })],
      },
    },
  ];
}

/**
 * A standard property set on the box, for which engines that have scrollbar parts pass over them.
 * Source: CSS Scrollbars 1 §2; that the parts give way is common practice since Chromium 121.
 */
export function partsPassedOver(style: ElementStyle, override: Override, width: number): Finding[] {
  return ['scrollbar-color', 'scrollbar-width']
    .filter((property) => style.resolved(property) !== 'auto')
    .map((property): Finding => ({
      standing: 'fails',
      text: `${property} passes over this part`,
      basis: `The page sets ${property}: ${style.resolved(property)}. Where it is set, an engine paints the scrollbar by it and leaves the ::-webkit- parts alone.`,
      repair: {
        label: `${property}: auto`,
        wishes: [wishOf(override, width, { property, pseudo: '', value: { kind: 'literal', css: 'auto' } })],
      },
    }));
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
