import type { Place } from '../reach/threshold.js';
import type { Page } from '../resolve/page.js';
import type { Override } from '../veneer/override.js';
import type { Setting } from '../conditions/environment.js';
import type { SiteModel } from '../site/site-model.js';
import type { Aim } from './aim.js';
import type { Others } from './others.js';

/** One page before and after an override, and what is asked of it. */
export interface PageQuestion {
  readonly site: SiteModel;
  readonly override: Override;
  readonly aim: Aim;
  readonly others: Others;
  readonly pageId: number;
  readonly after: Page;
  readonly before: Page;
  /** What the rule is to match here; `null` for a selector by hand, which is meant for all it matches. */
  readonly own: readonly Place[] | null;
  readonly watched: readonly string[];
  readonly settings: readonly Setting[];
  /** Where it is read. */
  readonly read: readonly Setting[];
}
