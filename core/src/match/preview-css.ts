import { NUMBER_ATTRIBUTE } from '../frame/frame-page.js';
import type { SiteModel } from '../site/site-model.js';
import { plainCssOfValue, type OverrideValue } from '../veneer/override-value.js';
import type { FoundPlace } from './found-color.js';
import { tasksOf, type Task } from './lay-tasks.js';
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
  const shaped = shapes.map((shape) => ({
    ...shape,
    found: { ...shape.found, places: shape.found.places.filter((place) => place.pageId === pageId) },
  }));
  const tasks = [...shapeTasks(site, shaped, width), ...tasksOf(site, colorsBeside(own, shaped), width)];
  const rules = [previewOfTasks(tasks, pageId, palette)];
  for (const { isTaken, value, outside } of properties)
    for (const place of isTaken ? outside : [])
      if (value && place.pageId === pageId && place.index === 0 && place.property.endsWith('color'))
        rules.push(ruleFor([selectorOf(place.element, place)], place.property, value, palette));
  return rules.join('\n');
}

/** Tasks as a sheet for the frame of one page. */
export function previewOfTasks(tasks: readonly Task[], pageId: number, palette: Palette): string {
  return tasks
    .map((task) => {
      const spots = [...task.spots.values()].filter(({ spot }) => spot.pageId === pageId);
      return ruleFor(
        spots.map(({ spot }) => selectorOf(spot.element, task)),
        task.property,
        task.value,
        palette,
      );
    })
    .filter((rule) => rule !== '')
    .join('\n');
}

function selectorOf(element: number, { pseudo, state }: Pick<FoundPlace, 'pseudo' | 'state'>): string {
  return `[${NUMBER_ATTRIBUTE}="${element}"]${STRENGTH}${STATES[state]}${pseudo === '' ? '' : `::${pseudo}`}`;
}

function ruleFor(selectors: readonly string[], property: string, value: OverrideValue, palette: Palette): string {
  if (selectors.length === 0) return '';
  return `${selectors.join(', ')} { ${property}: ${plainCssOfValue(value, palette)} !important }`;
}
