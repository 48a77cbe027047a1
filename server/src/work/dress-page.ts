import { framePage, linkVeneer, type VeneerPlace } from '@upper-veneer/core';

export interface FrameInput {
  readonly html: string;
  readonly path: string;
  /** Address under which the site's files are. */
  readonly filesAt: string;
  /** Captured documents of framed parts, and the address under which they are. */
  readonly framed?: { readonly paths: readonly string[]; readonly at: string };
}

export interface LinkInput {
  readonly html: string;
  readonly path: string;
  /** Address of the veneer, as the page writes it. */
  readonly href: string;
  readonly place: VeneerPlace;
}

export function framePageOf({ html, path, filesAt, framed }: FrameInput): string {
  return framePage(html, { path, filesAt, framed });
}

export function linkVeneerIn({ html, path, href, place }: LinkInput): string {
  return linkVeneer(html, path, href, place);
}
