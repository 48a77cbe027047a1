import { hexOf } from '../color/read-notation.js';
import { STATE_WORDS } from '../grid/rows.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Color } from '../values/color.js';
import type { Override, OverrideState } from '../veneer/override.js';
import { shadeOfValue, valueWords, type OverrideValue } from '../veneer/override-value.js';
import type { Finding } from './finding.js';
import type { SiteModel } from './site-model.js';
import { wishOf } from './wish-of.js';

/** Points of lightness by which a state differs from rest, where nothing else is said. */
const STATE_STEPS: Readonly<Partial<Record<OverrideState, number>>> = { hover: -12, focus: -6, active: -18, 'parent-hover': -12 };

/** Value proposed for a state from the one at rest: a shade that shows; at rest's own where the state has no step. */
export function proposedForState(site: SiteModel, value: OverrideValue, state: OverrideState): OverrideValue {
  const steps = STATE_STEPS[state] ?? 0;
  return steps === 0 ? value : shadeOfValue(value, steps, site.palette) ?? value;
}

/** A rest rule now also covers what the theme showed in a state. */
export function hiddenStateFinding(site: SiteModel, override: Override, state: OverrideState, before: string, width: number): Finding {
  const value = proposedForState(site, override.value, state);
  const isShade = value !== override.value;
  const wish = wishOf(override, width, { state, value: isShade ? value : { kind: 'literal', css: before } });
  return {
    standing: 'look', text: `hides ${STATE_WORDS[state].toLowerCase()}`,
    basis: `In state ${STATE_WORDS[state].toLowerCase()} the page showed ${before}; the rule for rest is now stronger, so the state looks as at rest.`,
    repair: { label: `${STATE_WORDS[state]}: ${isShade ? valueWords(site, value) : before}`, wishes: [wish] },
  };
}

/** The theme still decides a state, in a colour that is no brand colour. */
export function leftBehindFinding(site: SiteModel, override: Override, state: OverrideState, color: Color, width: number): Finding {
  const value = proposedForState(site, override.value, state);
  return {
    standing: 'look', text: `${STATE_WORDS[state].toLowerCase()} still ${hexOf(color)}`,
    basis: `In state ${STATE_WORDS[state].toLowerCase()} a declaration of the page still decides ${override.property}.`,
    repair: { label: `${STATE_WORDS[state]}: ${valueWords(site, value)}`, wishes: [wishOf(override, width, { state, value })] },
  };
}

/** A gradient or picture that lies over the plain fill, with the offer to clear it. */
export function clearingOf(style: ElementStyle, override: Override, width: number): Finding[] {
  const image = style.computed('background-image');
  if (image.kind !== 'text' || image.text === 'none') return [];
  return [{
    standing: 'look', text: 'a gradient or picture covers this fill', basis: image.text,
    repair: { label: 'Clear it', wishes: [wishOf(override, width, { property: 'background-image', value: { kind: 'literal', css: 'none' } })] },
  }];
}

/**
 * A standard property set on the box, for which engines that have scrollbar parts pass over them.
 * Source: CSS Scrollbars 1 §2; that the parts give way is common practice since Chromium 121.
 */
export function partsPassedOver(style: ElementStyle, override: Override, width: number): Finding[] {
  return ['scrollbar-color', 'scrollbar-width'].filter((property) => style.resolved(property) !== 'auto').map((property): Finding => ({
    standing: 'fails', text: `${property} passes over this part`,
    basis: `The page sets ${property}: ${style.resolved(property)}. Where it is set, an engine paints the scrollbar by it and leaves the ::-webkit- parts alone.`,
    repair: { label: `${property}: auto`, wishes: [wishOf(override, width, { property, pseudo: '', value: { kind: 'literal', css: 'auto' } })] },
  }));
}
