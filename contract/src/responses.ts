import type { Message } from '@upper-veneer/words';
import type {
  FormerCapture,
  HouseShape,
  MatchChoices,
  Override,
  Palette,
  RoleName,
  SecondLighting,
  VeneerPlace,
  ClientRequest,
  OwnCss,
  PartTemplate,
  SettingsSheet,
} from '@upper-veneer/core';
import type { LookedBody } from './proof-requests.js';
import type { ExceptionBody, OpenerBody, PartBody } from './site-requests.js';
import type { ProblemDocument } from './problem-document.js';
import type { VisitDocument } from './visits.js';

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
  /** Whether the sheet has plain values instead of custom properties. */
  readonly asValues: boolean;
  /** Names of roles in the sheet that differ from their own. */
  readonly names: Readonly<Partial<Record<RoleName, string>>>;
  /** Whether rules for hover are kept to devices that hover. */
  readonly hoverOnly: boolean;
  /** An older engine that is to be reached; empty for none. */
  readonly flatFor: string;
  /** Whether declarations stand by the letters of their names. */
  readonly isByLetters: boolean;
  /** Where the veneer is loaded; `after:` and a path follows that stylesheet. */
  readonly veneerPlace: VeneerPlace;
  readonly pages: readonly {
    readonly id: number;
    readonly name: string;
    readonly path: string;
    readonly html: string;
    readonly source: string;
  }[];
  /** Stylesheets by path. */
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly parts: readonly (Readonly<Omit<PartBody, 'openers' | 'templates'>> & {
    readonly openers: readonly Readonly<OpenerBody>[];
    readonly templates?: readonly PartTemplate[];
  })[];
  readonly pictures: readonly PictureSummary[];
  /** Captured documents that framed parts show, by path. */
  readonly documents: readonly string[];
  /** What the last import left out, and why. */
  readonly leftOut: readonly LeftOutFile[];
  /** How pages were visited, to be done again. */
  readonly visits: readonly VisitDocument[];
  readonly draft: DraftDocument;
  /** Address of the stand-in host. */
  readonly hostUrl: string;
}

/** A page as it was before it was captured again. */
export interface FormerCaptureDocument extends FormerCapture {
  /** When it was captured again; ISO 8601, UTC. */
  readonly capturedAt: string;
}

/** What visitors are served, as the host answered. */
export interface ServedDocument {
  readonly askedAt: string;
  /** Number of the revision that was published last; `null` for none. */
  readonly published: number | null;
  readonly pages: readonly {
    readonly id: number;
    readonly name: string;
    /** Whether the page brings that revision's bytes, others, none at all, or did not come. */
    readonly standing: 'it' | 'other' | 'none' | 'lost';
    /** Revision whose bytes it brings; `null` for none, or none that is known. */
    readonly revision: number | null;
    /** Seconds that a cache has kept them, and may keep them; `null` where the host does not say. */
    readonly age: number | null;
    readonly maxAge: number | null;
  }[];
  /** Pages that were not asked for. */
  readonly left: number;
  /** Whether each publication has an address of its own. */
  readonly hasNewName: boolean;
  /** Seconds that caches are told to keep a file. */
  readonly maxAge: number;
}

/** A saved revision. */
export interface RevisionDocument {
  readonly number: number;
  readonly note: string;
  /** The sheet as it is published. */
  readonly css: string;
  readonly savedAt: string;
  readonly overrides: readonly Override[];
  /** Whether its palette, names and parts were kept with it. */
  readonly hasBasis: boolean;
}

/** What came of bringing a revision back. */
export interface BroughtBackDocument {
  readonly draft: DraftDocument;
  /** Overrides that stay away, since their page is gone. */
  readonly stranded: number;
  /** Overrides that stay away, since nobody can tell their colour any more. */
  readonly colorless: number;
  /** Whether its palette, names and parts came back too. */
  readonly isWhole: boolean;
}

/** The draft and its history. */
export interface DraftDocument {
  readonly overrides: readonly Override[];
  /** What of the sheet no override can say. */
  readonly ownCss: readonly OwnCss[];
  readonly swatches: Palette['swatches'];
  readonly roles: Palette['roles'];
  /** The second lighting; `null` for a site of one. */
  readonly second: SecondLighting | null;
  /** What of the brand is no colour. */
  readonly shape: HouseShape;
  /** Colours of an older brand that are to go. */
  readonly former: readonly string[];
  readonly exceptions: readonly ExceptionBody[];
  /** Settings sheets of parts, with what was handed over of each. */
  readonly settings: readonly SettingsSheet[];
  /** What the client asked for. */
  readonly requests: readonly ClientRequest[];
  /** What opens the draft's stylesheet to a page elsewhere; `null` while it is switched off. */
  readonly live: string | null;
  /** What is settled of matching each scope, the scope as JSON. */
  readonly plans: readonly { readonly scope: string; readonly choices: MatchChoices }[];
  /** Counts changes to pages, sheets and parts, which are read again when it moves. */
  readonly structure: number;
  /** Label of the change undo would take back; `null` when there is none. */
  readonly undo: string | null;
  readonly redo: string | null;
  /** Counts the changes, so that other tabs notice. */
  readonly version: number;
  readonly revisions: readonly RevisionSummary[];
  /** Number of the newest revision the draft equals; `null` when it differs from all. */
  readonly equalsRevision: number | null;
  readonly publishedRevision: number | null;
  /** How many pages are kept as they were before they were captured again: what drifted is not settled. */
  readonly formerCaptures: number;
  /** Parts on pages that were looked at by eye. */
  readonly looked: readonly Readonly<LookedBody>[];
  /** Drafts whose last steps were undone and written over, the newest first. */
  readonly leftDrafts: readonly LeftDraftSummary[];
}

/** A draft that was left behind. */
export interface LeftDraftSummary {
  readonly id: number;
  /** ISO 8601, UTC. */
  readonly leftAt: string;
  /** The last of the steps that were written over, and how many. */
  readonly label: string;
  readonly steps: number;
  /** How many overrides it has. */
  readonly count: number;
}

export interface RevisionSummary {
  readonly number: number;
  readonly note: string;
  /** ISO 8601, UTC. */
  readonly savedAt: string;
  readonly rules: number;
  /** Present where it holds the sheet as it was compiled, since tidying took too long or failed. */
  readonly isUntidied?: true;
  /** What its proof came to; absent where it was not proved. */
  readonly proof?: { readonly fails: number; readonly toLookAt: number };
}

export interface LeftOutFile {
  readonly path: string;
  /** A text where others said it, or an earlier version did. */
  readonly reason: Message | string;
}

export interface PictureSummary {
  readonly path: string;
  readonly mediaType: string;
  readonly bytes: number;
}

/** How far an import is. */
export interface ImportProgress {
  readonly stage: Message;
  readonly done: number;
  /** 0 when it is not known. */
  readonly total: number;
}

/** How an import ended. */
export type ImportResult =
  | {
      readonly ok: true;
      readonly siteId: number;
      readonly siteName: string;
      readonly pages: readonly string[];
      readonly again: readonly string[];
      /** Of those captured again, the ones that are otherwise than they were. */
      readonly changed: readonly string[];
      /** Stylesheets of the site that are otherwise than they were, by path. */
      readonly changedSheets: readonly string[];
      readonly leftOut: readonly LeftOutFile[];
    }
  | { readonly ok: false; readonly problem: ProblemDocument };

/** What makes one file of a page that somebody has open in a browser of their own. */
export interface PageFileDocument {
  /** For the console of that page. */
  readonly script: string;
  /** The same as the address of a bookmark. */
  readonly bookmark: string;
}
