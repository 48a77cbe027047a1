import type { Page } from 'playwright-core';

export interface Calm {
  /** Shortest time that is looked, ms. */
  readonly least: number;
  /** How long nothing may change and nothing be asked for, ms. */
  readonly quiet: number;
  /** Longest time that is looked, ms. */
  readonly most: number;
}

/** After a page has come: scripts put things in a while after. */
export const AFTER_OPENING: Calm = { least: 1200, quiet: 250, most: 8000 };
/** After it was scrolled through. */
export const AFTER_SCROLLING: Calm = { least: 120, quiet: 150, most: 4000 };
/** After something was done to it. */
export const AFTER_STEP: Calm = { least: 250, quiet: 300, most: 5000 };

/**
 * Waits until a page has come to rest: its tree does not change and it asks for nothing, for a while.
 * @param asking how many requests are under way.
 * @param begun from when it is looked, ms.
 * @returns whether it did so within the time.
 */
export async function settle(page: Page, asking: () => number, calm: Calm, begun: number): Promise<boolean> {
  let quietSince = Date.now();
  let lastMark = '';
  for (;;) {
    const now = Date.now();
    // What the tree says of itself is cheap to ask, and asks nothing of the page's own scripts.
    const mark = await page.evaluate(markOfTree).catch(() => `gone ${now}`);
    if (mark !== lastMark || asking() > 0) quietSince = now;
    lastMark = mark;
    if (now - begun >= calm.least && now - quietSince >= calm.quiet) return true;
    if (now - begun >= calm.most) return false;
    await new Promise((done) => setTimeout(done, 60));
  }
}

/** Numbers that are others once a tree, its looks or its place have changed. */
function markOfTree(): string {
  const roots: (Document | ShadowRoot)[] = [document];
  let elements = 0;
  let attributes = 0;
  for (const root of roots)
    for (const element of root.querySelectorAll('*')) {
      elements += 1;
      attributes += element.attributes.length + element.className.length;
      if (element.shadowRoot) roots.push(element.shadowRoot);
    }
  const sheets = roots.reduce((sum, root) => sum + root.styleSheets.length + root.adoptedStyleSheets.length, 0);
  const scroll = document.documentElement.scrollHeight;
  return [document.readyState, elements, attributes, sheets, scroll, location.href].join();
}
