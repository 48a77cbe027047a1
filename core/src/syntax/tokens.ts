import { tokenize, tokenTypes } from 'css-tree';

/** Token types of CSS Syntax 3 §4, as css-tree numbers them. */
export const T = tokenTypes as unknown as Readonly<
  Record<
    | 'EOF'
    | 'Ident'
    | 'Function'
    | 'AtKeyword'
    | 'Hash'
    | 'String'
    | 'BadString'
    | 'Url'
    | 'BadUrl'
    | 'Delim'
    | 'Number'
    | 'Percentage'
    | 'Dimension'
    | 'WhiteSpace'
    | 'CDO'
    | 'CDC'
    | 'Colon'
    | 'Semicolon'
    | 'Comma'
    | 'LeftSquareBracket'
    | 'RightSquareBracket'
    | 'LeftParenthesis'
    | 'RightParenthesis'
    | 'LeftCurlyBracket'
    | 'RightCurlyBracket'
    | 'Comment',
    number
  >
>;

/** A tokenised text. Token `i` covers `starts[i]` to `ends[i]` of `text`. */
export interface TokenList {
  readonly text: string;
  readonly count: number;
  readonly types: Uint8Array;
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** Index of the token that closes the block or function opened by token `i`; `count` when it stays open; 0 for other tokens. */
  readonly closers: Uint32Array;
}

const CLOSER_OF: ReadonlyMap<number, number> = new Map([
  [T.Function, T.RightParenthesis],
  [T.LeftParenthesis, T.RightParenthesis],
  [T.LeftSquareBracket, T.RightSquareBracket],
  [T.LeftCurlyBracket, T.RightCurlyBracket],
]);

/** Tokenises by CSS Syntax 3 §4 and pairs the brackets. Linear in the text, without recursion. */
export function tokenizeCss(text: string): TokenList {
  const types: number[] = [];
  const starts: number[] = [];
  const ends: number[] = [];
  tokenize(text, (type: number, start: number, end: number) => {
    types.push(type);
    starts.push(start);
    ends.push(end);
  });
  const count = types.length;
  const closers = new Uint32Array(count);
  const open: number[] = [];
  // Inside a block only its own closer ends it (§5.4.8); other closers are ordinary tokens.
  for (let i = 0; i < count; i += 1) {
    const type = types[i];
    if (CLOSER_OF.has(type)) open.push(i);
    else if (open.length > 0 && CLOSER_OF.get(types[open[open.length - 1]]) === type) closers[open.pop() as number] = i;
  }
  for (const i of open) closers[i] = count;
  return {
    text,
    count,
    types: Uint8Array.from(types),
    starts: Uint32Array.from(starts),
    ends: Uint32Array.from(ends),
    closers,
  };
}

/** Index after token `i` and, when it opens a block or function, after all of that. */
export function skipComponent(tokens: TokenList, i: number): number {
  const closer = tokens.closers[i];
  return closer === 0 ? i + 1 : Math.min(closer + 1, tokens.count);
}

/** Whether token `i` is white space or a comment. */
export function isBlank(tokens: TokenList, i: number): boolean {
  return tokens.types[i] === T.WhiteSpace || tokens.types[i] === T.Comment;
}

/** First index from `i` below `end` that is neither white space nor comment. */
export function skipBlank(tokens: TokenList, i: number, end: number): number {
  let next = i;
  while (next < end && isBlank(tokens, next)) next += 1;
  return next;
}

/** Text of token `i`. */
export function tokenText(tokens: TokenList, i: number): string {
  return tokens.text.slice(tokens.starts[i], tokens.ends[i]);
}

/** Whether token `i` is the given delimiter. */
export function isDelim(tokens: TokenList, i: number, char: string): boolean {
  return tokens.types[i] === T.Delim && tokens.text[tokens.starts[i]] === char;
}

/** Text between two token indexes, comments dropped, trimmed. Comments between two tokens leave nothing behind unless the tokens would join. */
export function textBetween(tokens: TokenList, from: number, to: number): string {
  if (from >= to) return '';
  let plain = true;
  for (let i = from; i < to; i += 1) {
    if (tokens.types[i] === T.Comment) {
      plain = false;
      break;
    }
  }
  if (plain) return tokens.text.slice(tokens.starts[from], tokens.ends[to - 1]).trim();
  let text = '';
  for (let i = from; i < to; i += 1) text += tokens.types[i] === T.Comment ? '/**/' : tokenText(tokens, i);
  return withoutOuterBlank(text);
}

/** Splits the tokens from `from` to `to` at top-level commas into `[from, to)` pairs. */
export function splitAtCommas(tokens: TokenList, from: number, to: number): [number, number][] {
  const parts: [number, number][] = [];
  let start = from;
  for (let i = from; i < to; i = skipComponent(tokens, i)) {
    if (tokens.types[i] !== T.Comma) continue;
    parts.push([start, i]);
    start = i + 1;
  }
  parts.push([start, to]);
  return parts;
}

/** The text without white space and emptied comments at its ends. */
function withoutOuterBlank(text: string): string {
  let result = text.trim();
  while (result.startsWith('/**/')) result = result.slice(4).trimStart();
  while (result.endsWith('/**/')) result = result.slice(0, -4).trimEnd();
  return result;
}
