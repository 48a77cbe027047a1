import { inner, message, type Message } from '../message/message.js';
import { stateTold } from '../grid/rows.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Override, OverrideState } from '../veneer/override.js';
import { valueTold, type OverrideValue } from '../veneer/override-value.js';
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
  const of = saidOf(state, others);
  const isShade = proposed !== override.value;
  // What was hidden comes back as it was where no shade of ours tells the state.
  const value: OverrideValue = kind === 'left behind' || isShade ? proposed : { kind: 'literal', css: before };
  const wish = wishOf(override, width, {
    state,
    value,
    ...(others.has(state) ? { parent: others.get(state)?.element.number ?? null } : {}),
  });
  const told = { ...of, shown, count: shown.length - 1, first: shown[0], property: override.property };
  return {
    standing: 'look',
    text: kind === 'hidden' ? message('verdict.hides-state', of) : message('verdict.leaves-state', told),
    basis: kind === 'hidden' ? message('verdict.hides-state-basis', told) : message('verdict.leaves-state-basis', told),
    spots: spots.slice(0, MOST_SPOTS),
    state,
    repair: {
      label: message('verdict.mend-state', { ...of, value: value === proposed ? valueTold(site, value) : before }),
      wishes: [wish],
    },
  };
}

/** The state that is meant, of the target itself or of another element, for the words of a message. */
function saidOf(
  state: OverrideState,
  others: Others,
): Readonly<Record<'of' | 'state' | 'stateName' | 'other', string | Message>> {
  const other = others.get(state)?.words ?? null;
  return {
    of: other === null ? 'own' : 'other',
    state: inner(stateTold(state)),
    stateName: stateTold(state),
    other: other ?? '',
  };
}

/** What lies over a fill or a text, by what it comes from. */
const LAID: Readonly<Record<string, string>> = {
  'background-image': 'image',
  'box-shadow': 'shadow',
  opacity: 'opacity',
  'text-shadow': 'letters',
};

/** What is said of a state that comes in through another property, with the offer to keep that one as at rest. */
function laidOverFinding(
  override: Override,
  { state, property, before, shown, spots }: Pick<StateLook, 'state' | 'property' | 'before' | 'shown' | 'spots'>,
  others: Others,
  width: number,
): Finding {
  const told = {
    ...saidOf(state, others),
    property,
    shown,
    before,
    laid: message('verdict.laid', { by: LAID[property] ?? 'other', property }),
  };
  return {
    standing: 'look',
    text: message('verdict.laid-over', told),
    basis: message('verdict.laid-over-basis', told),
    spots: spots.slice(0, MOST_SPOTS),
    state,
    repair: {
      label: message('verdict.mend-laid-over', told),
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
      text: message('verdict.fill-covered'),
      basis: message('plain', { text: image.text }),
      repair: {
        label: message('verdict.clear'),
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
      text: message('verdict.part-passed-over', { property }),
      basis: message('verdict.part-passed-over-basis', { property, value: style.resolved(property) }),
      repair: {
        label: message('plain', { text: `${property}: auto` }),
        wishes: [wishOf(override, width, { property, pseudo: '', value: { kind: 'literal', css: 'auto' } })],
      },
    }));
}
