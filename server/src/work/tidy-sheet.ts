import {
  message,
  dressSite,
  openSite,
  tidySteps,
  type Override,
  type OwnCss,
  type Palette,
  type SiteSource,
} from '@upper-veneer/core';
import type { TellProgress } from './progress.js';

export interface TidyInput {
  readonly source: SiteSource;
  readonly overrides: readonly Override[];
  readonly palette: Palette;
  readonly ownCss: readonly OwnCss[];
}

/** The sheet of some overrides, tidied; `null` where not all of the site could be read, without which nothing is taken away. */
export function tidySheetOf({ source, overrides, palette, ownCss }: TidyInput, tell: TellProgress): string | null {
  const steps = tidySteps(dressSite(openSite(source), overrides, palette, { ownCss }));
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value.unread > 0 ? null : step.value.css;
    tell({ stage: message('stage.tidying'), done: step.value.done, total: step.value.total });
  }
}
