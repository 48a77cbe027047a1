import MagicString from 'magic-string';
import { generate, parse, walk, type CssNode } from 'css-tree';
import { isColorFunction, parseColorNode } from '../values/parse-color.js';
import { BLACK } from '../values/color.js';
import { resolveColorValue } from '../values/compute-color.js';
import { boundValue, type CompositeValue, type OverrideValue, type PlainValue } from './override-value.js';
import type { Palette } from './palette.js';

/**
 * A value with its colours lifted out, each bound to the palette where the palette has it: the stops of a gradient, the
 * colours of shadows. Colours that hang on their surroundings stay in the text.
 * @param css such as `linear-gradient(90deg, #fff 0%, rgb(0, 0, 0) 100%)`.
 */
export function readComposite(css: string, palette: Palette): CompositeValue {
  const colors: PlainValue[] = [];
  const edited = new MagicString(css);
  let root: CssNode;
  try {
    root = parse(css, {
      context: 'value',
      positions: true,
      onParseError: (error) => {
        throw error;
      },
    });
  } catch {
    return { kind: 'composite', css, colors: [] };
  }
  walk(root, {
    enter(node: CssNode) {
      if (node.type === 'Url' || (node.type === 'Function' && node.name === 'var')) return walk.skip;
      const mayBeColor =
        node.type === 'Hash' || node.type === 'Identifier' || (node.type === 'Function' && isColorFunction(node.name));
      const value = mayBeColor ? parseColorNode(node) : null;
      const color =
        value && !/currentcolor/i.test(generate(node))
          ? resolveColorValue(value, { scheme: 'light', currentColor: BLACK })
          : null;
      if (!color || !node.loc) return undefined;
      edited.update(node.loc.start.offset, node.loc.end.offset, `{${colors.length}}`);
      colors.push(boundValue(color, palette));
      return walk.skip;
    },
  });
  return { kind: 'composite', css: edited.toString(), colors };
}

/** A plain colour laid over whatever pictures a value holds, `percent` of it opaque: the overlay of a heading over a picture. */
export function withOverlay(css: string, color: PlainValue, percent: number): CompositeValue {
  const picture = /url\((?:"[^"]*"|'[^']*'|[^)]*)\)/i.exec(css)?.[0] ?? '';
  const layer = `color-mix(in srgb, {0} ${Math.round(percent)}%, transparent)`;
  return {
    kind: 'composite',
    css: `linear-gradient(${layer}, ${layer})${picture === '' ? '' : `, ${picture}`}`,
    colors: [color],
  };
}

/** How strong the overlay over a picture is in a value, percent; 0 where it has none. */
export function overlayStrength(value: OverrideValue): number {
  return value.kind === 'composite' ? Number(/\{0\} (\d+)%, transparent/.exec(value.css)?.[1] ?? 0) : 0;
}
