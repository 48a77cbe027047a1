import { message, type Message } from '../message/message.js';
import { canonicalName } from './longhands.js';
import { ALL_LONGHANDS, SHORTHANDS } from './shorthands.js';
import { CSS_WIDE_KEYWORDS, hasVariable, isKnownProperty, isPropertyValue } from './is-property-value.js';

/** CSS-wide keywords. Source: CSS Cascading 5 §7.3. */
export type WideKeyword = 'inherit' | 'initial' | 'unset' | 'revert' | 'revert-layer';

/** What a declaration says of one longhand. */
export type DeclaredValue =
  | { readonly kind: 'value'; readonly text: string }
  | { readonly kind: 'wide'; readonly keyword: WideKeyword }
  /** Known once custom properties are; `shorthand` is the shorthand whose expansion waits for it. */
  | { readonly kind: 'variable'; readonly text: string; readonly shorthand: string | null };

export interface LonghandDeclaration {
  readonly property: string;
  readonly value: DeclaredValue;
}

/** The longhands a declaration sets, or why a browser throws it away. */
export type Expansion =
  | { readonly valid: true; readonly longhands: readonly LonghandDeclaration[] }
  | { readonly valid: false; readonly code: 'invalid-declaration' | 'unknown-property'; readonly reason: Message };

const expansions = new Map<string, Expansion>();
const MAX_EXPANSIONS = 50_000;

/**
 * Expands a declaration into longhands; aliases and flow-relative names become physical ones.
 * Longhands outside the product's table come out under their own name.
 * @param property lower case, or a custom property.
 */
export function expandDeclaration(property: string, value: string): Expansion {
  const key = `${property}:${value}`;
  let expansion = expansions.get(key);
  if (!expansion) {
    if (expansions.size > MAX_EXPANSIONS) expansions.clear();
    expansion = expand(property, value);
    expansions.set(key, expansion);
  }
  return expansion;
}

function expand(property: string, value: string): Expansion {
  if (property.startsWith('--')) {
    const wide = wideKeyword(value);
    return {
      valid: true,
      longhands: [
        {
          property,
          value:
            wide ??
            (hasVariable(value) ? { kind: 'variable', text: value, shorthand: null } : { kind: 'value', text: value }),
        },
      ],
    };
  }
  if (!isKnownProperty(property))
    return { valid: false, code: 'unknown-property', reason: message('css.unknown-property', { property }) };
  if (!isPropertyValue(property, value))
    return {
      valid: false,
      code: 'invalid-declaration',
      reason:
        value === ''
          ? message('css.has-no-value', { property })
          : message('css.no-value', { value: clip(value), property }),
    };
  const wide = wideKeyword(value);
  const name = canonicalName(property);
  const shorthand = SHORTHANDS.get(name);
  if (name === 'all') {
    if (!wide)
      return hasVariable(value)
        ? all({ kind: 'variable', text: value, shorthand: 'all' })
        : { valid: false, code: 'invalid-declaration', reason: message('css.all-takes-css-wide') };
    return all(wide);
  }
  if (!shorthand) {
    return {
      valid: true,
      longhands: [
        {
          property: name,
          value:
            wide ??
            (hasVariable(value) ? { kind: 'variable', text: value, shorthand: null } : { kind: 'value', text: value }),
        },
      ],
    };
  }
  if (wide)
    return { valid: true, longhands: shorthand.longhands.map((longhand) => ({ property: longhand, value: wide })) };
  if (hasVariable(value))
    return {
      valid: true,
      longhands: shorthand.longhands.map((longhand) => ({
        property: longhand,
        value: { kind: 'variable', text: value, shorthand: name },
      })),
    };
  const parts = shorthand.expand(value);
  if (!parts)
    return {
      valid: false,
      code: 'invalid-declaration',
      reason: message('css.no-value', { value: clip(value), property }),
    };
  return {
    valid: true,
    longhands: parts.map(([longhand, text]) => ({ property: longhand, value: { kind: 'value', text } })),
  };
}

function all(value: DeclaredValue): Expansion {
  return { valid: true, longhands: ALL_LONGHANDS.map((property) => ({ property, value })) };
}

function wideKeyword(value: string): DeclaredValue | null {
  const word = value.trim().toLowerCase();
  return CSS_WIDE_KEYWORDS.has(word) ? { kind: 'wide', keyword: word as WideKeyword } : null;
}

/**
 * The text of one longhand once the variables in its declaration are substituted.
 * @returns a value, a CSS-wide keyword, or `null`: invalid at computed-value time.
 */
export function settleSubstituted(
  property: string,
  shorthand: string | null,
  text: string,
): Exclude<DeclaredValue, { kind: 'variable' }> | null {
  if (property.startsWith('--')) {
    const wide = wideKeyword(text);
    return wide && wide.kind === 'wide' ? wide : { kind: 'value', text };
  }
  const expansion = expandDeclaration(shorthand ?? property, text);
  if (!expansion.valid) return null;
  const found = expansion.longhands.find((longhand) => longhand.property === property)?.value;
  return found && found.kind !== 'variable' ? found : null;
}

function clip(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
