import type { ElementNode } from '../dom/tree.js';
import { paintingsOf } from '../census/paintings.js';
import { NUMBER_ATTRIBUTE } from '../frame/frame-page.js';
import { rewriteStates } from '../frame/rewrite-states.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { Override } from '../veneer/override.js';
import { plainValuesIn, type OverrideValue, type PlainValue } from '../veneer/override-value.js';
import type { RoleName } from '../veneer/palette.js';
import { compileVeneer } from '../veneer/compile-veneer.js';
import { shortName } from '../selectors/describe-element.js';
import { elementOf, compileOptionsOf, pageOf, partOf, viewIn, type SiteModel } from '../site/site-model.js';
import { matchedInAnyState } from '../selectors/touched.js';

/** The loud test colour: no brand has it by accident, and it shows on any ground. */
export const LOUD = '#ff1fd2';

/** What a flash lays on the frame, and what it shows by name. */
export interface Flash {
  readonly css: string;
  /** Look-alikes told apart: where they stand, and how many. */
  readonly places: readonly { readonly name: string; readonly count: number }[];
}

/** Everything one step of the lineage paints itself, loud. */
export function flashOfStep(site: SiteModel, pageId: number, number: number, pseudo: string, width: number): Flash {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const view = viewIn(page, element, 'rest', width);
  const own = paintingsOf(view, element).filter((painting) => painting.pseudo === pseudo);
  const properties = new Set(own.map(({ property }) => property));
  // A fill is told by itself; its text in the same colour would only vanish.
  if (own.some(({ use }) => use === 'fill' || use === 'gradient')) properties.delete('color');
  const declarations = [...properties].flatMap((property) => loud(property));
  const selector = `[${NUMBER_ATTRIBUTE}="${number}"]${pseudo === '' ? '' : `::${pseudo}`}`;
  return {
    css:
      declarations.length > 0
        ? `${selector} { ${declarations.join('; ')} }`
        : `${selector} { outline: 3px dashed ${LOUD} !important }`,
    places: [{ name: placeName(site, pageId, element), count: 1 }],
  };
}

/** Everything a ply's selector would paint by its property, loud. */
export function flashOfPly(site: SiteModel, pageId: number, selector: string, property: string): Flash {
  const page = pageOf(site, pageId);
  const counts = new Map<string, number>();
  for (const element of matchedInAnyState(page, selector))
    counts.set(placeName(site, pageId, element), (counts.get(placeName(site, pageId, element)) ?? 0) + 1);
  return {
    css: rewriteStates(`${selector} { ${loud(longhandsOfProperty(property)[0]).join('; ')} }`),
    places: [...counts].map(([name, count]) => ({ name, count })),
  };
}

/** The veneer with everything a role colours, loud. */
export function flashOfRole(site: SiteModel, role: RoleName): Flash {
  const isIt = (value: PlainValue): boolean => value.kind === 'role' && value.role === role;
  const turn = (value: PlainValue): PlainValue => (isIt(value) ? { kind: 'literal', css: LOUD } : value);
  const turned = site.overrides.map((override): Override => ({ ...override, value: turnValue(override.value, turn) }));
  const own = site.overrides.filter(({ value }) => plainValuesIn(value).some(isIt));
  const counts = new Map<string, number>();
  for (const { partId } of own) {
    const name = site.source.parts.find(({ id }) => id === partId)?.name ?? 'Everywhere';
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return {
    css: rewriteStates(compileVeneer(turned, compileOptionsOf(site))),
    places: [...counts].map(([name, count]) => ({ name, count })),
  };
}

function turnValue(value: OverrideValue, turn: (value: PlainValue) => PlainValue): OverrideValue {
  if (value.kind === 'house') return value;
  return value.kind === 'composite' ? { ...value, colors: value.colors.map(turn) } : turn(value);
}

function loud(property: string): string[] {
  if (property === 'background-image')
    return [`background-image: none !important`, `background-color: ${LOUD} !important`];
  if (property === 'background-color')
    return [`background-color: ${LOUD} !important`, 'background-image: none !important'];
  if (property === 'box-shadow') return [`box-shadow: 0 0 0 4px ${LOUD} !important`];
  if (property === 'text-shadow') return [`text-shadow: 0 0 4px ${LOUD} !important`];
  if (/color$|^fill$|^stroke$/.test(property)) return [`${property}: ${LOUD} !important`];
  return [`outline: 3px solid ${LOUD} !important`];
}

/** Where an element stands, by the names that tell it from its look-alikes: its part, its landmark, its list. */
function placeName(site: SiteModel, pageId: number, element: ElementNode): string {
  const page = pageOf(site, pageId);
  const part = partOf(site, page, element)?.name;
  let landmark: ElementNode | null = element.parent;
  while (
    landmark &&
    !['nav', 'header', 'footer', 'aside', 'form', 'section', 'article', 'main', 'ul', 'ol', 'table'].includes(
      landmark.localName,
    )
  )
    landmark = landmark.parent;
  const label = landmark?.attributes.get('aria-label') ?? (landmark ? shortName(landmark) : '');
  return [part, label].filter(Boolean).join(', ') || shortName(element);
}
