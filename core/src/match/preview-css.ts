import { NUMBER_ATTRIBUTE } from '../frame/frame-page.js';
import type { SiteModel } from '../site/site-model.js';
import { plainCssOfValue } from '../veneer/override-value.js';
import { tasksOf } from './lay-tasks.js';
import type { MatchProposal } from './proposal.js';

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

/**
 * A proposal as a sheet for the frame of one page, by the running numbers of its elements: what laying it on will look like, before a
 * selector is written. It never leaves the product.
 */
export function previewCss(site: SiteModel, proposal: MatchProposal, pageId: number, width: number): string {
  const own = {
    ...proposal,
    rows: proposal.rows.map((row) => ({
      ...row,
      found: { ...row.found, places: row.found.places.filter((place) => place.pageId === pageId) },
    })),
  };
  const rules: string[] = [];
  for (const { property, pseudo, state, value, spots } of tasksOf(site, own, width)) {
    const selectors = [...spots.values()].map(
      ({ spot }) =>
        `[${NUMBER_ATTRIBUTE}="${spot.element}"]${STRENGTH}${STATES[state]}${pseudo === '' ? '' : `::${pseudo}`}`,
    );
    if (selectors.length > 0)
      rules.push(`${selectors.join(', ')} { ${property}: ${plainCssOfValue(value, site.palette)} !important }`);
  }
  return rules.join('\n');
}
