import {
  ProofMemo,
  StyleView,
  elementOf,
  exceptionFor,
  hexOf,
  isSpecimen,
  lightSite,
  openParts,
  pageOf,
  partLooks,
  partOf,
  plainName,
  oneInState,
  proofSettings,
  proveSite,
  reportCsv,
  reportHtml,
  specimenPage,
  rewriteStates,
  shownOtherwise,
  thingsOf,
  tryMend,
  wholeInState,
  withSpecimen,
  type Proof,
  type ProofFinding,
  type ProofPlace,
  type SiteModel,
  type SiteSource,
} from '@upper-veneer/core';
import { inTurns } from './in-turns';
import type { ProofApi } from './proof-api';

/** Places of one finding that are handed over. */
const MOST_PLACES = 200;

/** What the worker answers of Proof, for the site it has open. */
export function proofAnswers(opened: () => SiteModel): ProofApi {
  const memo = new ProofMemo();
  /** Counts looks begun and stopped, so that an older one ends. */
  let run = 0;
  let mendRun = 0;
  let lookRun = 0;
  let last: { readonly site: SiteModel; readonly proof: Proof } | null = null;
  const findingOf = (id: string): ProofFinding | null => last?.proof.findings.find((own) => own.id === id) ?? null;
  return {
    proofWidths: () => widthsOf(proofSettings(withSpecimen(lightSite(opened(), 'light')))),
    async prove(onProgress) {
      const own = (run += 1);
      const site = withSpecimen(lightSite(opened(), 'light'));
      const began = performance.now();
      const proof = await inTurns(proveSite(site, { memo }), () => own === run, onProgress);
      if (!proof) return null;
      last = { site, proof };
      const isStale = isSpecimenStale(site);
      return {
        ...proof,
        unseen: isStale ? [...proof.unseen, STALE] : proof.unseen,
        took: performance.now() - began,
        laidOut: [...site.pages.values()].filter(({ layouts }) => widthsOf(proof).every((width) => layouts?.has(width)))
          .length,
        findings: proof.findings.map(({ places, mend, ...finding }) => ({
          ...finding,
          things: thingsOf({ places }),
          placeCount: places.length,
          pageIds: [...new Set(places.map(({ pageId }) => pageId))],
          partIds: [...new Set(places.map(({ partId }) => partId))],
          mayMend: mend !== null,
        })),
      };
    },
    stopProof() {
      run += 1;
      mendRun += 1;
    },
    proofPlaces: (id) =>
      (findingOf(id)?.places ?? []).slice(0, MOST_PLACES).map((place) => ({
        ...place,
        name: plainName(elementOf(pageOf(opened(), place.pageId), place.element), place.pseudo),
        // A frame shows no other preference than its width and lighting.
        overPicture:
          last && isOverPicture(findingOf(id)) && Object.keys(place.setting).length === 1
            ? inkAt(last.site, place)
            : null,
      })),
    placePicture(id, index = 0) {
      const place = findingOf(id)?.places[index];
      if (!place || !last) return null;
      const { pageId, element, state, lighting, setting } = place;
      const lit = lightSite(last.site, lighting);
      const parts = lit.source.parts.filter((part) => part.id === place.partId && part.openers.length > 0);
      const { document } = pageOf(lit, pageId);
      return {
        pageId,
        element,
        width: setting.width,
        lighting,
        forced: [...oneInState(document, document.elements[element], state)].map(([node, names]) => ({
          element: node.number,
          names: [...names],
        })),
        amendments: [
          ...shownOtherwise(
            lit,
            pageId,
            parts.map((part) => part.id),
          ),
        ],
      };
    },
    async mendOf(id) {
      const own = (mendRun += 1);
      const finding = findingOf(id);
      if (!finding || !last) return null;
      const { site, proof } = last;
      const tried = await inTurns(tryMend(site, finding, proof, memo), () => own === mendRun);
      if (!tried) return null;
      if (!tried.ok) return tried;
      const { label, put, drop, after } = tried.mend;
      return { ok: true, label, put, drop, frameCss: rewriteStates(after.css) };
    },
    proofReport(format, facts) {
      if (!last) return '';
      return format === 'html' ? reportHtml(last.site, last.proof, facts) : reportCsv(last.site, last.proof);
    },
    async partLooks() {
      const own = (lookRun += 1);
      return inTurns(partLooks(lightSite(opened(), 'light')), () => own === lookRun);
    },
    lookPicture({ partId, pageId, step }, state) {
      const closed = lightSite(opened(), 'light');
      const ids = step === 'opened' && partId !== null ? [partId] : [];
      const site = ids.length > 0 ? openParts(closed, ids) : closed;
      const page = pageOf(site, pageId);
      return {
        amendments: [...shownOtherwise(closed, pageId, ids)],
        forced: [...wholeInState(page.document, state)].flatMap(([element, names]) =>
          (partOf(site, page, element)?.id ?? null) === partId ? [{ element: element.number, names: [...names] }] : [],
        ),
      };
    },
    exceptionFor(id) {
      const finding = findingOf(id);
      return finding && last ? exceptionFor(last.site, finding) : null;
    },
  };
}

const STALE = {
  what: 'the specimen as it would be made now',
  reason: 'its parts, or the pages they are copied from, have changed since it was made; the Survey makes it anew',
};

const staleness = new WeakMap<SiteSource, boolean>();

/** Whether a specimen made now would be another; reckoned once for a site as it was captured. */
function isSpecimenStale({ source }: SiteModel): boolean {
  const made = source.pages.find(isSpecimen);
  if (!made) return false;
  let isStale = staleness.get(source);
  if (isStale === undefined) staleness.set(source, (isStale = made.html !== specimenPage(source)));
  return isStale;
}

/** Whether a text stands over a picture, whose pixels the core has not seen: then nothing was measured of what is asked. */
function isOverPicture(finding: ProofFinding | null): boolean {
  return finding?.kind === 'reads' && finding.figure === null && finding.needed !== null;
}

/** Colour of a text in its state, as CSS. */
function inkAt(site: SiteModel, { pageId, element, pseudo, state, setting, lighting }: ProofPlace): string | null {
  const page = pageOf(lightSite(site, lighting), pageId);
  const node = elementOf(page, element);
  const view = new StyleView(page, { environment: setting, states: oneInState(page.document, node, state) });
  const ink = view.style(node, pseudo).color('color');
  return ink && hexOf(ink);
}

function widthsOf({ settings }: Pick<Proof, 'settings'>): readonly number[] {
  return [...new Set(settings.map(({ width }) => width))];
}
