import MagicString from 'magic-string';
import { ident, string as cssString, url as cssUrl } from 'css-tree';
import { T, skipBlank, skipComponent, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';

/** An address in a stylesheet: a sheet it imports, or a picture or font it uses. */
export interface CssAddress {
  readonly address: string;
  readonly kind: 'stylesheet' | 'file';
}

interface Found extends CssAddress {
  readonly start: number;
  readonly end: number;
  /** Whether a bare string stands for it, as `@import` allows. */
  readonly isString: boolean;
}

/** Addresses a stylesheet or a `style` attribute leads to, in order, as written. */
export function cssAddresses(css: string): CssAddress[] {
  return find(css).map(({ address, kind }) => ({ address, kind }));
}

/**
 * The text with its addresses replaced; everything else keeps its bytes.
 * @param replace the new address; `null` leaves the old one.
 */
export function withCssAddresses(css: string, replace: (address: CssAddress) => string | null): string {
  const edited = new MagicString(css);
  for (const found of find(css)) {
    const next = replace(found);
    if (next === null || next === found.address) continue;
    edited.update(found.start, found.end, found.isString ? cssString.encode(next) : cssUrl.encode(next));
  }
  return edited.toString();
}

function find(css: string): Found[] {
  // An escape may stand anywhere in a name.
  if (!/url\(|@import|image-set\(|src\(|\\/i.test(css)) return [];
  const tokens = tokenizeCss(css);
  const found: Found[] = [];
  let importEnd = -1;
  for (let i = 0; i < tokens.count; i += 1) {
    const type = tokens.types[i];
    const kind = i < importEnd ? 'stylesheet' : 'file';
    // A statement that is not ended holds no second one.
    if (type === T.AtKeyword && i >= importEnd && ident.decode(tokenText(tokens, i)).toLowerCase() === '@import') {
      importEnd = endOfStatement(tokens, i);
      const at = skipBlank(tokens, i + 1, importEnd);
      if (at < importEnd && tokens.types[at] === T.String) found.push(ofString(tokens, at, 'stylesheet'));
    } else if (type === T.Url) {
      found.push({
        address: cssUrl.decode(tokenText(tokens, i)),
        kind,
        start: tokens.starts[i],
        end: tokens.ends[i],
        isString: false,
      });
    } else if (type === T.Function) {
      const end = Math.min(tokens.closers[i], tokens.count);
      const name = functionName(tokens, i);
      if (name === 'url' || name === 'src') {
        const address = ofUrl(tokens, i, end, kind);
        if (address) found.push(address);
        i = end;
      } else if (name === 'image-set' || name === '-webkit-image-set') {
        for (let k = i + 1; k < end; k = skipComponent(tokens, k))
          if (tokens.types[k] === T.String) found.push(ofString(tokens, k, 'file'));
      }
    }
  }
  return found.sort((a, b) => a.start - b.start);
}

/** Name of a function, escapes read. Source: CSS Syntax 3 §4.3.4, which takes `url` by its value. */
function functionName(tokens: TokenList, i: number): string {
  return ident.decode(tokenText(tokens, i).slice(0, -1)).toLowerCase();
}

/** An address in `url()` or `src()`: a string, or, where an escape in the name hid it from the tokenizer, the bare text. */
function ofUrl(tokens: TokenList, i: number, end: number, kind: CssAddress['kind']): Found | null {
  const at = skipBlank(tokens, i + 1, end);
  const stop = end < tokens.count ? tokens.ends[end] : tokens.text.length;
  if (at < end && tokens.types[at] === T.String)
    return {
      address: cssString.decode(tokenText(tokens, at)),
      kind,
      start: tokens.starts[i],
      end: stop,
      isString: false,
    };
  const bare = tokens.text.slice(tokens.ends[i], end < tokens.count ? tokens.starts[end] : undefined).trim();
  return bare === ''
    ? null
    : { address: cssUrl.decode(`url(${bare})`), kind, start: tokens.starts[i], end: stop, isString: false };
}

function ofString(tokens: TokenList, i: number, kind: CssAddress['kind']): Found {
  return {
    address: cssString.decode(tokenText(tokens, i)),
    kind,
    start: tokens.starts[i],
    end: tokens.ends[i],
    isString: true,
  };
}

function endOfStatement(tokens: TokenList, i: number): number {
  let k = i + 1;
  while (k < tokens.count && tokens.types[k] !== T.Semicolon && tokens.types[k] !== T.LeftCurlyBracket)
    k = skipComponent(tokens, k);
  return k;
}
