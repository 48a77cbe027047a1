import { message, type Message } from '../message/message.js';
import { readColorNotation } from '../color/read-notation.js';
import { rgb8, type Color } from '../values/color.js';
import { srgbChannels } from '../color/contrast.js';
import { colorOfCss } from '../veneer/palette.js';
import type { SettingField, SettingNotation } from './settings-sheet.js';

/** Longest value a field holds, UTF-16 units. */
export const LONGEST_SETTING = 200;

const HEX = /^#(?:[0-9a-f]{3}|[0-9a-f]{6})$/i;
const BARE_HEX = /^(?:[0-9a-f]{3}|[0-9a-f]{6})$/i;
const LENGTH = /^\d{1,3}(?:\.\d{1,3})?(?: ?px)?$/i;

/** The notation a value is written in; `null` for none that is known. Three or six digits alone are hex. */
export function notationOf(text: string): SettingNotation | null {
  const value = text.trim();
  if (HEX.test(value)) return 'hex';
  if (BARE_HEX.test(value)) return 'bare-hex';
  if (threeNumbers(value)) return 'three-numbers';
  return LENGTH.test(value) ? 'px' : null;
}

/** Colour a field shows for a value; `null` for a length, and for what is no colour in its notation. */
export function colorOfSetting(
  { notation, presets }: Pick<SettingField, 'notation' | 'presets'>,
  text: string,
): Color | null {
  const value = text.trim();
  switch (notation) {
    case 'hex':
      return HEX.test(value) ? colorOfCss(value) : null;
    case 'bare-hex':
      return BARE_HEX.test(value) ? colorOfCss(`#${value}`) : null;
    case 'three-numbers':
      return threeNumbers(value);
    case 'preset': {
      const preset = presets.find(({ name }) => name.toLowerCase() === value.toLowerCase());
      return preset ? colorOfCss(preset.css) : null;
    }
    case 'px':
      return null;
  }
}

/** Why a value cannot stand in a field; `null` when it can. */
export function settingProblem(field: Pick<SettingField, 'notation' | 'presets'>, text: string): Message | null {
  if (text.length > LONGEST_SETTING) return message('file.longer-than', { bound: LONGEST_SETTING });
  switch (field.notation) {
    case 'hex':
      return colorOfSetting(field, text) ? null : message('settings.no-hex-colour-such');
    case 'bare-hex':
      return colorOfSetting(field, text) ? null : message('settings.no-hex-colour-without');
    case 'three-numbers':
      return colorOfSetting(field, text) ? null : message('settings.not-three-numbers-from');
    case 'preset':
      return colorOfSetting(field, text) ? null : message('settings.none-presets');
    case 'px':
      return LENGTH.test(text.trim()) ? null : message('settings.no-length-px-such');
  }
}

/** A colour as a field wants it, in the maker's own way of writing where that is known. Channels are rounded to eight bits; alpha has no place there. */
export function writtenSetting(
  { notation, present }: Pick<SettingField, 'notation' | 'present'>,
  color: Color,
): string {
  const channels = srgbChannels(color).map((channel) => Math.round(channel * 255));
  if (notation === 'three-numbers') {
    const between = /\d([^\d]+)\d/.exec(present)?.[1] ?? ', ';
    return channels.join(between);
  }
  const digits = channels.map((channel) => channel.toString(16).padStart(2, '0')).join('');
  const cased = /[A-F]/.test(present) ? digits.toUpperCase() : digits;
  return notation === 'bare-hex' ? cased : `#${cased}`;
}

/** A length as a field wants it: with its unit where it has one there. */
export function writtenLength({ present }: Pick<SettingField, 'present'>, css: string): string {
  const number = css.replace('px', '');
  return present === '' || /px/i.test(present) ? `${number}px` : number;
}

function threeNumbers(text: string): Color | null {
  const [reading] = /^[^#%a-z]+$/i.test(text) && /\d[^\d]+\d/.test(text) ? readColorNotation(text) : [];
  if (!reading) return null;
  const [r, g, b] = srgbChannels(reading.color).map((channel) => Math.round(channel * 255));
  return rgb8(r, g, b);
}
