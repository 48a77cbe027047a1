import { allInState, type CensusState } from '../census/census-states.js';
import { withVeneer } from '../resolve/page.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { pageOf, type SiteModel } from '../site/site-model.js';

/** Pages as they arrived, without the veneer, everything in a state at once; each is resolved when it is first asked for. */
export class ArrivedViews {
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
