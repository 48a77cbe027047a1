import { CENSUS_STATES, allInState, type CensusState } from '../../census/census-states.js';
import { longhandsOfProperty } from '../../properties/grouped.js';
import { withVeneer } from '../../resolve/page.js';
import { StyleShare } from '../../resolve/style-share.js';
import { StyleView } from '../../resolve/style-view.js';
import { elementOf, pageOf, type SiteModel } from '../../site/site-model.js';
import type { OverrideValue } from '../../veneer/override-value.js';
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
  const views = new ViewsByState(site, width);
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
          if (then.block === rest.block) continue;
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

/** Pages as they arrived, everything in a state at once. */
class ViewsByState {
  readonly #views = new Map<string, StyleView>();
  readonly #shares = new Map<number, StyleShare>();

  constructor(
    readonly site: SiteModel,
    readonly width: number,
  ) {}

  viewOf(pageId: number, state: CensusState): StyleView {
    const key = `${pageId}/${state}`;
    let view = this.#views.get(key);
    if (!view) {
      const page = withVeneer(pageOf(this.site, pageId), '');
      let share = this.#shares.get(pageId);
      if (!share) this.#shares.set(pageId, (share = new StyleShare()));
      view = new StyleView(page, {
        environment: { width: this.width },
        states: allInState(page.document, state),
        share,
      });
      this.#views.set(key, view);
    }
    return view;
  }
}
