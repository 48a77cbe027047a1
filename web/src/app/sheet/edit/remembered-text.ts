/** An edited sheet that is not taken over yet, with the sheet it began from. */
export interface RememberedText {
  readonly base: string;
  readonly text: string;
}

const keyOf = (siteId: number): string => `uv-sheet-text-${siteId}`;

/** What was typed of a site's sheet and not taken over; `null` for nothing. */
export function rememberedText(siteId: number): RememberedText | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(siteId)) ?? 'null') as Partial<RememberedText> | null;
    return typeof kept?.base === 'string' && typeof kept.text === 'string'
      ? { base: kept.base, text: kept.text }
      : null;
  } catch {
    return null;
  }
}

/** Keeps what is typed; `null` once it is taken over. @returns whether there was room for it. */
export function rememberText(siteId: number, kept: RememberedText | null): boolean {
  try {
    if (kept) localStorage.setItem(keyOf(siteId), JSON.stringify(kept));
    else localStorage.removeItem(keyOf(siteId));
    return true;
  } catch {
    return false;
  }
}
