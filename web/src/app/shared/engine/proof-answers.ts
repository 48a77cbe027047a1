import { say, spoken } from '@upper-veneer/words';
import {
  message,
  ProofMemo,
  StyleView,
  elementOf,
  exceptionFor,
  filesShown,
  hexOf,
  isOverPicture,
  isSpecimen,
  lightSite,
  openParts,
  pageOf,
  partLooks,
  partOf,
  nameTold,
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
  withFilesRead,
  withPicturesRead,
  withSpecimen,
  type PictureReading,
  type Proof,
  type ProofFinding,
  type ProofPlace,
  type ShownFiles,
  type SiteModel,
  type SiteSource,
} from '@upper-veneer/core';
import { inTurns } from './in-turns';
import { pictureOf } from './place-picture';
import type { PictureAsk, ProofApi, ProofView } from './proof-api';

/** The proof made last. */
interface Last {
  readonly site: SiteModel;
  readonly proof: Proof;
  readonly run: number;
  readonly took: number;
  /** Worst contrast over pictures that was read, by place. */
  readonly read: ReadonlyMap<string, number>;
  /** Picture files that the site shows, once they were looked for. */
  readonly shown: readonly ShownFiles[];
}

/** Places of one finding that are handed over. */
const MOST_PLACES = 200;

