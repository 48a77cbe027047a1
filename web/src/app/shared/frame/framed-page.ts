import type { Amendments, VeneerPlace } from '@upper-veneer/core';
import type { Scheme } from './frame-scheme';

/** A captured page as a frame is to show it. */
export interface FramedPage {
  readonly url: string;
  readonly veneerPlace: VeneerPlace;
  /** The veneer, its states answering to attributes. */
  readonly frameCss: string;
  /** What opens the hidden parts that are to be seen. */
  readonly amendments: Amendments;
  /** The colour scheme a visitor prefers. */
  readonly scheme: Scheme;
}
