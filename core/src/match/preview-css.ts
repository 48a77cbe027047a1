import { NUMBER_ATTRIBUTE } from '../frame/frame-page.js';
import type { SiteModel } from '../site/site-model.js';
import { plainCssOfValue, type OverrideValue } from '../veneer/override-value.js';
import type { FoundPlace } from './found-color.js';
import { tasksOf } from './lay-tasks.js';
import type { Palette } from '../veneer/palette.js';
import type { MatchProposal } from './proposal.js';
import { colorsBeside } from './shape/colors-beside.js';
import type { ProposedShape } from './shape/propose-shapes.js';
import { shapeTasks } from './shape/shape-tasks.js';
import type { ThemeProperty } from './theme-properties.js';

/** Stronger than what a page can say: three ids that nothing has. */
const STRENGTH = ':not(#uv-a#uv-b#uv-c)';
const STATES: Readonly<Record<string, string>> = {
  rest: '',
  visited: ':visited',
  hover: ':hover',
  focus: ':focus',
  active: ':active',
  checked: ':checked',
  invalid: ':invalid',
  disabled: ':disabled',
};

export interface PreviewOptions {
  /** In the lighting that is shown. */
  readonly palette?: Palette;
  /** Properties of the theme: what follows those that are taken, outside the scope too, is shown as it will be. */
  readonly properties?: readonly ThemeProperty[];
  readonly shapes?: readonly ProposedShape[];
}

/**
 * A proposal as a sheet for the frame of one page, by the running numbers of its elements: what laying it on will look like, before a
 * selector is written. It never leaves the product.
 */
export function previewCss(
  site: SiteModel,
  proposal: MatchProposal,
  pageId: number,
  width: number,
  { palette = site.palette, properties = [], shapes = [] }: PreviewOptions = {},
): string {
  const own = {
    ...proposal,
    rows: proposal.rows.map((row) => ({
      ...row,
      found: { ...row.found, places: row.found.places.filter((place) => place.pageId === pageId) },
    })),
  };
  const selectorOf = (element: number, { pseudo, state }: Pick<FoundPlace, 'pseudo' | 'state'>): string =>
    `[${NUMBER_ATTRIBUTE}="${element}"]${STRENGTH}${STATES[state]}${pseudo === '' ? '' : `::${pseudo}`}`;
  const rules: string[] = [];
  const paint = (selectors: readonly string[], property: string, value: OverrideValue): void => {
    if (selectors.length > 0)
      rules.push(`${selectors.join(', ')} { ${property}: ${plainCssOfValue(value, palette)} !important }`);
  };
  const shaped = shapes.map((shape) => ({
    ...shape,
    found: { ...shape.found, places: shape.found.places.filter((place) => place.pageId === pageId) },
  }));
  for (const task of [...shapeTasks(site, shaped, width), ...tasksOf(site, colorsBeside(own, shaped), width)])
    paint(
      [...task.spots.values()].map(({ spot }) => selectorOf(spot.element, task)),
      task.property,
      task.value,
    );
  for (const { isTaken, value, outside } of properties)
    for (const place of isTaken ? outside : [])
      if (value && place.pageId === pageId && place.index === 0 && place.property.endsWith('color'))
        paint([selectorOf(place.element, place)], place.property, value);
  return rules.join('\n');
}
