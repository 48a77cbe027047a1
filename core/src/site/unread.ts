import { distinct, message, type Message } from '../message/message.js';
import type { ProblemCode } from '../problem.js';
import { shortfallOf } from '../resolve/shortfall.js';
import type { SiteModel } from './site-model.js';

/** What of one page was not read, so that figures over it are bounds. */
export interface UnreadPage {
  readonly pageId: number;
  readonly name: string;
  /** Elements whose matching took more steps than the bound. */
  readonly elements: number;
  /** Sheets and rules left out, each with its reason. */
  readonly reasons: readonly Message[];
}

/** Problems that leave out what a browser would read. */
const LEFT_OUT: ReadonlySet<ProblemCode> = new Set(['missing-sheet', 'too-deep', 'too-large']);

/** Pages of which something was not read, as far as they were asked about. */
export function unreadPages(site: SiteModel): UnreadPage[] {
  return [...site.pages].flatMap(([pageId, page]): UnreadPage[] => {
    const elements = shortfallOf(page);
    const reasons = distinct(
      page.problems
        .filter(({ code }) => LEFT_OUT.has(code))
        .map(({ reason, loc }) =>
          loc ? message('css.reason-at', { reason, source: loc.source, line: loc.start.line }) : reason,
        ),
    );
    if (elements === 0 && reasons.length === 0) return [];
    return [{ pageId, name: site.source.pages.find(({ id }) => id === pageId)?.name ?? page.path, elements, reasons }];
  });
}
