import type { TemplateCheck } from '@upper-veneer/core';

/** What the worker answers of the templates a part can come in. */
export interface TemplateApi {
  /** What of a part's match no longer holds in another template; `null` when it was stopped. @param template empty for the part as it was captured. */
  checkTemplate(
    partId: number,
    template: string,
    onProgress: (progress: { readonly done: number; readonly of: number }) => void,
  ): Promise<TemplateCheck | null>;
  stopCheckingTemplates(): void;
}
