import { generate, parse, walk, type CssNode } from 'css-tree';
import { hexOf } from '../color/read-notation.js';
import { colorOfCss } from './palette.js';

/** A colour as a sheet writes it. */
export interface SheetColor {
  /** Offset in the text, UTF-16 units from 0. */
  readonly start: number;
  readonly end: number;
  /** Empty where it is still to be filled in. */
  readonly hex: string;
}

/** Stands in snippets where a colour is to be filled in. */
export const PLACEHOLDER = 'PLACEHOLDER';

/**
 * Colours that stand in a sheet's declarations, in order: by their notation, or by a custom property that the sheet defines for its
 * root. Those that hang on their surroundings, or show nothing, are left out.
 */
export function colorsInSheet(css: string): SheetColor[] {
  const found: SheetColor[] = [];
  const root = parse(css, { positions: true, parseCustomProperty: true, parseRulePrelude: false });
  const defined = new Map<string, string>();
  walk(root, {
    visit: 'Declaration',
    enter(node) {
      if (node.property.startsWith('--') && !defined.has(node.property))
        defined.set(node.property, generate(node.value));
    },
  });
  walk(root, {
    visit: 'Declaration',
    enter(declaration) {
      walk(declaration.value, {
        enter(node: CssNode) {
          if (node.type === 'Url' || !node.loc) return undefined;
          const [start, end] = [node.loc.start.offset, node.loc.end.offset];
          if (node.type === 'Function' && node.name.toLowerCase() === 'var') {
            const [name] = generate(node).slice(4, -1).split(',', 1);
            const color = colorOfCss(defined.get(name.trim()) ?? '');
            if (color) found.push({ start, end, hex: hexOf(color) });
            return walk.skip;
          }
          if (node.type !== 'Hash' && node.type !== 'Identifier' && node.type !== 'Function') return undefined;
          const text = generate(node);
          if (text === PLACEHOLDER) found.push({ start, end, hex: '' });
          const color = /currentcolor/i.test(text) ? null : colorOfCss(text);
          if (!color || color.alpha === 0) return undefined;
          found.push({ start, end, hex: hexOf(color) });
          return walk.skip;
        },
      });
    },
  });
  return found;
}
