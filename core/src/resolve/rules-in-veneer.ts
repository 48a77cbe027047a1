import { flattenSheets } from '../rules/flatten-sheets.js';
import type { StyleRule } from '../rules/style-rule.js';
import { parsePage, VENEER_SHEET_NAME } from './page.js';

/** Style rules of a veneer as a browser reads them, nesting and conditions flattened. */
export function rulesInVeneer(css: string): readonly StyleRule[] {
  const { document } = parsePage('');
  const sheet = {
    name: VENEER_SHEET_NAME,
    origin: 'author' as const,
    text: css,
    media: '',
    tree: document.root,
    owner: null,
    disabled: false,
    title: '',
  };
  return flattenSheets([sheet], () => null).rules;
}
