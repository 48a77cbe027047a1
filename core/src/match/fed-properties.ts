import { allInState, CENSUS_STATES, type CensusState } from '../census/census-states.js';
import type { Painting } from '../census/paintings.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { feedingProperties } from '../resolve/feeding-properties.js';
import { withVeneer } from '../resolve/page.js';
import { sourceOf } from '../resolve/explain.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { colorOfCss } from '../veneer/palette.js';
import type { FoundColors, FoundPlace } from './found-color.js';
import { matchPaintings } from './paintings.js';

/** A place that takes its colour from a custom property. */
export interface Follower extends Pick<FoundPlace, 'pageId' | 'element' | 'pseudo' | 'property' | 'index' | 'state'> {
  readonly hex: string;
  /** Element whose declaration decides it: its own, or one it inherits from. */
  readonly decider: number;
}

/** A custom property of the theme that holds a colour, where one rule declares it, and everything on the site that follows. */
export interface FedProperty {
  /** The same from run to run as long as the declaration is. */
  readonly id: string;
  readonly name: string;
  readonly sheet: string;
  /** From 1; 0 where it is not known. */
  readonly line: number;
  /** Selector of the rule that declares it. */
  readonly selector: string;
  /** The first element it is declared on. */
  readonly spot: Spot;
  /** The colour it holds. */
  readonly hex: string;
  readonly followers: readonly Follower[];
}

/**
 * The custom properties that found colours have their home in, each with all that follows it on the whole site, in the scope
 * and out of it, in every state of the census. A generator: it yields after each page and state.
 * @param width viewport width that is looked at, CSS px.
 */
export function* fedProperties(site: SiteModel, found: FoundColors, width: number): Generator<string, FedProperty[]> {
  const names = new Set(
    found.rows.flatMap(({ homes }) =>
      homes.filter(({ kind }) => kind === 'custom-property').map(({ property }) => property),
    ),
  );
  const fed = new Map<string, FedProperty & { readonly followers: Follower[] }>();
  if (names.size === 0) return [];
  for (const pageId of site.pages.keys()) {
    const page = withVeneer(pageOf(site, pageId), '');
    const share = new StyleShare();
    const atRest = new Map<string, string>();
    for (const state of CENSUS_STATES) {
      const view = new StyleView(page, { environment: { width }, states: allInState(page.document, state), share });
      for (const element of page.document.elements)
        for (const painting of matchPaintings(view, element))
          take(fed, names, { pageId, element, state, painting, atRest });
      yield page.path;
    }
  }
  return [...fed.values()];
}

interface Taken {
  readonly pageId: number;
  readonly element: ElementNode;
  readonly state: CensusState;
  readonly painting: Painting;
  /** What each place follows at rest, and its colour: a state that shows the same is no follower of its own. */
  readonly atRest: Map<string, string>;
}

function take(
  fed: Map<string, FedProperty & { readonly followers: Follower[] }>,
  names: ReadonlySet<string>,
  { pageId, element, state, painting, atRest }: Taken,
): void {
  const { style, decided, pseudo, property, index, color } = painting;
  if (decided?.entry.value.kind !== 'variable') return;
  const hex = hexOf(color);
  for (const { name, style: from, declared } of feedingProperties(style, decided)) {
    if (!names.has(name)) continue;
    const held = colorOfCss(from.customProperty(name) ?? '');
    const source = sourceOf(declared.block, declared.entry.declaration.start);
    if (!held || source.kind !== 'rule') continue;
    const line = source.at?.line ?? 0;
    const id = `${name} ${source.sheet} ${line} ${source.selector}`;
    const place = [element.number, pseudo, property, index, id].join('|');
    if (state === 'rest') atRest.set(place, hex);
    else if (atRest.get(place) === hex) continue;
    let own = fed.get(id);
    if (!own)
      fed.set(
        id,
        (own = {
          id,
          name,
          sheet: source.sheet,
          line,
          selector: source.selector,
          spot: { pageId, element: from.element.number },
          hex: hexOf(held),
          followers: [],
        }),
      );
    own.followers.push({
      pageId,
      element: element.number,
      pseudo,
      property,
      index,
      state,
      hex,
      decider: style.element.number,
    });
  }
}
