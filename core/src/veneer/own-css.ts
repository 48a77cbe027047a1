import { message, type Message } from '../message/message.js';
import MagicString from 'magic-string';
import { skipBlank, T, tokenText, tokenizeCss } from '../syntax/tokens.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { valueOfCustomProperty } from './custom-property.js';
import type { Naming } from './naming.js';
import { plainCssOfValue, type OverrideValue, type PlainValue } from './override-value.js';
import { paletteIn, type Palette } from './palette.js';

/** CSS that no override can say, kept as it was written: it stands at the end of a part's section. */
export interface OwnCss {
  /** Part whose section it stands in; `null` for the last section, which is of no part. */
  readonly partId: number | null;
  readonly css: string;
}

/** Longest that is kept for one section, UTF-16 units. */
export const MOST_OWN_CSS = 400_000;

/** At-rules that are read at the head of a sheet alone, where nothing of a section stands. Source: CSS Cascade 5 §2, CSS Syntax 3 §3.2. */
const HEAD_ONLY: ReadonlySet<string> = new Set(['import', 'charset', 'namespace']);

/** Why a text cannot stand in a section; `null` when it can, and nothing of it tells on what follows. */
export function ownCssProblem(css: string): Message | null {
  if (css.length > MOST_OWN_CSS) return message('css.has-characters-bound', { count: css.length, bound: MOST_OWN_CSS });
  const problem = wholenessProblem(css);
  if (problem !== null) return problem;
  const head = parseStylesheet(css).rules.find((rule) => rule.kind === 'at' && HEAD_ONLY.has(rule.name));
  return head?.kind === 'at' ? message('css.holds-which-read-head', { name: head.name }) : null;
}

/**
 * Own CSS as the sheet has it: it may name the palette's custom properties, which are declared with those that overrides use, or written
 * as values where the sheet has no custom properties.
 * @param write CSS of a value of the palette; what it leans on is declared.
 */
export function writeOwnCss(
  css: string,
  palette: Palette,
  naming: Naming,
  write: (value: OverrideValue) => string,
): string {
  const edited = new MagicString(css);
  for (const { value, start, end } of paletteUses(css, palette, naming)) {
    const written = write(value);
    if (naming.asValues && end !== null) edited.update(start, end, written);
  }
  return edited.toString();
}

/** How many colours of the palette own CSS shows in the first lighting's value alone: written as values, they have one. */
export function colorsInOneLighting(css: string, palette: Palette, naming: Naming): number {
  if (!palette.second || !naming.asValues) return 0;
  const [light, inverted] = [paletteIn(palette, 'light'), paletteIn(palette, 'inverted')];
  return [...paletteUses(css, palette, naming)].filter(
    ({ value }) => plainCssOfValue(value, light) !== plainCssOfValue(value, inverted),
  ).length;
}

/** A `var()` in a text, UTF-16 units; `end` is `null` where it is left open. */
interface Use {
  readonly start: number;
  readonly end: number | null;
}

/** Each `var()` of a custom property of the palette's, with what it stands for. */
export function* paletteUses(
  css: string,
  palette: Palette,
  naming: Naming,
): Generator<Use & { readonly value: PlainValue }> {
  for (const { name, ...use } of customPropertyUses(css)) {
    const value = valueOfCustomProperty(name, palette, naming);
    if (value) yield { ...use, value };
  }
}

/** Each `var()` in a text, with the name it asks for. */
export function* customPropertyUses(css: string): Generator<Use & { readonly name: string }> {
  const tokens = tokenizeCss(css);
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'var(') continue;
    const name = skipBlank(tokens, i + 1, tokens.count);
    if (name >= tokens.count || tokens.types[name] !== T.Ident) continue;
    const close = tokens.closers[i];
    const end = close < tokens.count ? tokens.ends[close] : null;
    yield { name: tokenText(tokens, name), start: tokens.starts[i], end };
  }
}
