import type { ElementNode } from '../dom/tree.js';
import { lengthContext } from '../resolve/compute-longhand.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Page } from '../resolve/page.js';
import type { StyleRule } from '../rules/style-rule.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { Color } from '../values/color.js';
import { readShadows } from '../values/serialize-paint.js';
import { holds, type Rect } from '../resolve/page-layout.js';

/** Elements that may cast a shadow in some state, each with how far at most, CSS px; infinite where its text does not tell. */
type Casters = ReadonlyMap<ElementNode, number>;

const bySheets = new WeakMap<Page['base'], Casters>();
const byPage = new WeakMap<Page, Casters>();

/** What may cast a shadow around itself on a page, itself or by a pseudo-element. */
export function shadowCasters(page: Page): Casters {
  let found = byPage.get(page);
  if (!found) {
    let plain = bySheets.get(page.base);
    if (!plain)
      bySheets.set(page.base, (plain = widest([...castersBy(page, page.base.rules), ...inlineCasters(page)])));
    found = page.veneerRules.length === 0 ? plain : widest([...plain, ...castersBy(page, page.veneerRules)]);
    byPage.set(page, found);
  }
  return found;
}

function castersBy(page: Page, rules: readonly StyleRule[]): [ElementNode, number][] {
  return rules.flatMap(({ declarations, selectorText }) => {
    const own = declarations.filter(({ name }) => name === 'box-shadow');
    if (own.length === 0) return [];
    const reach = Math.max(...own.map(({ value }) => reachOf(value)));
    return matchedInAnyState(page, selectorText).map((element): [ElementNode, number] => [element, reach]);
  });
}

function inlineCasters({ document }: Page): [ElementNode, number][] {
  return document.elements.flatMap((element): [ElementNode, number][] => {
    const style = element.attributes.get('style') ?? '';
    return style.includes('box-shadow') ? [[element, reachOf(style)]] : [];
  });
}

function widest(casters: readonly (readonly [ElementNode, number])[]): Casters {
  const found = new Map<ElementNode, number>();
  for (const [element, reach] of casters) found.set(element, Math.max(reach, found.get(element) ?? 0));
  return found;
}

/** How far a shadow's text may reach, never too little: all its numbers together, those of its colours among them. */
function reachOf(value: string): number {
  if (/var\(|calc\(|\d(?:r?em|r?lh|r?ch|r?ex|[sld]?v(?:w|h|min|max|i|b)|cq\w+|cm|mm|in|pt|pc|q)\b/i.test(value))
    return Infinity;
  return (value.match(/\d+(?:\.\d+)?/g) ?? []).reduce((sum, number) => sum + Number(number), 0);
}

/** A shadow that a box casts around itself; lengths in CSS px. */
export interface OuterShadow {
  readonly color: Color;
  readonly dx: number;
  readonly dy: number;
  readonly blur: number;
  readonly spread: number;
}

const byStyle = new WeakMap<ElementStyle, readonly OuterShadow[]>();

/** The shadows a style casts around its box, the lowest first. Source: CSS Backgrounds 3 §7.1. */
export function outerShadowsOf(style: ElementStyle): readonly OuterShadow[] {
  let found = byStyle.get(style);
  if (!found) byStyle.set(style, (found = readOuter(style)));
  return found;
}

function readOuter(style: ElementStyle): OuterShadow[] {
  const value = style.computed('box-shadow');
  if (value.kind !== 'text' || value.text === 'none') return [];
  const context = { scheme: style.colorScheme(), currentColor: style.currentColor(), lengths: lengthContext(style) };
  return readShadows(value.text, context, 'box')
    .reverse()
    .flatMap(({ color, lengths, inset }): OuterShadow[] => {
      const [dx, dy, blur, spread] = lengths.map((length) => Number.parseFloat(length) || 0);
      return inset || (color.alpha ?? 0) === 0 ? [] : [{ color, dx, dy, blur, spread }];
    });
}

/**
 * What of a box's shadows falls on a point outside it. Corners are taken as square where a shadow is blurred.
 * Source: CSS Backgrounds 3 §7.1: a blur of a Gaussian with a standard deviation of half its radius.
 */
export function shadowsAt(shadows: readonly OuterShadow[], box: Rect, x: number, y: number): Color[] {
  if (holds(box, x, y)) return [];
  return shadows.flatMap(({ color, dx, dy, blur, spread }): Color[] => {
    const cast: Rect = {
      left: box.left + dx - spread,
      top: box.top + dy - spread,
      width: box.width + 2 * spread,
      height: box.height + 2 * spread,
    };
    if (cast.width <= 0 || cast.height <= 0) return [];
    const share =
      blur === 0
        ? Number(holds(cast, x, y))
        : along(x - cast.left, cast.width, blur / 2) * along(y - cast.top, cast.height, blur / 2);
    return share < 0.002 ? [] : [{ ...color, alpha: (color.alpha ?? 0) * share }];
  });
}

/** Share of a blurred edge of some length that lies at a place along it. */
function along(at: number, length: number, deviation: number): number {
  return normal(at / deviation) - normal((at - length) / deviation);
}

/** Distribution function of the normal distribution. Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 26.2.17, to 7.5e-8. */
function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}
