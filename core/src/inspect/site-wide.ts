import { message, type Message } from '../message/message.js';
import type { GridRowName } from '../grid/rows.js';
import { isFocusable, isLink } from '../selectors/element-states.js';
import type { OverrideState, Reach } from '../veneer/override.js';
import { runningLinks } from '../reach/running-links.js';
import { pageOf, type SiteModel } from '../site/site-model.js';

/** Something every page has that is no part of any: where it is looked at, and how far it reaches. */
export interface SiteWideTarget {
  readonly name: Message;
  readonly element: number;
  readonly pseudo: string;
  readonly row: GridRowName;
  readonly state: OverrideState;
  readonly reach: Reach;
  /** Selector of the group it reaches, for that reach. */
  readonly group?: string | null;
  /** How many elements of the site it takes, on how many pages, before anything is written. */
  readonly elements: number;
  readonly pages: number;
  /** What it takes and what it leaves. */
  readonly words: Message;
}

/** Site-wide targets of a page; links and the ring only where something on the site shows them. */
export function siteWideTargets(site: SiteModel, pageId: number): SiteWideTarget[] {
  const { document } = pageOf(site, pageId);
  const pages = [...site.pages.values()];
  const root = document.rootElement.number;
  const running = runningLinks(pages);
  const link = running?.elements.find((element) => document.elements[element.number] === element);
  const all = pages.reduce(
    (sum, page) =>
      sum + page.document.elements.filter((element) => isLink(element) && element.root === page.document.root).length,
    0,
  );
  const focusable = document.elements.find((element) => isFocusable(element) && element.root === document.root);
  const focused = pages.map((page) => page.document.elements.filter((element) => isFocusable(element)).length);
  const whole = { elements: pages.length, pages: pages.length };
  return [
    ...(running && link
      ? [
          {
            name: message('everywhere.name.links'),
            element: link.number,
            pseudo: '',
            row: 'text' as const,
            state: 'rest' as const,
            reach: 'group' as const,
            group: running.selector,
            elements: running.elements.length,
            pages: pages.filter((page) =>
              running.elements.some((element) => page.document.elements[element.number] === element),
            ).length,
            words: message('everywhere.links', { taken: running.elements.length, all, missed: running.missed }),
          },
        ]
      : []),
    {
      name: message('everywhere.name.selection'),
      element: root,
      pseudo: 'selection',
      row: 'fill',
      state: 'rest',
      reach: 'everywhere',
      ...whole,
      words: message('everywhere.selection'),
    },
    {
      name: message('everywhere.name.scrollbar'),
      element: root,
      pseudo: '',
      row: 'thumb',
      state: 'rest',
      reach: 'alike',
      ...whole,
      words: message('everywhere.scrollbars'),
    },
    ...(focusable
      ? [
          {
            name: message('everywhere.name.focus'),
            element: focusable.number,
            pseudo: '',
            row: 'ring' as const,
            state: 'focus' as const,
            reach: 'everywhere' as const,
            elements: focused.reduce((sum, count) => sum + count, 0),
            pages: focused.filter((count) => count > 0).length,
            words: message('everywhere.focus'),
          },
        ]
      : []),
  ];
}
