import { message } from '../message/message.js';
import { CENSUS_STATES, allInState } from '../census/census-states.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { shortName } from '../selectors/describe-element.js';
import { settingsTold } from '../site/environments.js';
import { inEachLighting, pageOf, type SiteModel } from '../site/site-model.js';
import { Readings } from '../verdict/legibility.js';
import { Ownership, coloredPlaces } from './own-colors.js';
import { proofSettings } from './proof-settings.js';
import type { MatchProposal } from './proposal.js';
import { pagesOf, type MatchScope } from './scope.js';
import { resolvedAlone } from './shape/resolved-alone.js';
import { Tally, joined } from './tally.js';
import { verifyLightings } from './verify-lightings.js';
import type { MatchProof } from './verify-match.js';

/** What came of leaving a scope to its theme. */
interface NeutralProof {
  readonly proof: MatchProof;
  readonly hardToRead: number;
}

const NOTHING: MatchProposal = { strategy: 'blend', rows: [], unmet: [] };

/**
 * Resolves the site with a scope left to its theme, in each setting, state and lighting: no colour in the scope is decided by the part's
 * own declarations but for exceptions, nothing outside it has changed, and what was read and seen still is.
 * A generator: it yields after each page and state.
 */
export function* verifyNeutral(
  before: SiteModel,
  after: SiteModel,
  scope: MatchScope,
): Generator<unknown, NeutralProof> {
  const { spilt, looked, unread, at } = yield* verifyLightings(before, after, scope, NOTHING);
  const hard = new Set<string>();
  let missed = new Tally().told();
  const befores = inEachLighting(before);
  for (const [i, lit] of inEachLighting(after).entries()) {
    const own = new Tally();
    const ownership = new Ownership(lit, scope);
    for (const pageId of pagesOf(lit, scope))
      for (const setting of proofSettings(lit).settings) {
        const [then, now] = [befores[i], lit].map((site) => pageOf(site, pageId));
        const shares = [new StyleShare(), new StyleShare()];
        const rest = new StyleView(now, { environment: setting, share: shares[1] });
        for (const state of CENSUS_STATES) {
          const states = allInState(now.document, state);
          const [was, is] = [then, now].map(
            (page, k) => new StyleView(page, { environment: setting, states, share: shares[k] }),
          );
          const [earlier, readings] = [new Readings(was, state), new Readings(is, state)];
          for (const { element, pseudo, property } of coloredPlaces(lit, scope, pageId, is, state, rest)) {
            const css = ownership.givesWayTo(is, pageId, { element, pseudo, property });
            const isSo = css === '' || is.style(element, pseudo).resolved(property) === resolvedAlone(property, css);
            if (!isSo)
              own.add(
                message('match.painted-in-state', {
                  property,
                  element: shortName(element, pseudo),
                  state,
                  where: settingsTold([setting]),
                }),
              );
            if (property !== 'color') continue;
            const fails = (list: Readings): boolean =>
              list.of(element, pseudo).some(({ ratio, wanted }) => ratio < wanted);
            if (fails(readings) && !fails(earlier)) hard.add(`${pageId}:${element.number}`);
          }
          yield state;
        }
      }
    missed = joined(missed, own.told(), i === 0 ? undefined : (told) => message('match.other-lighting', { told }));
  }
  return { proof: { looked, missed, spilt, unread, at }, hardToRead: hard.size };
}
