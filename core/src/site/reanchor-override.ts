import type { Page } from '../resolve/page.js';
import type { Override, Spot } from '../veneer/override.js';
import { reanchor } from './reanchor.js';

/** An override on a page captured again, and what of it was not found there, in words. */
export interface MovedOverride {
  /** The same object where nothing of it stands on the page. */
  readonly override: Override;
  readonly lost: readonly string[];
}

/** Moves all that an override holds of a page to another capture of it: its element, its parent, what lies behind a shadow root, and single matches left out, on whichever page it was made. */
export function reanchorOverride(before: Page, after: Page, pageId: number, override: Override): MovedOverride {
  const lost: string[] = [];
  const find = (number: number, what: string): number | null => {
    const found = reanchor(before, after, number);
    if (found === null) lost.push(`The override of ${override.selector} has no ${what} like its own any more`);
    return found;
  };
  let moved = override;
  if (override.pageId === pageId) {
    const element = find(override.element, 'element');
    if (element !== null) moved = { ...moved, element };
    if (override.parent != null) {
      const parent = find(override.parent, 'parent');
      if (parent !== null) moved = { ...moved, parent };
    }
    if (override.through) {
      const inner = find(override.through.element, 'element behind its shadow root');
      if (inner !== null) moved = { ...moved, through: { ...override.through, element: inner } };
    }
  }
  if (override.spared?.some((spot) => spot.pageId === pageId)) {
    const spared = override.spared.flatMap((spot): Spot[] => {
      if (spot.pageId !== pageId) return [spot];
      const element = find(spot.element, 'match left out');
      return element === null ? [] : [{ pageId, element }];
    });
    moved = { ...moved, spared };
  }
  return { override: moved, lost };
}
