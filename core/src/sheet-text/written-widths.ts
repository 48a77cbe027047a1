import type { WidthRange } from '../veneer/override.js';

/** What conditions around a rule come to, for an override: widths, and whether they keep it to devices that hover. */
export interface WrittenConditions {
  readonly widths: WidthRange | null;
  readonly isHoverOnly: boolean;
}

const AT_LEAST = /^\((?:min-width\s*:|width\s*>=)\s*(\d{1,5}(?:\.\d{1,3})?)px\s*\)$/i;
const AT_MOST = /^\((?:max-width\s*:|width\s*<=)\s*(\d{1,5}(?:\.\d{1,3})?)px\s*\)$/i;
const HOVERS = /^\(hover\s*:\s*hover\s*\)$/i;

/** Reads conditions such as `@media (min-width: 600px)`. @returns the first that no override can say, as written. */
export function writtenConditions(within: readonly string[]): WrittenConditions | string {
  let [min, max]: (number | null)[] = [null, null];
  let isHoverOnly = false;
  for (const condition of within) {
    if (!condition.startsWith('@media ')) return condition;
    for (const part of condition.slice('@media '.length).split(/\sand\s/i)) {
      const feature = part.trim();
      const [least, most] = [AT_LEAST.exec(feature), AT_MOST.exec(feature)];
      if (least) min = Math.max(min ?? 0, Number(least[1]));
      else if (most) max = Math.min(max ?? Infinity, Number(most[1]));
      else if (HOVERS.test(feature)) isHoverOnly = true;
      else return condition;
    }
  }
  return { widths: min === null && max === null ? null : { min, max }, isHoverOnly };
}
