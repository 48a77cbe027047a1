import { say, spoken, type Spoken } from '@upper-veneer/words';
import type { SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import type { Finding } from '../verdict/finding.js';
import { glossOf } from '../verdict/gloss.js';
import { judgeOverride } from '../verdict/verdict.js';

/** The verdict of an override, in English. */
export function judgeInWords(site: SiteModel, override: Override, width: number): Spoken<Finding>[] {
  return spoken(judgeOverride(site, override, width));
}

/** The gloss of an override, in English. */
export function glossInWords(site: SiteModel, override: Override): string {
  return say(glossOf(site, override));
}
