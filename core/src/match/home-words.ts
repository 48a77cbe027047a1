import type { Home } from './found-color.js';

/** Where a colour can be changed, in words: `--bk-lilac, css/basket.css 3`. */
export function describeHome({ kind, sheet, line, property }: Home): string {
  const where = line > 0 ? `${sheet} ${line}` : sheet;
  switch (kind) {
    case 'rule':
      return where;
    case 'custom-property':
      return `${property}, used in ${where}`;
    case 'inline':
      return 'a style attribute';
    case 'attribute':
      return 'an attribute';
    case 'browser':
      return "the browser's own sheet";
    case 'initial':
      return 'no declaration: the initial value';
  }
}
