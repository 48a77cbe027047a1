const LAST_SITE = 'uv-site';

/** The site this tab had open, then the one any tab opened last. */
export function rememberedSites(): number[] {
  return [sessionStorage, localStorage].map((storage) => Number(storage.getItem(LAST_SITE)));
}

export function rememberSite(id: number): void {
  for (const storage of [sessionStorage, localStorage]) storage.setItem(LAST_SITE, String(id));
}
