import { checkTemplate, lightSite, type SiteModel } from '@upper-veneer/core';
import { inTurns } from './in-turns';
import type { TemplateApi } from './template-api';

/** What the worker answers of the templates a part can come in, for the site it has open. */
export function templateAnswers(opened: () => SiteModel): TemplateApi {
  let run = 0;
  return {
    checkTemplate(partId, template, onProgress) {
      const own = (run += 1);
      const steps = checkTemplate(lightSite(opened(), 'light'), partId, template);
      return inTurns(steps, () => own === run, onProgress);
    },
    stopCheckingTemplates() {
      run += 1;
    },
  };
}
