import { setsLonghand } from '../cascade/block.js';
import type { Page } from '../resolve/page.js';
import type { WidthRange } from '../veneer/override.js';
import type { SiteModel } from './site-model.js';

/** Widths the product always looks at, in CSS px. */
export const USUAL_WIDTHS = [1280, 820, 390] as const;
/** Most widths that are looked at: each is a resolution of its own. */
const MOST_WIDTHS = 8;

const byPage = new WeakMap<Page['base'], Map<string, readonly number[]>>();

/**
 * Widths in CSS px at which rules of a page begin to hold: `min-width: 48em` begins at 768, `max-width: 600px` ends
 * there, so the next begins at 601. Relative units are taken from 16 px, as media queries do (Media Queries 4 §2.5).
 * @param longhands leaves out rules that can have no say in any of these; custom properties always may.
 */
export function breakpointsOf(page: Page, longhands: readonly string[] | null = null): readonly number[] {
  let known = byPage.get(page.base);
  if (!known) byPage.set(page.base, (known = new Map()));
  const key = longhands?.join() ?? '';
  let found = known.get(key);
  if (!found) {
    const starts = new Set<number>();
    for (const { conditions, declarations } of page.base.rules) {
      if (conditions.length === 0 || (longhands && !declarations.some(({ name }) => name.startsWith('--') || longhands.some((longhand) => setsLonghand(name, longhand))))) continue;
      for (const condition of conditions) if (condition.kind === 'media') for (const start of startsIn(condition.text)) starts.add(start);
    }
    found = [...starts].sort((a, b) => a - b);
    known.set(key, found);
  }
  return found;
}

/** Breakpoints of all pages, ascending. */
export function breakpointsOfSite(site: SiteModel): number[] {
  return [...new Set([...site.pages.values()].flatMap((page) => breakpointsOf(page)))].sort((a, b) => a - b);
}

/** Widths at which some longhands may come out otherwise, in a range: one between each two breakpoints that have a say in them. */
export function widthsThatMatter(site: SiteModel, longhands: readonly string[], range: WidthRange | null = null): number[] {
  const starts = [...new Set([...site.pages.values()].flatMap((page) => breakpointsOf(page, longhands)))].sort((a, b) => a - b);
  const widths = starts.length === 0 && range === null ? [USUAL_WIDTHS[0]] : widthsToCheck(starts, range);
  // Where no breakpoint parts them, one width stands for its neighbours.
  return widths.filter((width, i) => i === 0 || starts.some((start) => start > width && start <= widths[i - 1]));
}

/** Widths to look at for a rule that holds in a range: the usual ones in it, and one between each two breakpoints that none of them stands for. */
export function widthsToCheck(breakpoints: readonly number[], range: WidthRange | null = null): number[] {
  const min = range?.min ?? 240;
  const max = range?.max ?? Infinity;
  const starts = [240, ...breakpoints].filter((start) => start <= max);
  const widths = new Set<number>(USUAL_WIDTHS.filter((width) => width >= min && width <= max));
  starts.forEach((start, i) => {
    const from = Math.max(start, min);
    const to = Math.min((starts[i + 1] ?? Infinity) - 1, max);
    if (from <= to && ![...widths].some((width) => width >= from && width <= to)) widths.add(from);
  });
  const all = [...widths].sort((a, b) => b - a);
  return all.length > 0 ? all.slice(0, MOST_WIDTHS) : [Math.max(min, 240)];
}

/** A width on each side of a range, where the range ends there. */
export function outsideOf({ min, max }: WidthRange): number[] {
  return [...(min === null || min <= 240 ? [] : [min - 1]), ...(max === null ? [] : [max + 1])];
}

const UNITS: Readonly<Record<string, number>> = { px: 1, em: 16, rem: 16 };

function startsIn(text: string): number[] {
  const px = (value: string, unit: string): number => Number(value) * UNITS[unit];
  const found: number[] = [];
  for (const [, bound, value, unit] of text.matchAll(/\b(min|max)-(?:device-)?width\s*:\s*([\d.]+)(px|r?em)/gi)) found.push(bound.toLowerCase() === 'min' ? px(value, unit) : px(value, unit) + 1);
  for (const [, operator, value, unit] of text.matchAll(/\bwidth\s*(>=|>|<=|<)\s*([\d.]+)(px|r?em)/gi)) found.push(operator === '>=' || operator === '<' ? px(value, unit) : px(value, unit) + 1);
  for (const [, value, unit, operator] of text.matchAll(/([\d.]+)(px|r?em)\s*(>=|>|<=|<)\s*width\b/gi)) found.push(operator === '<=' || operator === '>' ? px(value, unit) : px(value, unit) + 1);
  return found.map((start) => Math.ceil(start)).filter((start) => Number.isFinite(start) && start > 0 && start < 10_000);
}
