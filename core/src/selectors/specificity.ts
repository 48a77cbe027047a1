import { NO_SPECIFICITY, compareSpecificity, type SelectorList, type Specificity } from './selector.js';

/** Sum of two specificities. */
export function addSpecificity(a: Specificity, b: Specificity): Specificity {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
}

/** Specificity of the most specific selector in a list; zero for an empty one. Source: Selectors 4 §17, `:is()` and `:not()`. */
export function greatestSpecificity(list: SelectorList): Specificity {
  return list.reduce<Specificity>(
    (best, selector) => (compareSpecificity(selector.specificity, best) > 0 ? selector.specificity : best),
    NO_SPECIFICITY,
  );
}

/** Specificity in one line, for people: `0·2·1`. */
export function formatSpecificity(specificity: Specificity): string {
  return specificity.join('·');
}
