import { message, type Message } from '../message/message.js';
import { T, tokenText, tokenizeCss } from './tokens.js';

// eslint-disable-next-line no-control-regex -- what no stylesheet is written with
const CONTROL = /[\u0000-\u0008\u000b\u000e-\u001f\u007f]/;

const CLOSERS: ReadonlySet<number> = new Set([T.RightParenthesis, T.RightSquareBracket, T.RightCurlyBracket]);

/**
 * What of a piece of CSS would swallow what is written after it, or break off before its end; `null` for a piece that
 * is whole: everything opened in it is closed in it. Source: CSS Syntax 3 §4.3 and §5.4, where the end of the text closes all.
 */
export function wholenessProblem(css: string): Message | null {
  if (CONTROL.test(css)) return message('css.holds-control-character');
  const tokens = tokenizeCss(css);
  const closed = new Set<number>();
  for (let i = 0; i < tokens.count; i += 1) if (tokens.closers[i] > 0) closed.add(tokens.closers[i]);
  for (let i = 0; i < tokens.count; i += 1) {
    const type = tokens.types[i];
    if (type === T.BadString) return message('css.breaks-string-off');
    if (type === T.BadUrl) return message('css.holds-address-cannot-be');
    if (tokens.closers[i] === tokens.count) return message('css.leaves-open', { mark: tokenText(tokens, i) });
    if (CLOSERS.has(type) && !closed.has(i))
      return message('css.closes-with-what-does', { mark: tokenText(tokens, i) });
  }
  const last = tokens.count - 1;
  if (last < 0) return null;
  const text = tokenText(tokens, last);
  switch (tokens.types[last]) {
    case T.String:
      return text.length > 1 && endsUnescaped(text, text[0]) ? null : message('css.leaves-string-open');
    case T.Url:
      return endsUnescaped(text, ')') ? null : message('css.leaves-address-open');
    case T.Comment:
      return text.length > 3 && text.endsWith('*/') ? null : message('css.leaves-comment-open');
    default:
      return endsUnescaped(css, '\\') ? message('css.ends-middle-escape') : null;
  }
}

/** Whether a text ends with a character that no backslash takes its meaning from. */
function endsUnescaped(text: string, mark: string): boolean {
  if (!text.endsWith(mark)) return false;
  let slashes = 0;
  while (text[text.length - 2 - slashes] === '\\') slashes += 1;
  return slashes % 2 === 0;
}
