import { splitAtCommas, textBetween, tokenizeCss } from '../syntax/tokens.js';

/** The selectors of a list, each as it is written; commas inside functions and strings belong to one. Source: Selectors 4 §4.1. */
export function selectorsIn(list: string): string[] {
  if (!list.includes(',')) return [list.trim()];
  const tokens = tokenizeCss(list);
  return splitAtCommas(tokens, 0, tokens.count).map(([from, to]) => textBetween(tokens, from, to));
}
