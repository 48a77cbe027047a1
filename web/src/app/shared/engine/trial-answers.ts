import { say, spoken, wordsOf } from '@upper-veneer/words';
import {
  dressSite,
  firstMatch,
  isOverPicture,
  lightSite,
  lookDifference,
  proofSettings,
  proveSite,
  rewriteStates,
  unreadPages,
  type SiteModel,
} from '@upper-veneer/core';
import { inTurns } from './in-turns';
import type { TrialApi } from './trial-api';

/** What the worker answers of trials, for the site it has open. */
export function trialAnswers(opened: () => SiteModel): TrialApi {
  let run = 0;
  return {
    firstOf: (selector) => firstMatch(opened(), selector),
    lookDifference: (before, after) => lookDifference(before, after),
    async proveLook({ css, partIds }, onProgress) {
      const own = (run += 1);
      const site = lightSite(opened(), 'light');
      // The very sheet that visitors get is resolved, not what it was compiled from.
      const dressed = dressSite(site, [], site.palette, { ownCss: css === '' ? [] : [{ partId: null, css }] });
      const proof = await inTurns(proveSite(dressed), () => own === run, onProgress);
      if (!proof) return null;
      const isIn = (partId: number | null): boolean => partIds.includes(partId);
      const fails = proof.findings.flatMap(({ kind, level, title, places }) => {
        const there = places.filter((place) => isIn(place.partId));
        return (kind === 'reads' || kind === 'seen') && level === 'fails' && there.length > 0
          ? [wordsOf('screen.place-places', { what: say(title), there: there.length })]
          : [];
      });
      const looks = proof.cells
        .filter(({ kind, partId }) => (kind === 'reads' || kind === 'seen') && isIn(partId))
        .reduce((sum, cell) => sum + cell.looks, 0);
      const over = proof.findings
        .filter(isOverPicture)
        .reduce((sum, { places }) => sum + places.filter((place) => isIn(place.partId)).length, 0);
      const unseen = [
        ...spoken(proofSettings(dressed).unseen),
        ...unreadPages(dressed).map(({ name }) => wordsOf('screen.all-past-bound', { name })),
        ...(over > 0 ? [wordsOf('screen.text-texts-over-pictures', { over })] : []),
      ];
      return { fails, looks, unseen };
    },
    stopProvingLooks() {
      run += 1;
    },
    frameCssOf: (css) => rewriteStates(css),
  };
}
