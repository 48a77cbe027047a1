import { message, type Message } from '../message/message.js';
import { isPropertyValue } from '../properties/is-property-value.js';
import { wholenessProblem } from '../syntax/whole-text.js';

/** What of the brand's look is no colour. */
export const HOUSE_PARTS = ['corner', 'edge', 'shadow', 'text-family', 'heading-family'] as const;
export type HousePart = (typeof HOUSE_PARTS)[number];

/** The brand's corner radius, edge width, shadow and type families, each as CSS; what nobody settled is absent. */
export type HouseShape = Readonly<Partial<Record<HousePart, string>>>;

/** The property each is a value of. */
export const HOUSE_PROPERTIES: Readonly<Record<HousePart, string>> = {
  corner: 'border-radius',
  edge: 'border-width',
  shadow: 'box-shadow',
  'text-family': 'font-family',
  'heading-family': 'font-family',
};

/** What a part of the house shape is called. */
export function houseTold(part: HousePart): Message {
  return message(`house.${part}`);
}

/** A length in px, which means the same wherever it is used. */
const PIXELS = /^(?:0|\d{1,3}(?:\.\d{1,3})?px)$/;

/** Why a text is no value of a part of the house shape; `null` when it is one. */
export function houseProblem(part: HousePart, css: string): Message | null {
  const problem = wholenessProblem(css);
  if (problem !== null) return problem;
  if (part === 'corner' || part === 'edge') return PIXELS.test(css) ? null : message('css.no-length-px-such');
  if (/[{}]|\/\*|var\(|url\(/i.test(css) || !isPropertyValue(HOUSE_PROPERTIES[part], css))
    return part === 'shadow' ? message('css.no-shadow-such-as') : message('css.no-font-families');
  return null;
}

/** A part as it was typed, in the form it is kept: a bare number or one with a space is px. */
export function readHouse(part: HousePart, text: string): string {
  const css = text.trim();
  const number = part === 'corner' || part === 'edge' ? /^(\d{1,3}(?:\.\d{1,3})?) ?(?:px)?$/.exec(css) : null;
  if (!number) return css;
  return Number(number[1]) === 0 ? '0' : `${Number(number[1])}px`;
}
