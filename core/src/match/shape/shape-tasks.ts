import { ranksAlike } from '../../cascade/block.js';
import { CENSUS_STATES, type CensusState } from '../../census/census-states.js';
import { longhandsOfProperty } from '../../properties/grouped.js';
import { elementOf, type SiteModel } from '../../site/site-model.js';
import type { OverrideValue } from '../../veneer/override-value.js';
import { ArrivedViews } from '../arrived-views.js';
import type { Task } from '../lay-tasks.js';
import type { ProposedShape } from './propose-shapes.js';

/** What laying shapes on writes: each at rest; a state that says the same again takes it too, one that says another keeps that. */
export function shapeTasks(site: SiteModel, shapes: readonly ProposedShape[], width: number): Task[] {
  const tasks = new Map<string, Task>();
  const add = (
    property: string,
    state: CensusState,
    value: OverrideValue,
    spot: { readonly pageId: number; readonly element: number },
    about: Pick<Task, 'isKept' | 'isEcho'>,
  ): void => {
    const id = JSON.stringify([property, state, value, about]);
    const task = tasks.get(id) ?? { property, pseudo: '', state, value, isOfAll: false, ...about, spots: new Map() };
    tasks.set(id, task);
    task.spots.set(`${spot.pageId}:${spot.element}`, { spot: { ...spot }, places: 1 });
  };
  const views = new ArrivedViews(site, width);
  const isTypeLaid = shapes.some(({ found, value }) => found.part === 'text-family' && value);
  for (const { found, value } of shapes) {
    // A heading that stays may take its family from what is overridden around it.
    if (!value && isTypeLaid && found.part === 'heading-family')
      for (const { pageId, element } of found.places)
        add(
          'font-family',
          'rest',
          { kind: 'literal', css: found.value },
          { pageId, element },
          { isKept: true, isEcho: false },
        );
    if (!value) continue;
    for (const { properties, ...spot } of found.places)
      for (const property of properties) {
        add(property, 'rest', value, spot, { isKept: false, isEcho: false });
        const [longhand] = longhandsOfProperty(property);
        for (const state of CENSUS_STATES) {
          if (state === 'rest' || state === 'visited') continue;
          const [rest, then] = (['rest', state] as const).map((own) => {
            const view = views.viewOf(spot.pageId, own);
            const style = view.style(elementOf(view.page, spot.element));
            return { css: style.resolved(longhand), block: style.ranked(longhand)[0]?.block };
          });
          if (ranksAlike(then.block, rest.block)) continue;
          if (then.css === rest.css) add(property, state, value, spot, { isKept: false, isEcho: true });
          else add(property, state, { kind: 'literal', css: then.css }, spot, { isKept: true, isEcho: false });
        }
      }
  }
  // Rest first, what is kept last, so that it is seen what covers it.
  return [...tasks.values()].sort((a, b) => order(a) - order(b));
}

function order({ state, isKept }: Task): number {
  return isKept ? 2 : state === 'rest' ? 0 : 1;
}
