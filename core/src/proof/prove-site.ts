import { clauses, message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { proofSettings, type ProofSettings } from '../match/proof-settings.js';
import type { Page } from '../resolve/page.js';
import { readSheets } from '../site/read-pages.js';
import { inEachLighting, pageOf, type SiteModel } from '../site/site-model.js';
import { isSpecimen } from '../site/specimen-path.js';
import { unreadPages } from '../site/unread.js';
import type { ElementFound, Found } from './causes.js';
import { FindingGathering } from './gather-findings.js';
import { idleRules } from './idle-rules.js';
import { SiteKnowledge, partsOn } from './looked.js';
import { lookAtPage, type PageFound, type PageTask } from './page-pass.js';
import { PROOF_KINDS, type Proof, type Unseen } from './proof-finding.js';
import { ProofMemo } from './proof-memo.js';
import { PROOF_STATES } from './proof-state.js';
import { Reach } from './reach.js';

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
 * A generator: it yields as pages are read, and after some elements in each state of each page, so that a caller can show progress and stop.
 */
export function* proveSite(site: SiteModel, options: ProofOptions = {}): Generator<ProofProgress, Proof> {
  const { pageIds = [...site.pages.keys()], memo = new ProofMemo() } = options;
  const lit = inEachLighting(site);
  const of = lit.length * pageIds.length;
  // Where to look is told by all pages, which are read when they are asked for.
  const sheets = readSheets(site);
  while (!sheets.next().done) yield { done: 0, of };
  for (const pageId of site.pages.keys()) {
    pageOf(site, pageId);
    yield { done: 0, of };
  }
  const at = options.at ?? proofSettings(site);
  yield { done: 0, of };
  const openable = site.source.parts.filter(({ openers }) => openers.length > 0).map(({ id }) => id);
  const gathering = new FindingGathering();
  const pages: Page[] = [];
  let done = 0;
  let leftAlone = 0;
  const hidden = new Map<number, number>();
  const reach = new Reach(site);
  for (const own of lit) {
    const lighting = own.palette.lighting ?? 'light';
    const known = new SiteKnowledge(own, reach);
    const opened = openable.length > 0 ? memo.opened(own, openable) : null;
    for (const pageId of pageIds) {
      const layers: Found[] = [];
      for (const { layer, ...look } of layersOf(own, opened, pageId, openable)) {
        pages.push(look.page);
        const before = memo.known(own, pageId, layer, look.page, at);
        let found = before?.found ?? null;
        if (!found || before?.changed) {
          const changed = before?.changed ?? null;
          const isIn = (element: ElementNode): boolean => look.isIn(element) && (changed?.has(element) ?? true);
          const task: PageTask = { ...look, isIn, site: own, pageId, lighting, known, reach };
          const steps = lookAtPage(task, at.settings);
          let step = steps.next();
          for (; !step.done; step = steps.next()) yield { done, of };
          found = found && changed ? merged(found, step.value, changed) : step.value;
          memo.keep(own, pageId, layer, look.page, at, found);
        }
        layers.push(found.found);
        gathering.take(found.found);
        // Elements of opened parts are among those of the page as it is captured.
        if (layer === 'shown') leftAlone += found.leftAlone;
      }
      hidden.set(pageId, unseenIn(layers));
      done += 1;
      yield { done, of };
    }
  }
  const aside = new Set(site.source.pages.filter(isSpecimen).map(({ id }) => id));
  const isWhole = pageIds.length === site.pages.size;
  const idle = isWhole ? idleRules(site, pages, gathering.uses, reach) : null;
  if (idle) gathering.take(asFound(idle));
  const findings = gathering.findings();
  const cells = gathering.cells(findings);
  return {
    findings,
    cells,
    looks: cells.reduce((sum, { looks }) => sum + looks, 0),
    pages: pageIds.filter((id) => !aside.has(id)).length,
    hasSpecimen: pageIds.some((id) => aside.has(id)),
    states: PROOF_STATES,
    settings: at.settings,
    lightings: lit.map(({ palette }) => palette.lighting ?? 'light'),
    unseen: [...unseenOf(site, at), ...hiddenOn(site, hidden), ...(idle?.unseen ?? [])],
    leftAlone: leftAlone / lit.length,
  };
}

type Layer = Pick<PageTask, 'page' | 'partIdOf' | 'isIn'> & { readonly layer: string };

/** A page as it is captured, and, where parts of it are hidden, those opened. */
function layersOf(site: SiteModel, opened: SiteModel | null, pageId: number, openable: readonly number[]): Layer[] {
  const page = pageOf(site, pageId);
  const layers: Layer[] = [{ page, layer: 'shown', partIdOf: partsOn(site, page), isIn: () => true }];
  const other = opened && pageOf(opened, pageId);
  if (other && other.document !== page.document) {
    const partIdOf = partsOn(site, other);
    layers.push({
      page: other,
      layer: 'opened',
      partIdOf,
      isIn: (element) => openable.includes(partIdOf(element) ?? -1),
    });
  }
  return layers;
}

/** What was found before, with what was looked at again in its place. */
function merged(before: PageFound, again: PageFound, changed: ReadonlySet<ElementNode>): PageFound {
  const found = new Map(before.found);
  for (const { number } of changed) found.delete(number);
  for (const [number, element] of again.found) found.set(number, element);
  return { found, leftAlone: again.leftAlone };
}

/** Findings of rules beside those of elements: by the part they are filed under. */
function asFound({ noted, looks }: NonNullable<ReturnType<typeof idleRules>>): Found {
  const found = new Map<number, ElementFound>();
  [...new Set(looks)].forEach((partId, i) =>
    found.set(i, {
      partId,
      noted: noted.filter(({ place }) => place.partId === partId),
      looks: PROOF_KINDS.map((kind) => (kind === 'holds' ? looks.filter((own) => own === partId).length : 0)),
      uses: null,
      isUnseen: false,
    }),
  );
  return found;
}

/** Texts of a page that show in none of its layers. */
function unseenIn(layers: readonly Found[]): number {
  const [shown, ...opened] = layers;
  return [...shown].filter(
    ([number, { isUnseen }]) => isUnseen && opened.every((layer) => layer.get(number)?.isUnseen ?? true),
  ).length;
}

function hiddenOn(site: SiteModel, hidden: ReadonlyMap<number, number>): Unseen[] {
  return [...hidden]
    .filter(([, count]) => count > 0)
    .map(([pageId, count]) => ({
      what: message('proof.hidden', { count, name: nameOf(site, pageId) }),
      reason: message('proof.no-state-shows-them'),
    }));
}

function nameOf(site: SiteModel, pageId: number): string {
  return site.source.pages.find(({ id }) => id === pageId)?.name ?? '';
}

function unseenOf(site: SiteModel, { unseen }: ProofSettings): Unseen[] {
  return [
    ...unseen.map((what) => ({
      what,
      reason: message('proof.rules-hang-no-setting'),
    })),
    ...unreadPages(site).map(({ name, elements, reasons }) => ({
      what: message('plain', { text: name }),
      reason: clauses([
        ...(elements > 0 ? [message('proof.elements-were-not-matched', { elements })] : []),
        ...reasons,
      ]),
    })),
    ...(site.css !== '' && site.overrides.length === 0
      ? [{ what: message('proof.what-rules-change-outside'), reason: message('proof.no-reach-known-sheet') }]
      : []),
    ...(site.ownCss.some(({ partId }) => partId === null)
      ? [
          {
            what: message('proof.what-own-css-no'),
            reason: message('proof.stands-section-site-may'),
          },
        ]
      : []),
    ...(site.palette.swatches.length === 0
      ? [{ what: message('proof.colours-are-not-brand'), reason: message('proof.palette-has-none') }]
      : []),
    ...[...site.pages].flatMap(([id, page]) => framesOn(site, id, page)),
  ];
}

/** Framed parts: what is in them no stylesheet of the site reaches. */
function framesOn(site: SiteModel, pageId: number, { document }: Page): Unseen[] {
  const frames = document.elements.filter(({ localName }) => localName === 'iframe').length;
  if (frames === 0) return [];
  const what = message('proof.framed', { frames, name: nameOf(site, pageId) });
  return [{ what, reason: message('proof.another-origin') }];
}
