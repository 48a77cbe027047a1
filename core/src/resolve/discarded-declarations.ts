import { readBlock } from '../cascade/block.js';
import type { Problem } from '../problem.js';
import { createLocator, type Locator } from '../text/source-range.js';
import type { Page } from './page.js';

/** Every declaration of a page's author sheets that a browser throws away: invalid, or of a property nobody knows. */
export function discardedDeclarations(page: Page): Problem[] {
  const locators = new Map<string, Locator>();
  return [...page.base.rules, ...page.veneerRules].flatMap(({ sheet, declarations }) =>
    readBlock(declarations).discarded.map(({ declaration, reason }): Problem => {
      let locate = locators.get(sheet.text);
      if (!locate) locators.set(sheet.text, (locate = createLocator(sheet.text)));
      return {
        code: reason.code === 'css.unknown-property' ? 'unknown-property' : 'invalid-declaration',
        reason,
        loc: { source: sheet.name, start: locate(declaration.start), end: locate(declaration.end) },
      };
    }),
  );
}
