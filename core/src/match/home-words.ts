import { message, type Message } from '../message/message.js';
import type { Home } from './found-color.js';

/** Where a colour can be changed, in words: `--bk-lilac, css/basket.css 3`. */
export function describeHome({ kind, sheet, line, property }: Home): Message {
  const where = line > 0 ? `${sheet} ${line}` : sheet;
  switch (kind) {
    case 'rule':
      return message('plain', { text: where });
    case 'custom-property':
      return message('match.used', { property, where });
    case 'inline':
      return message('match.style-attribute');
    case 'attribute':
      return message('match.attribute');
    case 'browser':
      return message('match.browser-sheet');
    case 'initial':
      return message('match.no-declaration-initial-value');
  }
}
