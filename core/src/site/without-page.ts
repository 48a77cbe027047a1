import type { Override } from '../veneer/override.js';

/** An override once a page is gone: it is no longer kept to that page, nor spares matches on it. `null` where it was kept to no other page. */
export function withoutPage(override: Override, pageId: number): Override | null {
  const pages = override.pages?.filter((id) => id !== pageId);
  if (pages?.length === 0) return null;
  const isTouched = pages?.length !== override.pages?.length || override.spared?.some((spot) => spot.pageId === pageId);
  return isTouched
    ? {
        ...override,
        ...(pages ? { pages } : {}),
        ...(override.spared ? { spared: override.spared.filter((spot) => spot.pageId !== pageId) } : {}),
      }
    : override;
}
