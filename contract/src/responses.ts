import type { OverrideBody, ROLES } from './requests.js';

export interface SiteSummary {
  readonly id: number;
  readonly name: string;
  readonly pages: number;
}

/** A site as the web client opens it. */
export interface SiteDocument {
  readonly id: number;
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: 'head-end' | 'body-end';
  readonly pages: readonly { readonly id: number; readonly name: string; readonly path: string; readonly html: string }[];
  /** Stylesheets by path. */
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly parts: readonly { readonly id: number; readonly name: string; readonly kind: string; readonly selector: string }[];
  readonly draft: DraftDocument;
  /** Address of the stand-in host. */
  readonly hostUrl: string;
}

/** The draft and its history. */
export interface DraftDocument {
  readonly overrides: readonly OverrideBody[];
  readonly swatches: readonly { readonly id: number; readonly name: string; readonly css: string }[];
  readonly roles: readonly { readonly role: (typeof ROLES)[number]; readonly swatchId: number; readonly shade: number }[];
  /** Label of the change undo would take back; `null` when there is none. */
  readonly undo: string | null;
  readonly redo: string | null;
  /** Counts the changes, so that other tabs notice. */
  readonly version: number;
  readonly revisions: readonly RevisionSummary[];
  /** Number of the newest revision the draft equals; `null` when it differs from all. */
  readonly equalsRevision: number | null;
  readonly publishedRevision: number | null;
}

export interface RevisionSummary {
  readonly number: number;
  readonly note: string;
  /** ISO 8601, UTC. */
  readonly savedAt: string;
  readonly rules: number;
}
