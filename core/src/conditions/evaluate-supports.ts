import { isPropertyValue } from '../properties/is-property-value.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import { T, skipBlank, textBetween, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';
import { evaluateCondition } from './parse-condition.js';
import type { Ternary } from './environment.js';

/**
 * Evaluates a `@supports` condition by the grammar the product itself reads with.
 * Source: CSS Conditional 4 §2, https://drafts.csswg.org/css-conditional-4/#at-supports-ext
 * @returns `null` when malformed: the whole at-rule is then dropped.
 */
export function evaluateSupports(text: string): Ternary | null {
  const tokens = tokenizeCss(text);
  return evaluateCondition(tokens, 0, tokens.count, readOperand);
}

function readOperand(tokens: TokenList, from: number, to: number): Ternary | null {
  const close = Math.min(tokens.closers[from], to);
  if (tokens.types[from] === T.Function) {
    const name = tokenText(tokens, from).toLowerCase();
    const argument = textBetween(tokens, from + 1, close);
    if (name === 'selector(') {
      try {
        return parseSelectorList(argument, { strict: true }).length === 1;
      } catch (error) {
        if (error instanceof SelectorError) return false;
        throw error;
      }
    }
    if (name === 'font-format(') return ['woff', 'woff2', 'opentype', 'truetype'].includes(argument.toLowerCase());
    if (name === 'font-tech(')
      return ['features-opentype', 'variations', 'color-colrv0', 'color-colrv1'].includes(argument.toLowerCase());
    return false;
  }
  const name = skipBlank(tokens, from + 1, close);
  const colon = skipBlank(tokens, name + 1, close);
  if (name >= close || tokens.types[name] !== T.Ident || tokens.types[colon] !== T.Colon) return false;
  const value = textBetween(tokens, colon + 1, close)
    .replace(/!\s*important$/i, '')
    .trim();
  const property = tokenText(tokens, name);
  return isPropertyValue(property.startsWith('--') ? property : property.toLowerCase(), value);
}
