import type { Page } from '../resolve/page.js';
import { StyleShares, isByWidth } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import type { OverrideState } from '../veneer/override.js';
import type { Setting } from '../conditions/environment.js';
import type { StateMap } from '../selectors/match-context.js';

/** Views of a page, made once for a state and a setting, and what they share. */
export class PageViews {
  readonly #shares: StyleShares;
  readonly #views = new Map<Page, Map<string, StyleView>>();

  constructor(after: Page, before: Page) {
    this.#shares = new StyleShares(isByWidth(after) || isByWidth(before));
  }

  view(page: Page, environment: Setting, state: OverrideState, states: StateMap): StyleView {
    let views = this.#views.get(page);
    if (!views) this.#views.set(page, (views = new Map()));
    const key = `${state}|${JSON.stringify(environment)}`;
    let view = views.get(key);
    if (!view)
      views.set(key, (view = new StyleView(page, { states, environment, share: this.#shares.of(environment) })));
    return view;
  }
}
