import { T, skipBlank, skipComponent, textBetween, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';

/** Value of a custom property for substitution; `null` is the guaranteed-invalid value. */
export type LookUp = (name: string) => string | null;

/** Value of an attribute of the element; `null` when it has none. */
export type LookUpAttribute = (name: string) => string | null;

const NO_ATTRIBUTES: LookUpAttribute = () => null;

const tokenized = new Map<string, TokenList>();
const MAX_TOKENIZED = 5_000;

/** The same few texts are substituted for every element. */
function tokenizeOnce(text: string): TokenList {
  let tokens = tokenized.get(text);
  if (!tokens) {
    if (tokenized.size > MAX_TOKENIZED) tokenized.clear();
    tokens = tokenizeCss(text);
    if (text.length < 1_000) tokenized.set(text, tokens);
  }
  return tokens;
}

/** Substituted texts longer than this count as invalid, in UTF-16 units. Source: CSS Variables 1 §3.3 allows such a limit. */
const MAX_LENGTH = 1_000_000;
const MAX_DEPTH = 100;

/**
 * Substitutes `var()` in a value.
 * Source: CSS Variables 1 §3, https://www.w3.org/TR/css-variables-1/#substitute-a-var
 * @returns `null` when it is invalid at computed-value time.
 */
export function substituteVariables(
  value: string,
  lookUp: LookUp,
  lookUpAttribute: LookUpAttribute = NO_ATTRIBUTES,
  depth = 0,
): string | null {
  if (!/var\(/i.test(value)) return substituteRest(value, lookUpAttribute);
  if (depth > MAX_DEPTH || value.length > MAX_LENGTH) return null;
  const tokens = tokenizeOnce(value);
  let result = '';
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'var(') {
      result += tokenText(tokens, i);
      continue;
    }
    const close = Math.min(tokens.closers[i], tokens.count);
    const name = skipBlank(tokens, i + 1, close);
    const comma = skipBlank(tokens, name + 1, close);
    if (
      name >= close ||
      tokens.types[name] !== T.Ident ||
      !tokenText(tokens, name).startsWith('--') ||
      (comma < close && tokens.types[comma] !== T.Comma)
    )
      return null;
    let replacement = lookUp(tokenText(tokens, name));
    if (replacement === null) {
      if (comma >= close) return null;
      replacement = substituteVariables(textBetween(tokens, comma + 1, close), lookUp, lookUpAttribute, depth + 1);
      if (replacement === null) return null;
    }
    // An empty comment keeps the neighbours apart, as tokens would be.
    result += `${needsGap(result, replacement) ? '/**/' : ''}${replacement}${close + 1 < tokens.count ? '/**/' : ''}`;
    if (result.length > MAX_LENGTH) return null;
    i = close;
  }
  return substituteRest(result, lookUpAttribute);
}

function substituteRest(value: string, lookUpAttribute: LookUpAttribute): string | null {
  const settled = substituteEnvironment(value);
  return settled === null ? null : substituteAttributes(settled, lookUpAttribute);
}

/**
 * `attr()`: a string unless it names a type or a unit.
 * Source: CSS Values 5 §7.7, https://drafts.csswg.org/css-values-5/#attr-notation
 */
function substituteAttributes(value: string, lookUpAttribute: LookUpAttribute): string | null {
  if (!/(?:^|[^\w-])attr\(/i.test(value)) return value;
  const tokens = tokenizeCss(value);
  let result = '';
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'attr(') {
      result += tokenText(tokens, i);
      continue;
    }
    const close = Math.min(tokens.closers[i], tokens.count);
    let comma = i + 1;
    while (comma < close && tokens.types[comma] !== T.Comma) comma = skipComponent(tokens, comma);
    const [name = '', type = ''] = textBetween(tokens, i + 1, comma).split(/\s+(.*)/s);
    const attribute = lookUpAttribute(name.toLowerCase());
    let replacement = attribute === null ? null : typedAttribute(attribute, type.trim().toLowerCase());
    if (replacement === null && comma < close) replacement = textBetween(tokens, comma + 1, close);
    if (replacement === null && (type === '' || type === 'raw-string' || type === 'string')) replacement = '""';
    if (replacement === null) return null;
    result += replacement;
    i = close;
  }
  return result;
}

function typedAttribute(value: string, type: string): string | null {
  if (type === '' || type === 'string' || type === 'raw-string')
    return `"${value.replace(/["\\]/g, '\\$&').replace(/\n/g, '\\a ')}"`;
  if (type.startsWith('type(')) return value;
  if (!/^[+-]?(?:\d+(?:\.\d*)?|\.\d+)$/.test(value.trim())) return null;
  return type === 'number' ? value.trim() : `${value.trim()}${type}`;
}

/** No environment variable is defined in a captured page, so `env()` falls back. Source: CSS Environment Variables 1 §3. */
function substituteEnvironment(value: string): string | null {
  if (!/(?:^|[^\w-])env\(/i.test(value)) return value;
  const tokens = tokenizeCss(value);
  let result = '';
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'env(') {
      result += tokenText(tokens, i);
      continue;
    }
    const close = Math.min(tokens.closers[i], tokens.count);
    const name = skipBlank(tokens, i + 1, close);
    const comma = skipBlank(tokens, name + 1, close);
    const isInset = /^safe-area-inset-/i.test(tokenText(tokens, name));
    if (!isInset && (comma >= close || tokens.types[comma] !== T.Comma)) return null;
    result += isInset ? '0px' : textBetween(tokens, comma + 1, close);
    i = close;
  }
  return result;
}

function needsGap(before: string, after: string): boolean {
  return /[\w%-]$/.test(before) && /^[\w%-]/.test(after);
}
