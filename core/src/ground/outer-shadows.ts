import type { ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Page } from '../resolve/page.js';
import type { StyleRule } from '../rules/style-rule.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { lengthContext } from '../resolve/compute-longhand.js';
import { readShadows } from '../values/serialize-paint.js';
import type { Color } from '../values/color.js';
import { holds, type Rect } from './page-layout.js';

/** CSS px that a shadow is looked for around its box; what reaches further is faint by then. */
export const FARTHEST_SHADOW = 80;

const bySheets = new WeakMap<object, ReadonlySet<ElementNode>>();
const byVeneer = new WeakMap<Page, ReadonlySet<ElementNode>>();

/** Elements of a page that may cast a shadow around themselves in some state. */
export function shadowCasters(page: Page): ReadonlySet<ElementNode> {
  let found = byVeneer.get(page);
  if (found) return found;
  let plain = bySheets.get(page.base);
  if (!plain) bySheets.set(page.base, (plain = new Set([...castersBy(page, page.base.rules), ...page.document.elements.filter(({ attributes }) => attributes.get('style')?.includes('box-shadow'))])));
  found = page.veneerRules.length === 0 ? plain : new Set([...plain, ...castersBy(page, page.veneerRules)]);
  byVeneer.set(page, found);
  return found;
}

function castersBy(page: Page, rules: readonly StyleRule[]): ElementNode[] {
  return rules.flatMap(({ declarations, selectorText }) => (declarations.some(({ name }) => name === 'box-shadow') ? matchedInAnyState(page, selectorText) : []));
}

/**
 * Shadows that a box casts on a point outside it, the lowest first. Corners are taken as square where a shadow is blurred.
 * Source: CSS Backgrounds 3 §7.1: a blur of a Gaussian with a standard deviation of half its radius.
 */
export function outerShadowsAt(style: ElementStyle, box: Rect, x: number, y: number): Color[] {
  const value = style.computed('box-shadow');
  if (value.kind !== 'text' || value.text === 'none' || holds(box, x, y)) return [];
  const context = { scheme: style.colorScheme(), currentColor: style.currentColor(), lengths: lengthContext(style) };
  return readShadows(value.text, context, 'box').reverse().flatMap(({ color, lengths, inset }): Color[] => {
    if (inset) return [];
    const [dx, dy, blur, spread] = lengths.map((length) => Number.parseFloat(length) || 0);
    const cast: Rect = { left: box.left + dx - spread, top: box.top + dy - spread, width: box.width + 2 * spread, height: box.height + 2 * spread };
    if (cast.width <= 0 || cast.height <= 0) return [];
    const share = blur === 0 ? Number(holds(cast, x, y)) : along(x - cast.left, cast.width, blur / 2) * along(y - cast.top, cast.height, blur / 2);
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
  const tail = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}
