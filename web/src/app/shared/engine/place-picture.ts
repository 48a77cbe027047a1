import {
  lightSite,
  oneInState,
  pageOf,
  shownOtherwise,
  type AttributeChange,
  type Lighting,
  type ProofPlace,
  type SiteModel,
} from '@upper-veneer/core';
import type { ForcedStates } from './forced-states';

/** One place as it is to be drawn. */
export interface PlacePicture {
  readonly pageId: number;
  readonly element: number;
  readonly width: number;
  readonly lighting: Lighting;
  readonly forced: ForcedStates;
  /** What opens hidden parts and calls the lighting. */
  readonly amendments: readonly (readonly [number: number, changes: readonly AttributeChange[]])[];
}

/** Where something is drawn, and in which state. */
export type DrawnPlace = Pick<ProofPlace, 'pageId' | 'element' | 'partId' | 'state' | 'lighting' | 'setting'>;

/** How a place is drawn, its part opened where it is hidden. */
export function pictureOf(site: SiteModel, place: DrawnPlace): PlacePicture {
  const { pageId, element, state, lighting, setting } = place;
  const lit = lightSite(site, lighting);
  const parts = lit.source.parts.filter((part) => part.id === place.partId && part.openers.length > 0);
  const { document } = pageOf(lit, pageId);
  return {
    pageId,
    element,
    width: setting.width,
    lighting,
    forced: [...oneInState(document, document.elements[element], state)].map(([node, names]) => ({
      element: node.number,
      names: [...names],
    })),
    amendments: [
      ...shownOtherwise(
        lit,
        pageId,
        parts.map((part) => part.id),
      ),
    ],
  };
}
