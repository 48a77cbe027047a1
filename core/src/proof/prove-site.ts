import { CENSUS_STATES } from '../census/census-states.js';
import type { ElementNode } from '../dom/tree.js';
import { proofSettings, type ProofSettings } from '../match/proof-settings.js';
import type { Page } from '../resolve/page.js';
import { inEachLighting, pageOf, type SiteModel } from '../site/site-model.js';
import { unreadPages } from '../site/unread.js';
import { cellsOf, findingsOf, type Found } from './causes.js';
import { SiteKnowledge, partsOn } from './looked.js';
import { lookAtPage, type PageFound, type PageTask } from './page-pass.js';
import type { Proof, Unseen } from './proof-finding.js';
import { ProofMemo } from './proof-memo.js';
import { Reach } from './reach.js';
import { idleRules } from './sheet-use.js';

/** How far a look at a site is. */
export interface ProofProgress {
  readonly done: number;
  readonly of: number;
}

export interface ProofOptions {
  /** Where it is looked at; everywhere that matters to what is painted when absent. */
  readonly at?: ProofSettings;
  /** Pages that are looked at; all when absent. */
  readonly pageIds?: readonly number[];
  /** What was found before, to be taken over where nothing that changed can tell. */
  readonly memo?: ProofMemo;
}

/**
 * Looks at a whole site once: every page in every lighting and setting that matters, in every state, hidden parts opened too.
 * A finding is one cause with all its places.
 * A generator: it yields after each state of each page, so that a caller can show progress and stop.
 */
export function* proveSite(site: SiteModel, options: ProofOptions = {}): Generator<ProofProgress, Proof> {
  const { at = proofSettings(site), pageIds = [...site.pages.keys()], memo = new ProofMemo() } = options;
  const lit = inEachLighting(site);
  const openable = site.source.parts.filter(({ openers }) => openers.length > 0).map(({ id }) => id);
  const all: Found[] = [];
  const uses: PageFound[] = [];
  const pages: Page[] = [];
  const of = lit.length * pageIds.length;
  let done = 0;
  const reach = new Reach(site);
  for (const own of lit) {
    const lighting = own.palette.lighting ?? 'light';
    const known = new SiteKnowledge(own, reach);
    const opened = openable.length > 0 ? memo.opened(own, openable) : null;
    for (const pageId of pageIds) {
      const page = pageOf(own, pageId);
      const looks: (Omit<PageTask, 'site' | 'lighting' | 'known' | 'reach' | 'pageId'> & { readonly layer: string })[] =
        [{ page, layer: 'shown', partIdOf: partsOn(own, page), isIn: () => true }];
      const other = opened && pageOf(opened, pageId);
      if (other && other.document !== page.document) {
        const partIdOf = partsOn(own, other);
        const isIn = (element: ElementNode): boolean => openable.includes(partIdOf(element) ?? -1);
        looks.push({ page: other, layer: 'opened', partIdOf, isIn });
      }
      for (const { layer, ...look } of looks) {
        pages.push(look.page);
        const found = memo.known(own, pageId, layer, look.page, at) ?? [];
        if (found.length === 0) {
          const task: PageTask = { ...look, site: own, pageId, lighting, known, reach };
          const steps = lookAtPage(task, at.settings);
          for (let step = steps.next(); ; step = steps.next()) {
            if (step.done) {
              found.push(step.value);
              break;
            }
            yield { done, of };
          }
          memo.keep(own, pageId, layer, look.page, at, found);
        }
        all.push(...found);
        uses.push(...found);
      }
      done += 1;
      yield { done, of };
    }
  }
  const isWhole = pageIds.length === site.pages.size;
  const idle = isWhole
    ? idleRules(
        site,
        pages,
        uses.map((found) => found.uses),
        reach,
      )
    : null;
  if (idle)
    all.push({
      noted: idle.noted,
      looks: idle.looksByPart,
    });
  const findings = findingsOf(all);
  return {
    findings,
    cells: cellsOf(all, findings),
    looks: all.reduce((sum, { looks }) => sum + [...looks.values()].reduce((own, count) => own + count, 0), 0),
    pages: pageIds.length,
    states: CENSUS_STATES,
    settings: at.settings,
    lightings: lit.map(({ palette }) => palette.lighting ?? 'light'),
    unseen: [...unseenOf(site, at), ...(idle?.unseen ?? [])],
  };
}

function unseenOf(site: SiteModel, { unseen }: ProofSettings): Unseen[] {
  return [
    ...unseen.map((what) => ({ what, reason: 'rules hang on it, and no setting that is looked at stands for it' })),
    ...unreadPages(site).map(({ name, elements, reasons }) => ({
      what: name,
      reason: [...(elements > 0 ? [`${elements} elements were not matched within the bound`] : []), ...reasons].join(
        '; ',
      ),
    })),
    ...(site.palette.swatches.length === 0
      ? [{ what: 'colours that are not the brand’s', reason: 'the palette has none' }]
      : []),
    ...[...new Map([...site.pages].flatMap(([id, page]) => framesOn(site, id, page))).values()],
  ];
}

/** Framed parts: what is in them no stylesheet of the site reaches. */
function framesOn(site: SiteModel, id: number, { document }: Page): [string, Unseen][] {
  const frames = document.elements.filter(({ localName }) => localName === 'iframe').length;
  const name = site.source.pages.find((page) => page.id === id)?.name ?? '';
  return frames === 0
    ? []
    : [[name, { what: `${frames} framed ${frames === 1 ? 'part' : 'parts'} on ${name}`, reason: 'of another origin' }]];
}
