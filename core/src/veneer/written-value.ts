import MagicString from 'magic-string';
import { skipBlank, T, tokenText, tokenizeCss } from '../syntax/tokens.js';
import { cssOfValue, valueOfCustomProperty } from './custom-property.js';
import type { Naming } from './naming.js';
import type { OverrideValue, PlainValue } from './override-value.js';
import type { Palette } from './palette.js';

/** How a sheer colour of the palette is written, its custom property and its strength in percent apart. */
const SHEER = /^color-mix\(in srgb, var\((--[^\s(),]{1,200})\) (\d{1,3}(?:\.\d{1,2})?)%, transparent\)$/;

/**
 * The value that CSS stands for, colours of the palette by the custom properties they go out under; everything else is literal. Undoes
 * `cssOfValue`.
 * @returns `null` where the palette is named in a way no value is written in.
 */
export function writtenValue(css: string, palette: Palette, naming: Naming): OverrideValue | null {
  const sheer = SHEER.exec(css);
  const whole = sheer && valueOfCustomProperty(sheer[1], palette, naming);
  if (sheer && whole && whole.kind !== 'literal') return { ...whole, alpha: Number(sheer[2]) / 100 };
  const tokens = tokenizeCss(css);
  const edited = new MagicString(css);
  const colors: PlainValue[] = [];
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || tokenText(tokens, i).toLowerCase() !== 'var(') continue;
    const close = tokens.closers[i];
    const name = skipBlank(tokens, i + 1, tokens.count);
    if (name >= close || close >= tokens.count || tokens.types[name] !== T.Ident) continue;
    const value = valueOfCustomProperty(tokenText(tokens, name), palette, naming);
    if (!value) continue;
    edited.update(tokens.starts[i], tokens.ends[close], `{${colors.length}}`);
    colors.push(value);
  }
  if (colors.length === 0) return { kind: 'literal', css };
  const shaped = edited.toString();
  const value: OverrideValue = shaped === '{0}' ? colors[0] : { kind: 'composite', css: shaped, colors };
  return cssOfValue(value, palette, naming) === css ? value : null;
}
