import MagicString from 'magic-string';
import { hexOf } from '../color/read-notation.js';
import type { DeclarationNode } from '../syntax/nodes.js';
import { skipBlank, T, tokenText, tokenizeCss } from '../syntax/tokens.js';
import { sectionsOf, type CompileOptions } from '../veneer/compile-veneer.js';
import { valueOfCustomProperty } from '../veneer/custom-property.js';
import { colorOfValue } from '../veneer/override-value.js';
import { ruleItemAt, sheetItems } from './sheet-items.js';

/** What is copied of a sheet. */
export const PIECES = ['rule', 'declaration', 'value'] as const;
export type Piece = (typeof PIECES)[number];

/** How the palette's colours are written in it: by their property, by that with the colour itself behind it, or by the colour alone. */
export const PIECE_FORMS = ['as written', 'with fallback', 'plain'] as const;
export type PieceForm = (typeof PIECE_FORMS)[number];

/** What to copy, and how. */
export interface PieceQuestion {
  readonly piece: Piece;
  readonly form: PieceForm;
  readonly hasSemicolon: boolean;
}

/** The piece of a sheet at an offset, ready to be pasted elsewhere; `null` where there is none. */
export function pieceAt(
  text: string,
  offset: number,
  { piece, form, hasSemicolon }: PieceQuestion,
  options: CompileOptions,
): string | null {
  const { items } = sheetItems(text, sectionsOf(options));
  const item = ruleItemAt(items, offset);
  if (!item) return null;
  if (piece === 'rule') {
    const lines = item.declarations.map((own) => `  ${declarationText(own)};`);
    const rule = `${item.selector} {\n${lines.join('\n')}\n}`;
    return inForm(
      item.within.reduceRight((inner, condition) => `${condition} {\n${indented(inner)}\n}`, rule),
      form,
      options,
    );
  }
  const own = item.declarations.find(({ start, end }) => start <= offset && offset <= end + 1) ?? item.declarations[0];
  const css = inForm(piece === 'value' ? own.value : declarationText(own), form, options);
  return hasSemicolon ? `${css};` : css;
}

function declarationText({ name, value, important }: DeclarationNode): string {
  return `${name}: ${value}${important ? ' !important' : ''}`;
}

function indented(css: string): string {
  return css
    .split('\n')
    .map((line) => `  ${line}`)
    .join('\n');
}

/** CSS with the palette's custom properties given a literal fallback, or replaced by what they come to. Source: CSS Variables 1 §3. */
function inForm(css: string, form: PieceForm, options: CompileOptions): string {
  if (form === 'as written') return css;
  const edited = new MagicString(css);
  const tokens = tokenizeCss(css);
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'var(') continue;
    const close = tokens.closers[i];
    const name = skipBlank(tokens, i + 1, tokens.count);
    if (name >= close || close >= tokens.count) continue;
    const property = tokenText(tokens, name);
    const value = valueOfCustomProperty(property, options.palette, options);
    const color = value && colorOfValue(value, options.palette);
    if (!color) continue;
    const written = form === 'plain' ? hexOf(color) : `var(${property}, ${hexOf(color)})`;
    edited.update(tokens.starts[i], tokens.ends[close], written);
  }
  return edited.toString();
}
