import type { VisitDocument } from '@upper-veneer/contract';

/** Where an import is to go. */
export interface ImportAim {
  /** Site the pages are added to; `null` for a new one. */
  readonly siteId: number | null;
  /** The page that is captured again; `null` for new pages. */
  readonly page: { readonly name: string; readonly path: string; readonly source: string } | null;
  /** The visit that brought the page; absent where none did. */
  readonly visit?: VisitDocument;
  /** Whether all of the site that came from addresses is captured again. */
  readonly isWhole?: boolean;
}
