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
  let result = '';
  let last = 0;
  for (const found of find(css)) {
    const next = replace(found);
    if (next === null || next === found.address) continue;
    result += css.slice(last, found.start) + (found.isString ? cssString.encode(next) : cssUrl.encode(next));
    last = found.end;
  }
  return result + css.slice(last);
}

function find(css: string): Found[] {
  if (!/url\(|@import|image-set\(/i.test(css)) return [];
  const tokens = tokenizeCss(css);
  const found: Found[] = [];
  let importEnd = -1;
  for (let i = 0; i < tokens.count; i += 1) {
    const type = tokens.types[i];
    const kind = i < importEnd ? 'stylesheet' : 'file';
    if (type === T.AtKeyword && ident.decode(tokenText(tokens, i)).toLowerCase() === '@import') {
      importEnd = endOfStatement(tokens, i);
      const at = skipBlank(tokens, i + 1, importEnd);
      if (at < importEnd && tokens.types[at] === T.String) found.push(ofString(tokens, at, 'stylesheet'));
    } else if (type === T.Url) {
      found.push({ address: cssUrl.decode(tokenText(tokens, i)), kind, start: tokens.starts[i], end: tokens.ends[i], isString: false });
    } else if (type === T.Function && /^url\($/i.test(tokenText(tokens, i))) {
      const at = skipBlank(tokens, i + 1, tokens.count);
      const closer = tokens.closers[i];
      if (at < tokens.count && tokens.types[at] === T.String && closer < tokens.count) {
        found.push({ address: cssString.decode(tokenText(tokens, at)), kind, start: tokens.starts[i], end: tokens.ends[closer], isString: false });
        i = closer;
      }
    } else if (type === T.Function && /^(?:-webkit-)?image-set\($/i.test(tokenText(tokens, i))) {
      const end = Math.min(tokens.closers[i], tokens.count);
      for (let k = i + 1; k < end; k = skipComponent(tokens, k)) if (tokens.types[k] === T.String) found.push(ofString(tokens, k, 'file'));
    }
  }
  return found.sort((a, b) => a.start - b.start);
}

function ofString(tokens: TokenList, i: number, kind: CssAddress['kind']): Found {
  return { address: cssString.decode(tokenText(tokens, i)), kind, start: tokens.starts[i], end: tokens.ends[i], isString: true };
}

function endOfStatement(tokens: TokenList, i: number): number {
  let k = i + 1;
  while (k < tokens.count && tokens.types[k] !== T.Semicolon && tokens.types[k] !== T.LeftCurlyBracket) k = skipComponent(tokens, k);
  return k;
}
