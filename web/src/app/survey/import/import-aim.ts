/** Where an import is to go. */
export interface ImportAim {
  /** Site the pages are added to; `null` for a new one. */
  readonly siteId: number | null;
  /** The page that is captured again; `null` for new pages. */
  readonly page: { readonly name: string; readonly path: string; readonly source: string } | null;
}
