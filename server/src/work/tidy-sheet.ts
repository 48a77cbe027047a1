import { dressSite, openSite, tidySteps, type Override, type Palette, type SiteSource } from '@upper-veneer/core';
import type { TellProgress } from './progress.js';

export interface TidyInput {
  readonly source: SiteSource;
  readonly overrides: readonly Override[];
  readonly palette: Palette;
}

/** The sheet of some overrides, tidied. */
export function tidySheetOf({ source, overrides, palette }: TidyInput, tell: TellProgress): string {
  const steps = tidySteps(dressSite(openSite(source), overrides, palette));
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value.css;
    tell({ stage: 'Tidying', done: step.value.done, total: step.value.total });
  }
}