/** What the worker answers of Proof, for the site it has open. */
export function proofAnswers(opened: () => SiteModel): ProofApi {
  const memo = new ProofMemo();
  /** Counts looks begun and stopped, so that an older one ends. */
  let run = 0;
  let mendRun = 0;
  let lookRun = 0;
  let last: Last | null = null;
  const findingOf = (id: string): ProofFinding | null => last?.proof.findings.find((own) => own.id === id) ?? null;
  return {
    proofWidths: () => widthsOf(proofSettings(withSpecimen(lightSite(opened(), 'light')))),
    async prove(onProgress) {
      const own = (run += 1);
      const site = withSpecimen(lightSite(opened(), 'light'));
      const began = performance.now();
      const proof = await inTurns(proveSite(site, { memo }), () => own === run, onProgress);
      if (!proof) return null;
      last = { site, proof, run: own, took: performance.now() - began, read: new Map(), shown: [] };
      return viewOf(last);
    },
    pictureAsks: () => (last ? pictureAsks(last) : []),
    async fileAsks() {
      if (!last) return null;
      const { run: own, site, proof } = last;
      const shown = await inTurns(filesShown(site, proof.settings), () => last?.run === own);
      if (!shown || !last) return null;
      last = { ...last, shown };
      const grounds = new Map<string, Set<string>>();
      for (const file of shown.flatMap(({ files }) => files)) {
        const asked = grounds.get(file.path) ?? new Set();
        grounds.set(file.path, asked);
        if (file.isLogo) for (const { matched } of file.grounds) asked.add(matched);
      }
      return [...grounds].map(([path, hexes]) => ({ path, grounds: [...hexes] }));
    },
    withPictures(asked, texts, files) {
      if (!last || last.run !== asked) return null;
      const { site, shown } = last;
      const proof = withFilesRead(site, withPicturesRead(last.proof, texts), shown, files);
      last = { ...last, proof, read: figuresOf(last.proof, texts) };
      return viewOf(last);
    },
    stopProof() {
      run += 1;
      mendRun += 1;
    },
    proofPlaces: (id) =>
      (findingOf(id)?.places ?? []).slice(0, MOST_PLACES).map((place) => ({
        ...place,
        name: say(nameTold(elementOf(pageOf(opened(), place.pageId), place.element), place.pseudo)),
        overPicture: last?.read.get(spotKey(place)) ?? null,
      })),
    placePicture(id, index = 0) {
      const place = findingOf(id)?.places[index];
      return place && last ? pictureOf(last.site, place) : null;
    },
    async mendOf(id) {
      const own = (mendRun += 1);
      const finding = findingOf(id);
      if (!finding || !last) return null;
      const { site, proof } = last;
      const tried = await inTurns(tryMend(site, finding, proof, memo), () => own === mendRun);
      if (!tried) return null;
      if (!tried.ok) return spoken(tried);
      const { label, put, drop, after } = tried.mend;
      return { ok: true, label: say(label), put, drop, frameCss: rewriteStates(after.css) };
    },
    proofReport(format, facts) {
      if (!last) return '';
      return format === 'html' ? reportHtml(last.site, last.proof, facts, say) : reportCsv(last.site, last.proof, say);
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

const STALE = { what: message('proof.stale-specimen'), reason: message('proof.stale-specimen-reason') };

const staleness = new WeakMap<SiteSource, boolean>();

/** Whether a specimen made now would be another; reckoned once for a site as it was captured. */
function isSpecimenStale({ source }: SiteModel): boolean {
  const made = source.pages.find(isSpecimen);
  if (!made) return false;
  let isStale = staleness.get(source);
  if (isStale === undefined) staleness.set(source, (isStale = made.html !== specimenPage(source)));
  return isStale;
}

/** Pseudo-elements whose pixels a frame tells: those that lie in the lines or the box of their element. */
const READABLE: ReadonlySet<string> = new Set(['', 'before', 'after', 'placeholder', 'selection']);

/** Texts over pictures, each at every width where it is, one after the other: where not all can be read, some are read whole. */
function pictureAsks({ site, proof }: Last): PictureAsk[] {
  return proof.findings.filter(isOverPicture).flatMap(({ id: findingId, places, widths }) =>
    places.flatMap((place, index) => {
      // A frame shows no other preference than its width and lighting.
      if (!READABLE.has(place.pseudo) || Object.keys(place.setting).length !== 1) return [];
      return widths.flatMap((width) => {
        const at = { ...place, setting: { ...place.setting, width } };
        const ink = colorAt(site, at, 'color');
        // Selected text has its highlight between it and the picture.
        const cover = place.pseudo === 'selection' ? colorAt(site, at, 'background-color') : null;
        const picture = pictureOf(site, at);
        return ink === null ? [] : [{ findingId, index, pseudo: place.pseudo, ink, cover, picture }];
      });
    }),
  );
}

/** The worst that was read, by place. */
function figuresOf(before: Proof, readings: readonly PictureReading[]): Map<string, number> {
  const figures = new Map<string, number>();
  for (const { findingId, index, ratio } of readings) {
    const place = before.findings.find(({ id }) => id === findingId)?.places[index];
    if (!place || ratio === null) continue;
    const key = spotKey(place);
    figures.set(key, Math.min(ratio, figures.get(key) ?? ratio));
  }
  return figures;
}

function spotKey({ pageId, element, pseudo, state, lighting }: ProofPlace): string {
  return [pageId, element, pseudo, state, lighting].join(':');
}

/** What the screen shows of a proof. */
function viewOf({ site, proof, run, took }: Last): ProofView {
  const isStale = isSpecimenStale(site);
  return {
    ...proof,
    unseen: spoken(isStale ? [...proof.unseen, STALE] : proof.unseen),
    run,
    took,
    laidOut: [...site.pages.values()].filter(({ layouts }) => widthsOf(proof).every((width) => layouts?.has(width)))
      .length,
    findings: proof.findings.map(({ places, mend, ...finding }) => ({
      ...spoken(finding),
      things: thingsOf({ places }),
      placeCount: places.length,
      pageIds: [...new Set(places.map(({ pageId }) => pageId))],
      partIds: [...new Set(places.map(({ partId }) => partId))],
      mayMend: mend !== null,
    })),
  };
}

/** A colour of a place in its state, as CSS. */
function colorAt(
  site: SiteModel,
  { pageId, element, pseudo, state, setting, lighting }: ProofPlace,
  longhand: 'color' | 'background-color',
): string | null {
  const page = pageOf(lightSite(site, lighting), pageId);
  const node = elementOf(page, element);
  const view = new StyleView(page, { environment: setting, states: oneInState(page.document, node, state) });
  const color = view.style(node, pseudo).color(longhand);
  return color && hexOf(color);
}

function widthsOf({ settings }: Pick<Proof, 'settings'>): readonly number[] {
  return [...new Set(settings.map(({ width }) => width))];
}
