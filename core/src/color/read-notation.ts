import type { Color } from '../values/color.js';
import { rgb8 } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { resolveColorValue } from '../values/compute-color.js';
import { parseColor } from '../values/parse-color.js';
import { BLACK } from '../values/color.js';
import { withoutEnd } from '../syntax/text-ends.js';

/** One way to read what someone typed. */
export interface ColorReading {
  readonly color: Color;
  /** CSS for it. */
  readonly css: string;
  /** How it was read, in plain words. */
  readonly as: string;
}

const MAX_LENGTH = 200;

/**
 * Reads a colour in any notation people type or paste: every CSS notation, hex without `#`, bare triplets,
 * with a property name or a semicolon left on. What can be read two ways comes back as two readings.
 * @returns no reading when it is no colour.
 */
export function readColorNotation(input: string): readonly ColorReading[] {
  if (input.length > MAX_LENGTH) return [];
  const text = withoutTail(input.trim().replace(/\s+/g, ' '))
    .replace(/^[a-z-]+ ?: ?(?!\d+ ?[;,]? ?[a-z] ?:)(?=\S)/i, (prefix) => (/^[rgb] ?:/i.test(prefix) ? prefix : ''))
    .trim();
  if (text === '') return [];
  const readings: ColorReading[] = [];
  const add = (color: Color | null, css: string, as: string): void => {
    if (color && !readings.some((reading) => reading.css === css)) readings.push({ color, css, as });
  };
  const digits = /^#?([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.exec(text)?.[1];
  if (digits)
    add(
      absolute(`#${digits}`),
      `#${digits.toLowerCase()}`,
      digits.length > 4 ? `${digits.length} hex digits` : `${digits.length} hex digits, each doubled`,
    );
  const triplet = readTriplet(text);
  if (triplet) add(triplet, hexOf(triplet), `red, green, blue: ${channels8(triplet).join(' ')}`);
  // Three two-digit decimals run together look like hex.
  const spaced = /^(\d{2})\s*(\d{2})\s*(\d{2})$/.exec(text);
  if (spaced) {
    const [, r, g, b] = spaced;
    const decimal = rgb8(Number(r), Number(g), Number(b));
    add(decimal, hexOf(decimal), `red, green, blue: ${channels8(decimal).join(' ')}`);
    add(absolute(`#${r}${g}${b}`), `#${r}${g}${b}`, '6 hex digits');
  }
  if (readings.length === 0)
    add(
      absolute(text),
      text.toLowerCase().replace(/\s+/g, ' '),
      /\(/.test(text) ? `${text.slice(0, text.indexOf('(')).toLowerCase()}()` : 'a CSS colour name',
    );
  return readings;
}

/** Without what follows a value in a declaration. */
function withoutTail(text: string): string {
  const bare = withoutEnd(text, '; ');
  return bare.toLowerCase().endsWith('!important') ? withoutEnd(bare.slice(0, -'!important'.length), '; ') : bare;
}

function readTriplet(text: string): Color | null {
  const labelled = /^r ?[:=]? ?(\d{1,3}) ?[,;]? ?g ?[:=]? ?(\d{1,3}) ?[,;]? ?b ?[:=]? ?(\d{1,3})$/i.exec(text);
  const bare =
    labelled ??
    /^\(? ?(\d{1,3}(?:\.\d+)?) ?[, ;/|_-] ?(\d{1,3}(?:\.\d+)?) ?[, ;/|_-] ?(\d{1,3}(?:\.\d+)?) ?\)?$/.exec(text) ??
    // Nine digits run together are no hex: three channels of three.
    /^(\d{3})(\d{3})(\d{3})$/.exec(text);
  if (bare) {
    const values = bare.slice(1, 4).map(Number);
    return values.every((value) => value <= 255)
      ? rgb8(Math.round(values[0]), Math.round(values[1]), Math.round(values[2]))
      : null;
  }
  const percent = /^\(? ?([\d.]+)% ?,? ?([\d.]+)% ?,? ?([\d.]+)% ?\)?$/.exec(text);
  if (!percent) return null;
  const values = percent.slice(1, 4).map(Number);
  return values.every((value) => value <= 100)
    ? rgb8(
        Math.round((values[0] / 100) * 255),
        Math.round((values[1] / 100) * 255),
        Math.round((values[2] / 100) * 255),
      )
    : null;
}

function absolute(text: string): Color | null {
  const value = parseColor(text);
  if (!value || value.kind === 'currentcolor') return null;
  return resolveColorValue(value, { scheme: 'light', currentColor: BLACK });
}

/** Red, green and blue of a colour in sRGB, rounded to 0–255. */
export function channels8(color: Color): number[] {
  return channelsIn(color, 'srgb').map((channel) => Math.round(Math.min(1, Math.max(0, channel)) * 255));
}

/** Hex of a colour in sRGB, clipped to its gamut; with alpha digits only where it is not opaque. */
export function hexOf(color: Color): string {
  let hex = hexes.get(color);
  if (hex === undefined) {
    const alpha = Math.round((color.alpha ?? 0) * 255);
    hex = `#${[...channels8(color), ...(alpha < 255 ? [alpha] : [])].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
    hexes.set(color, hex);
  }
  return hex;
}

/** Colours are told apart by their hex wherever they are gathered: thousands of places hold the same few. */
const hexes = new WeakMap<Color, string>();
