import { say } from '@upper-veneer/words';
import {
  driftOf,
  driftTold,
  message,
  elementOf,
  formerCss,
  formerPage,
  glossOf,
  isOfAnother,
  lightSite,
  pageOf,
  nameTold,
  pointerStates,
  proposeDrift,
  rewriteStates,
  withOverrides,
  withoutIdleSelectors,
  type Drift,
  type DriftPlace,
  type FormerCapture,
  type Override,
  type Page,
  type SiteModel,
} from '@upper-veneer/core';
import type { DriftApi, DriftView } from './drift-api';
import type { ForcedStates } from './forced-states';
import { inTurns } from './in-turns';

/** What the worker answers of drift, for the site it has open. */
export function driftAnswers(opened: () => SiteModel): DriftApi {
  let run = 0;
  let last: { readonly drifts: readonly Drift[]; readonly formers: readonly FormerCapture[] } = {
    drifts: [],
    formers: [],
  };
  /** Former pages read, by what they were and the veneer on them. */
  let read = new Map<number, { readonly former: FormerCapture; readonly page: Page }>();
  const pageAs = (site: SiteModel, former: FormerCapture): Page => {
    let own = read.get(former.id);
    if (own?.former !== former) read.set(former.id, (own = { former, page: formerPage(site, former) }));
    return own.page;
  };
  const driftAt = (id: string): Drift | undefined => last.drifts.find(({ override }) => override.id === id);
  const formerOf = (id: number): FormerCapture | undefined => last.formers.find((former) => former.id === id);
  return {
    async drift(formers, onProgress) {
      const own = (run += 1);
      const site = lightSite(opened(), 'light');
      const drifts = await inTurns(driftOf(site, formers), () => own === run, onProgress);
      if (!drifts) return null;
      last = { drifts, formers };
      read = new Map();
      return drifts.map((drift) => {
        const former = formerOf(placeOf(drift)?.formerId ?? 0);
        return viewOf(site, drift, former ? pageAs(site, former) : null);
      });
    },
    driftPicture(id) {
      const place = placeOf(driftAt(id));
      const former = place && formerOf(place.formerId);
      const override = driftAt(id)?.override;
      if (!place || !former || !override) return null;
      const site = opened();
      return {
        formerCss: rewriteStates(formerCss(site, former.overrides)),
        forcedBefore: forcedOn(pageAs(site, former), place.was, override),
        forcedNow: forcedOn(pageOf(site, place.pageId), place.is, override),
      };
    },
    proposeDrift(id, keepsFirst) {
      const drift = driftAt(id);
      if (!drift) return { ok: false, reason: say(message('drift.no-longer-drifted')) };
      const site = opened();
      const proposal = proposeDrift(site, drift, keepsFirst);
      if (!proposal.ok) return { ok: false, reason: say(proposal.reason) };
      const { put, drop, reaches } = proposal;
      return {
        ok: true,
        put,
        drop,
        reaches: reaches.length,
        pages: new Set(reaches.map(({ pageId }) => pageId)).size,
        frameCss: rewriteStates(withOverrides(site, proposal).css),
      };
    },
    async proposeAllDrift() {
      const own = run;
      const put = new Map<string, Override>();
      const drop = new Set<string>();
      let [site, right] = [opened(), 0];
      for (const drift of last.drifts) {
        const now = site.overrides.find(({ id }) => id === drift.override.id);
        if (!now) continue;
        const proposal = proposeDrift(site, { ...drift, override: now });
        await new Promise((done) => setTimeout(done));
        if (own !== run) return null;
        if (!proposal.ok) continue;
        right += 1;
        for (const override of proposal.put) put.set(override.id, override);
        for (const id of proposal.drop) {
          put.delete(id);
          drop.add(id);
        }
        site = withOverrides(site, proposal);
      }
      return { put: [...put.values()], drop: [...drop].filter((id) => !put.has(id)), right };
    },
    withoutIdleSelectors(id) {
      const site = opened();
      const override = site.overrides.find((own) => own.id === id);
      return override ? withoutIdleSelectors(site, override) : null;
    },
  };
}

function viewOf(site: SiteModel, drift: Drift, before: Page | null): DriftView {
  const { override, lost, gone, beaten } = drift;
  const place = placeOf(drift);
  const nameOn = (page: Page | null, number: number | null | undefined): string =>
    page && number != null ? say(nameTold(elementOf(page, number), override.pseudo)) : '';
  return {
    override,
    gloss: say(glossOf(site, override)),
    words: say(driftTold(drift)),
    isMissing: lost.length + gone.length + beaten.length > 0,
    place,
    wasName: nameOn(before, place?.was),
    isName: nameOn(place && pageOf(site, place.pageId), place?.is),
    isIdleInPart: withoutIdleSelectors(site, override) !== null,
  };
}

/** Where a drift shows best: what is to be led right, before what is gone or came besides. */
function placeOf(drift: Drift | undefined): DriftPlace | null {
  if (!drift) return null;
  return [...drift.lost, ...drift.beaten, ...drift.gone, ...drift.gained].at(0) ?? null;
}

function forcedOn(page: Page, number: number | null, { state }: Override): ForcedStates {
  if (number === null || state === 'rest' || isOfAnother(state)) return [];
  const element = elementOf(page, number);
  return [...pointerStates(page.document, element, state)].map(([node, names]) => ({
    element: node.number,
    names: [...names],
  }));
}
