import type { Override, WidthRange } from './override.js';

/**
 * Media condition of an override; `null` for none.
 * @param hoverOnly whether what is for hover holds on devices that hover alone. Source: Media Queries 4 §7.2.
 */
export function mediaOf({ widths, state }: Pick<Override, 'widths' | 'state'>, hoverOnly: boolean): string | null {
  const isHover = state === 'hover' || state === 'parent-hover';
  const parts = [
    hoverOnly && isHover ? '(hover: hover)' : '',
    widths?.min == null ? '' : `(min-width: ${widths.min}px)`,
    widths?.max == null ? '' : `(max-width: ${widths.max}px)`,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(' and ') : null;
}

/** Whether a viewport width lies in a range. */
export function isInRange(width: number, range: WidthRange | null | undefined): boolean {
  return width >= (range?.min ?? -Infinity) && width <= (range?.max ?? Infinity);
}
