import type { DeclarationNode } from '../syntax/nodes.js';
import { parseColor } from '../values/parse-color.js';

const COLORS = /^(?:background-color|border(?:-(?:top|right|bottom|left))?-color|color)$/;
const LENGTHS =
  /^(?:background-position|border-spacing|border(?:-(?:top|right|bottom|left))?-width|bottom|font-size|height|left|letter-spacing|margin(?:-(?:top|right|bottom|left))?|max-height|max-width|min-height|min-width|padding(?:-(?:top|right|bottom|left))?|right|text-indent|top|vertical-align|width|word-spacing)$/;

const BARE_NUMBER = /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)$/;

/**
 * A declaration as quirks mode reads it: colours without their `#`, lengths without their unit.
 * Source: Quirks Mode Standard §3.2 and §3.3, https://quirks.spec.whatwg.org/
 */
export function readAsQuirk(declaration: DeclarationNode): DeclarationNode {
  const { name, value } = declaration;
  if (COLORS.test(name) && /^(?:[0-9a-f]{3}|[0-9a-f]{6})$/i.test(value) && !parseColor(value))
    return { ...declaration, value: `#${value}` };
  if (LENGTHS.test(name) && value.split(/\s+/).every((word) => BARE_NUMBER.test(word)))
    return {
      ...declaration,
      value: value
        .split(/\s+/)
        .map((word) => `${word}px`)
        .join(' '),
    };
  return declaration;
}
