import { VENEER_SHEET_NAME } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { partProgress } from './part-progress.js';
import { showsText } from '../resolve/text-figures.js';
import { pageOf, type SiteModel } from '../site/site-model.js';

/** Something of a site that shows on its pages: a part, a stylesheet by its name, a font family as the pages ask for it. */
export type Topic =
  | { readonly kind: 'part'; readonly partId: number }
  | { readonly kind: 'sheet'; readonly name: string }
  | { readonly kind: 'font'; readonly family: string };

/** Running numbers of the elements of a page in which something shows, at rest: of a part the outermost ones, of a stylesheet those that its rules reach. @param width viewport, CSS px. */
export function whereItShows(site: SiteModel, pageId: number, topic: Topic, width: number): number[] {
  const page = pageOf(site, pageId);
  if (topic.kind === 'part')
    return [...(partProgress(site, pageId, width).find(({ partId }) => partId === topic.partId)?.elements ?? [])];
  const view = new StyleView(page, { environment: { width } });
  return page.document.elements
    .filter((element) => {
      const style = view.style(element);
      if (topic.kind === 'font')
        return showsText({ element, pseudo: '' }) && style.resolved('font-family') === topic.family;
      return style.blocks.some(
        ({ rule }) =>
          rule !== null &&
          rule.sheet.origin === 'author' &&
          rule.sheet.name !== VENEER_SHEET_NAME &&
          rule.sheet.name === topic.name,
      );
    })
    .map(({ number }) => number);
}
