import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { Spot } from '../veneer/override.js';
import { SAME_TO_THE_EYE, deltaE2000OfLab, labOf } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { sourceOf } from '../resolve/explain.js';
import type { Color } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { CENSUS_STATES } from './census-states.js';
import { feedingProperties } from '../resolve/feeding-properties.js';
import type { Painting } from './paintings.js';
import type { CensusColor, UseCount, CensusPlace, FeedingProperty, CensusDeclaration } from './census-color.js';

/** Elements that are handed over for one custom property. */
const MOST_FOLLOWERS = 2000;

interface Gathered {
  readonly color: Color;
  readonly places: CensusPlace[];
  readonly declarations: Map<string, { readonly source: Omit<CensusDeclaration, 'places'>; places: number }>;
}

/** Gathers places by colour, and the custom properties that feed them. */
export function createCounter() {
  const colors = new Map<string, Gathered>();
  const properties = new Map<
    string,
    {
      readonly property: Omit<FeedingProperty, 'places' | 'elements' | 'pageIds' | 'followers'>;
      places: number;
      readonly elements: Map<string, Spot>;
      readonly pageIds: Set<number>;
    }
  >();
  return {
    add(painting: Painting, place: CensusPlace): void {
      const hex = hexOf(painting.color);
      let gathered = colors.get(hex);
      if (!gathered) colors.set(hex, (gathered = { color: painting.color, places: [], declarations: new Map() }));
      gathered.places.push(place);
      const source = declarationOf(painting);
      const key = `${source.sheet}\n${source.line}\n${source.selector}\n${source.declaration}`;
      const entry = gathered.declarations.get(key);
      if (entry) entry.places += 1;
      else gathered.declarations.set(key, { source, places: 1 });
      if (place.state !== 'rest' || !painting.decided) return;
      for (const { name, style, declared } of feedingProperties(painting.style, painting.decided)) {
        const value = style.customProperty(name) ?? '';
        const color = colorOfCss(value);
        if (!color) continue;
        // The page's own declaration is what is changed, whether or not an override of ours lies over it; our names for the palette have none.
        const theirs = sourceOf(declared.block, 0).isVeneer
          ? style.ranked(name).find(({ block }) => !sourceOf(block, 0).isVeneer)
          : declared;
        if (!theirs) continue;
        const from = sourceOf(theirs.block, theirs.entry.declaration.start);
        const id = `${name}\n${from.sheet}\n${from.at?.offset ?? place.element}`;
        let feeding = properties.get(id);
        if (!feeding) {
          properties.set(
            id,
            (feeding = {
              property: {
                name,
                value: value.trim(),
                hex: hexOf(color),
                sheet: from.sheet || 'style attribute',
                line: from.at?.line ?? 0,
                selector: from.selector,
                setOn: { pageId: place.pageId, element: style.element.number },
                group: groupOf(theirs.block.rule?.selectorText ?? ''),
              },
              places: 0,
              elements: new Map(),
              pageIds: new Set(),
            }),
          );
        }
        feeding.places += 1;
        feeding.elements.set(`${place.pageId}:${place.element}`, { pageId: place.pageId, element: place.element });
        feeding.pageIds.add(place.pageId);
      }
    },
    result(): { readonly colors: readonly CensusColor[]; readonly properties: readonly FeedingProperty[] } {
      const list = [...colors]
        .map(([hex, gathered]) => summarize(hex, gathered))
        .sort((a, b) => b.area - a.area || b.elements - a.elements || (a.hex < b.hex ? -1 : 1));
      return {
        colors: withGroups(list),
        properties: [...properties.values()]
          .map(({ property, places, elements, pageIds }) => ({
            ...property,
            places,
            elements: elements.size,
            pageIds: [...pageIds],
            followers: [...elements.values()].slice(0, MOST_FOLLOWERS),
          }))
          .sort((a, b) => b.places - a.places || (a.name < b.name ? -1 : 1)),
      };
    },
  };
}

/** The selectors of a rule as one, where they ask for no state and no pseudo-element. */
function groupOf(selector: string): string | null {
  try {
    const list = parseSelectorList(selector);
    const isPlain = list.every(
      ({ pseudoElements, compounds }) =>
        pseudoElements.length === 0 &&
        compounds.every(({ pseudoClasses }) =>
          pseudoClasses.every((test) => test.kind === 'named' && test.name === 'root'),
        ),
    );
    if (!isPlain || list.length === 0) return null;
    return list.length === 1 ? list[0].text : `:is(${selector})`;
  } catch (error) {
    if (error instanceof SelectorError) return null;
    throw error;
  }
}

const keyOf = ({ pageId, element, pseudo }: CensusPlace): string => `${pageId}:${element}:${pseudo}`;

function summarize(hex: string, { places, declarations }: Gathered): Omit<CensusColor, 'group'> {
  const uses = [...new Set(places.map(({ use }) => use))]
    .map((use): UseCount => {
      const own = places.filter((place) => place.use === use);
      return { use, elements: new Set(own.map(keyOf)).size, area: own.reduce((sum, { area }) => sum + area, 0) };
    })
    .sort((a, b) => b.area - a.area || b.elements - a.elements);
  return {
    hex,
    uses,
    elements: new Set(places.map(keyOf)).size,
    area: uses.reduce((sum, { area }) => sum + area, 0),
    states: CENSUS_STATES.filter((state) => places.some((place) => place.state === state)),
    pageIds: [...new Set(places.map(({ pageId }) => pageId))],
    partIds: [...new Set(places.flatMap(({ partId }) => (partId === null ? [] : [partId])))],
    places,
    declarations: [...declarations.values()]
      .map(({ source, places: count }) => ({ ...source, places: count }))
      .sort((a, b) => b.places - a.places),
  };
}

/** Near-duplicates: each colour joins the most painted one within `SAME_TO_THE_EYE` of the same opacity. */
function withGroups(colors: readonly Omit<CensusColor, 'group'>[]): CensusColor[] {
  const leaders: { readonly hex: string; readonly lab: ReturnType<typeof labOf>; readonly alpha: number }[] = [];
  return colors.map((color) => {
    const value = colorOfCss(color.hex);
    if (!value) return { ...color, group: color.hex };
    const lab = labOf(value);
    const alpha = value.alpha ?? 1;
    const leader = leaders.find(
      (other) => Math.abs(other.alpha - alpha) < 0.02 && deltaE2000OfLab(other.lab, lab) <= SAME_TO_THE_EYE,
    );
    if (!leader) leaders.push({ hex: color.hex, lab, alpha });
    return { ...color, group: leader?.hex ?? color.hex };
  });
}

function declarationOf({ decided, property }: Painting): Omit<CensusDeclaration, 'places'> {
  if (!decided) return { declaration: property, sheet: 'initial value', line: 0, selector: '' };
  const { name, value } = decided.entry.declaration;
  const source = sourceOf(decided.block, decided.entry.declaration.start);
  const sheet = {
    rule: source.sheet,
    'style-attribute': 'style attribute',
    'presentational-attribute': 'attribute',
    browser: 'browser default',
  }[source.kind];
  return {
    declaration: `${name}: ${value}${decided.important ? ' !important' : ''}`,
    sheet,
    line: source.at?.line ?? 0,
    selector: source.selector,
  };
}
