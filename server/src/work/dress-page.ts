import { framePage, linkVeneer, type VeneerPlace } from '@upper-veneer/core';

export interface FrameInput {
  readonly html: string;
  readonly path: string;
  /** Address under which the site's files are. */
  readonly filesAt: string;
}

export interface LinkInput {
  readonly html: string;
  readonly path: string;
  /** Address of the veneer, as the page writes it. */
  readonly href: string;
  readonly place: VeneerPlace;
}

export function framePageOf({ html, path, filesAt }: FrameInput): string {
  return framePage(html, { path, filesAt });
}

export function linkVeneerIn({ html, path, href, place }: LinkInput): string {
  return linkVeneer(html, path, href, place);
}
