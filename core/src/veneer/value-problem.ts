import { message, type Message } from '../message/message.js';
import { isPropertyValue } from '../properties/is-property-value.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { parseDeclarationList } from '../syntax/parse-stylesheet.js';
import { plainCssOfValue, type OverrideValue } from './override-value.js';
import type { Palette } from './palette.js';

/** Why a browser would not take a value for a property, or the sheet could not hold it; `null` when nothing is wrong. */
export function valueProblem(property: string, value: OverrideValue, palette: Palette): Message | null {
  const css = plainCssOfValue(value, palette).trim();
  const shown = css.length > 60 ? `${css.slice(0, 59)}…` : css;
  const { declarations } = parseDeclarationList(`${property}: ${css}`);
  const problem = wholenessProblem(css);
  if (problem !== null) return message('css.quoted-problem', { shown, problem });
  for (const color of value.kind === 'composite' ? value.colors : []) {
    if (color.kind === 'literal' && (wholenessProblem(color.css) !== null || !isPropertyValue('color', color.css)))
      return message('css.not-colour', { css: color.css.slice(0, 60) });
  }
  const isWhole =
    declarations.length === 1 && declarations[0].value === css && !declarations[0].important && !/[{}]|\/\*/.test(css);
  if (isWhole && isPropertyValue(property, css)) return null;
  return /color$|^fill$|^stroke$/.test(property)
    ? message('css.no-colour', { shown })
    : message('css.takes-no', { shown, property });
}
