import type { Spoken } from '@upper-veneer/words';
import type {
  FileReading,
  Override,
  PartLook,
  PictureReading,
  Proof,
  ProofFinding,
  ProofPlace,
  ProofProgress,
  ProofState,
  ReportFacts,
  SiteException,
} from '@upper-veneer/core';
import type { PlacePicture } from './place-picture';

/** A finding without its places, which are asked for. */
export type FindingView = Spoken<Omit<ProofFinding, 'places' | 'mend'>> & {
  /** Elements and pseudo-elements, whatever their states. */
  readonly things: number;
  readonly placeCount: number;
  readonly pageIds: readonly number[];
  readonly partIds: readonly (number | null)[];
  /** Whether a mend is worth looking for. */
  readonly mayMend: boolean;
};

/** What a look at the whole site comes to. */
export type ProofView = Spoken<Omit<Proof, 'findings'>> & {
  readonly findings: readonly FindingView[];
  /** Tells it from those before and after. */
  readonly run: number;
  /** How long it took, ms. */
  readonly took: number;
  /** Pages that were laid out at every width that was looked at. */
  readonly laidOut: number;
};

/** A place with what people call it. */
export type ProofPlaceView = ProofPlace & {
  readonly name: string;
  /** Worst contrast of its text over the picture under it, as it was read; `null` where it was not. */
  readonly overPicture: number | null;
};

/** A picture file whose inks are to be read. */
export interface FileAsk {
  readonly path: string;
  /** Hexes of the grounds it stands on, where it is a logo. */
  readonly grounds: readonly string[];
}

/** A text over a picture whose pixels are to be read. */
export interface PictureAsk {
  readonly findingId: string;
  /** Which of the finding's places. */
  readonly index: number;
  readonly pseudo: string;
  /** Colour of the text, as CSS. */
  readonly ink: string;
  /** Colour between it and the picture, as CSS; `null` where there is none. */
  readonly cover: string | null;
  readonly picture: PlacePicture;
}

/** A part on a page as it is to be drawn. */
export type LookPicture = Pick<PlacePicture, 'forced' | 'amendments'>;

/** A mend that has been tried on the site, or why there is none. */
export type MendView =
  | {
      readonly ok: true;
      readonly label: string;
      readonly put: readonly Override[];
      readonly drop: readonly string[];
      /** The veneer with it, for a frame. */
      readonly frameCss: string;
    }
  | { readonly ok: false; readonly reason: string };

/** What the worker answers of Proof. */
export interface ProofApi {
  /** Viewport widths at which the site is looked at, CSS px, the widest first. */
  proofWidths(): readonly number[];
  /** Looks at the whole site; what cannot have changed since the last time is taken over. `null` when it was stopped. */
  prove(onProgress: (progress: ProofProgress) => void): Promise<ProofView | null>;
  stopProof(): void;
  /** Places of a finding of the proof last made, the worst first. */
  proofPlaces(findingId: string): readonly ProofPlaceView[];
  /** How a place of a finding is drawn, the worst where none is named; `null` where it has none. */
  placePicture(findingId: string, index?: number): PlacePicture | null;
  /** Texts over pictures in the proof last made, at every width; those of one page, width and lighting together. */
  pictureAsks(): readonly PictureAsk[];
  /** Picture files that the site shows, with the grounds that logos stand on; `null` when the site was looked at again meanwhile. */
  fileAsks(): Promise<readonly FileAsk[] | null>;
  /** The proof last made with what the pixels came to; `null` when the site was looked at again meanwhile. */
  withPictures(proof: number, texts: readonly PictureReading[], files: readonly FileReading[]): ProofView | null;
  /** Looks for a mend of a finding of the proof last made; `null` when another was asked for meanwhile. */
  mendOf(findingId: string): Promise<MendView | null>;
  /** The proof last made as a file to hand on: a page for a client, or a table of all places. Empty where nothing was looked at. */
  proofReport(format: 'html' | 'csv', facts: ReportFacts): string;
  /** Every part on every page with a fingerprint of how it looks; `null` when another was asked for meanwhile. */
  partLooks(): Promise<readonly PartLook[] | null>;
  /** How a part on a page is drawn, all of it in a state. */
  lookPicture(look: Pick<PartLook, 'partId' | 'pageId' | 'step' | 'element'>, state: ProofState): LookPicture;
  /** The exception by which a finding is left alone; `null` where no selector tells its places. */
  exceptionFor(findingId: string): SiteException | null;
}
