import { T, isBlank, skipBlank, skipComponent, tokenText, type TokenList } from '../syntax/tokens.js';
import { and, not, or, type Ternary } from './environment.js';

/** Reads one operand, the tokens `from` to `to`: a parenthesised block or a function. `null` when it is malformed. */
export type ReadOperand = (tokens: TokenList, from: number, to: number) => Ternary | null;

const MAX_DEPTH = 40;

/**
 * Evaluates `not X`, `X and Y…`, `X or Y…` with parentheses, as `@media`, `@supports` and `@container` share it.
 * Source: CSS Conditional 3 §6 and Media Queries 4 §3.
 * @returns `null` when the tokens are no condition.
 */
export function evaluateCondition(
  tokens: TokenList,
  from: number,
  to: number,
  readOperand: ReadOperand,
  depth = 0,
): Ternary | null {
  if (depth > MAX_DEPTH) return null;
  let i = skipBlank(tokens, from, to);
  if (i >= to) return null;
  const operand = (at: number): { value: Ternary | null; next: number } => {
    const next = Math.min(skipComponent(tokens, at), to);
    if (tokens.types[at] === T.LeftParenthesis) {
      const inner = tokens.closers[at];
      const nested = startsCondition(tokens, at + 1, Math.min(inner, to))
        ? evaluateCondition(tokens, at + 1, Math.min(inner, to), readOperand, depth + 1)
        : null;
      return { value: nested ?? readOperand(tokens, at, next), next };
    }
    if (tokens.types[at] === T.Function) return { value: readOperand(tokens, at, next), next };
    return { value: null, next };
  };
  if (isWord(tokens, i, 'not')) {
    i = skipBlank(tokens, i + 1, to);
    if (i >= to) return null;
    const { value, next } = operand(i);
    return value === null || skipBlank(tokens, next, to) < to ? null : not(value);
  }
  const values: Ternary[] = [];
  let joint: 'and' | 'or' | null = null;
  for (;;) {
    const { value, next } = operand(i);
    if (value === null) return null;
    values.push(value);
    i = skipBlank(tokens, next, to);
    if (i >= to) break;
    const word = tokens.types[i] === T.Ident ? tokenText(tokens, i).toLowerCase() : '';
    if ((word !== 'and' && word !== 'or') || (joint !== null && word !== joint) || !isBlank(tokens, i - 1)) return null;
    joint = word;
    i = skipBlank(tokens, i + 1, to);
    if (i >= to) return null;
  }
  return joint === 'or' ? or(values) : and(values);
}

function startsCondition(tokens: TokenList, from: number, to: number): boolean {
  const i = skipBlank(tokens, from, to);
  return (
    i < to && (tokens.types[i] === T.LeftParenthesis || isWord(tokens, i, 'not') || tokens.types[i] === T.Function)
  );
}

/** Whether token `i` is the given word, in any case. */
export function isWord(tokens: TokenList, i: number, word: string): boolean {
  return i < tokens.count && tokens.types[i] === T.Ident && tokenText(tokens, i).toLowerCase() === word;
}
