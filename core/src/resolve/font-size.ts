import { computeLengths, formatNumber } from '../values/compute-length.js';
import { textValue, type ComputedValue } from './computed-value.js';
import type { StyleSource } from './style-source.js';

/**
 * Pixels of the absolute-size keywords, for proportional and for monospaced text.
 * Source: CSS Fonts 4 §2.5.1 for the keywords; the pixels are Chromium's for 16 px and 13 px (from memory).
 */
const KEYWORD_SIZES: ReadonlyMap<string, readonly [proportional: number, monospaced: number]> = new Map([
  ['xx-small', [9, 9]],
  ['x-small', [10, 10]],
  ['small', [13, 12]],
  ['medium', [16, 13]],
  ['large', [18, 16]],
  ['x-large', [24, 20]],
  ['xx-large', [32, 26]],
  ['xxx-large', [48, 39]],
]);
const MONOSPACE_SCALE = 13 / 16;

/** How a font size came about, which decides what a change to a monospaced family does to it. */
interface SizeHistory {
  readonly px: number;
  readonly keyword: string | null;
  readonly absolute: boolean;
}

/** By what stands for the values of a style: twins are worked out once. */
const histories = new WeakMap<object, SizeHistory>();

/** Computed font size, in px. Browsers set a lone `monospace` smaller (common practice, CSS Fonts 4 §2.5 note). */
export function computeFontSize(text: string, style: StyleSource): ComputedValue | null {
  const history = historyFrom(text.toLowerCase(), style);
  if (!history) return null;
  histories.set(style.identity, history);
  return textValue(`${formatNumber(history.px)}px`);
}

/** Largest font size of Chromium, CSS px. */
const LARGEST = 10_000;

function historyFrom(word: string, style: StyleSource): SizeHistory | null {
  const parent = parentHistory(style);
  const mono = isMonospace(style);
  const parentMono = style.parent ? isMonospace(style.parent) : false;
  const keyword = KEYWORD_SIZES.get(word);
  if (keyword) return { px: keyword[mono ? 1 : 0], keyword: word, absolute: false };
  if (word === 'larger' || word === 'smaller')
    return adapt(
      { px: parent.px * (word === 'larger' ? 1.2 : 1 / 1.2), keyword: null, absolute: parent.absolute },
      mono,
      parentMono,
    );
  const percent = /^([\d.]+)%$/.exec(word);
  if (percent)
    return adapt(
      { px: (Number(percent[1]) / 100) * parent.px, keyword: null, absolute: parent.absolute },
      mono,
      parentMono,
    );
  const relative = /^([\d.]+)em$/.exec(word);
  if (relative)
    return adapt({ px: Number(relative[1]) * parent.px, keyword: null, absolute: parent.absolute }, mono, parentMono);
  const resolved = computeLengths(
    word.replace(/(?<![\d.])([\d.]+)%/g, (_, n: string) => `${(Number(n) / 100) * parent.px}px`),
    {
      em: () => parent.px,
      rem: () => (style.root && style.root !== style ? style.root.fontSize() : 16),
      viewport: style.environment,
    },
  );
  const px = /^([+-]?[\d.]+(?:e[+-]?\d+)?)px$/.exec(resolved);
  return px ? { px: Math.min(LARGEST, Math.max(0, Number(px[1]))), keyword: null, absolute: true } : null;
}

/** Font size of an element that sets none: the parent's, scaled when only one of the two is monospaced. */
export function inheritFontSize(style: StyleSource): ComputedValue {
  const parent = parentHistory(style);
  const mono = isMonospace(style);
  const parentMono = style.parent ? isMonospace(style.parent) : false;
  const history = adapt(parent, mono, parentMono);
  histories.set(style.identity, history);
  return textValue(`${formatNumber(history.px)}px`);
}

function adapt(history: SizeHistory, mono: boolean, parentMono: boolean): SizeHistory {
  if (mono === parentMono || history.absolute) return history;
  const sizes = history.keyword ? KEYWORD_SIZES.get(history.keyword) : undefined;
  const px = sizes ? sizes[mono ? 1 : 0] : mono ? history.px * MONOSPACE_SCALE : history.px / MONOSPACE_SCALE;
  return { ...history, px };
}

function parentHistory(style: StyleSource): SizeHistory {
  if (!style.parent) return { px: 16, keyword: 'medium', absolute: false };
  const px = style.parent.fontSize();
  return histories.get(style.parent.identity) ?? { px, keyword: null, absolute: true };
}

function isMonospace(style: StyleSource): boolean {
  const family = style.computed('font-family');
  return family.kind === 'text' && family.text === 'monospace';
}
