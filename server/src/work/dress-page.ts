import { amendmentsOf, framePage, linkVeneer, parsePage, type Opener, type VeneerPlace } from '@upper-veneer/core';

export interface FrameInput {
  readonly html: string;
  readonly path: string;
  /** Address under which the site's files are. */
  readonly filesAt: string;
  /** Captured documents of framed parts, and the address under which they are. */
  readonly framed?: { readonly paths: readonly string[]; readonly at: string };
  /** What the templates that parts are in change on it. */
  readonly acts?: readonly Opener[];
}

export interface LinkInput {
  readonly html: string;
  readonly path: string;
  /** Address of the veneer, as the page writes it. */
  readonly href: string;
  readonly place: VeneerPlace;
}

export function framePageOf({ html, path, filesAt, framed, acts = [] }: FrameInput): string {
  const amendments = acts.length > 0 ? amendmentsOf(parsePage(html, { path }), acts) : undefined;
  return framePage(html, { path, filesAt, framed, amendments });
}

export function linkVeneerIn({ html, path, href, place }: LinkInput): string {
  return linkVeneer(html, path, href, place);
}
