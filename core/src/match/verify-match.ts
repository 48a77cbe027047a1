import { allInState, CENSUS_STATES } from '../census/census-states.js';
import { hexOf } from '../color/read-notation.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { shortName } from '../selectors/describe-element.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { FoundPlace } from './found-color.js';
import { matchPaintings } from './paintings.js';
import type { MatchProposal } from './proposal.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** What resolving the site once more, with the overrides on it, found of them. */
export interface MatchProof {
  /** Places looked at: everything the scope paints, and everything else on its pages, in every state of the census. */
  readonly looked: number;
  /** Places that do not come to what was proposed, in words. */
  readonly missed: readonly string[];
  /** What changed outside the scope, in words. */
  readonly spilt: readonly string[];
}

/** Viewport widths that are looked at: a desk, a tablet, a telephone (common practice). */
export const PROOF_WIDTHS: readonly number[] = [1280, 820, 390];
/** Lists are cut there; the counts before them are whole. */
const MOST_TOLD = 20;

/**
 * Resolves every page of the site with the overrides laid on, at each width: each place of the proposal has its colour, and nothing
 * outside the scope has another than before. A generator: it yields after each page and state.
 * @param before the site without the new overrides.
 * @param widths viewport widths looked at, CSS px.
 */
export function* verifyMatch(
  before: SiteModel,
  after: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  widths: readonly number[] = PROOF_WIDTHS,
): Generator<string, MatchProof> {
  const wanted = new Map<string, string>();
  for (const { found, becomes, css } of proposal.rows)
    for (const place of found.places) if (becomes.kind === 'value') wanted.set(keyOf(place.pageId, place), css);
  let looked = 0;
  const missed = new Set<string>();
  const spilt = new Set<string>();
  const pageIds = scope.kind === 'site' ? pagesOf(after, scope) : [...after.pages.keys()];
  for (const [pageId, width] of pageIds.flatMap((id) => widths.map((width) => [id, width] as const))) {
    const [then, now] = [pageOf(before, pageId), pageOf(after, pageId)];
    const isIn = scope.kind === 'page' && scope.pageId !== pageId ? () => false : inScope(after, scope, pageId);
    const shares = [new StyleShare(), new StyleShare()];
    for (const state of CENSUS_STATES) {
      const states = allInState(now.document, state);
      const [was, is] = [then, now].map(
        (page, i) => new StyleView(page, { environment: { width }, states, share: shares[i] }),
      );
      for (const element of now.document.elements) {
        const isInside = isIn(element);
        const old = isInside ? [] : matchPaintings(was, element).map((painting) => hexOf(painting.color));
        for (const [i, painting] of matchPaintings(is, element).entries()) {
          looked += 1;
          const { pseudo, property, index } = painting;
          const words = `${property} of ${shortName(element, pseudo)}${state === 'rest' ? '' : `, ${state}`}${width === widths[0] ? '' : `, at ${width} px`}`;
          const hex = hexOf(painting.color);
          if (!isInside) {
            if (old[i] !== hex) spilt.add(words);
            continue;
          }
          const css = wanted.get(keyOf(pageId, { element: element.number, pseudo, property, index, state }));
          if (css !== undefined && css !== hex) missed.add(`${words} is ${hex}, not ${css}`);
        }
      }
      yield now.path;
    }
  }
  return { looked, missed: [...missed].slice(0, MOST_TOLD), spilt: [...spilt].slice(0, MOST_TOLD) };
}

function keyOf(
  pageId: number,
  { element, pseudo, property, index, state }: Pick<FoundPlace, 'element' | 'pseudo' | 'property' | 'index' | 'state'>,
): string {
  return `${pageId}:${element}:${pseudo}:${property}:${index}:${state}`;
}
