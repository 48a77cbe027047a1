import { colorOfCss } from '../veneer/palette.js';
import { sheetDifference } from '../veneer/sheet-difference.js';

/** In what two looks of a trial differ. */
export interface LookDifference {
  /** Declarations that only one of them has, a pair of one property counted once. */
  readonly declarations: number;
  /** Whether all of them are colours. */
  readonly isColorAlone: boolean;
  /** Properties among them that are no colour. */
  readonly others: readonly string[];
}

/** Properties that say nothing but colours. */
const COLOR_PROPERTY = /(?:^|-)(?:color|fill|stroke)$/;

/** What two sheets say otherwise, by declaration: what a trial of them can be put down to. */
export function lookDifference(before: string, after: string): LookDifference {
  const properties = sheetDifference(before, after).flatMap(({ gone, come }) => {
    const changed = new Map<string, boolean>();
    for (const declaration of [...gone, ...come]) {
      const colon = declaration.indexOf(':');
      const [property, value] = [declaration.slice(0, colon).trim(), declaration.slice(colon + 1).trim()];
      changed.set(property, (changed.get(property) ?? true) && isColor(property, value));
    }
    return [...changed];
  });
  const others = [...new Set(properties.filter(([, isOne]) => !isOne).map(([property]) => property))];
  return { declarations: properties.length, isColorAlone: others.length === 0, others };
}

function isColor(property: string, value: string): boolean {
  if (COLOR_PROPERTY.test(property)) return true;
  const bare = value.replace(/ ?!important$/, '').trim();
  return /^(?:--|background)/.test(property) && (isAbsolute(bare) || /^var\(--[\w-]+\)$/.test(bare));
}

function isAbsolute(css: string): boolean {
  return css.length <= 200 && colorOfCss(css) !== null;
}
