import type { Page } from 'playwright-core';

/** Takes the pointer off the page: a new one stands at its top left, and what lies there is hovered (Chromium from 156 on). */
export function pointAtNothing(page: Page): Promise<void> {
  return page.mouse.move(-10, -10);
}
