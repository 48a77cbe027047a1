import { message, type Message } from '../message/message.js';
import { allInState, CENSUS_STATES, type CensusState } from '../census/census-states.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { shortName } from '../selectors/describe-element.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { unreadPages, type UnreadPage } from '../site/unread.js';
import { settingsTold } from '../site/environments.js';
import { matchPaintings } from './paintings.js';
import { proofSettings, type ProofSettings } from './proof-settings.js';
import { colorsBeside, shapedPlaces } from './shape/colors-beside.js';
import type { ProposedShape } from './shape/propose-shapes.js';
import { verifyShapes } from './shape/verify-shapes.js';
import type { MatchProposal } from './proposal.js';
import type { ThemeProperty } from './theme-properties.js';
import { inScope, type MatchScope } from './scope.js';
import { Tally, joined, type Told } from './tally.js';

/** What resolving the site once more, with the overrides on it, found of them. */
export interface MatchProof {
  /** Places looked at: everything painted on the site, in every state of the census, in every setting that matters. */
  readonly looked: number;
  /** Places that do not come to what was proposed, or changed though they were to be left alone. */
  readonly missed: Told;
  /** What changed outside the scope. */
  readonly spilt: Told;
  /** Pages of which something was not read: nothing is proved there. */
  readonly unread: readonly UnreadPage[];
  readonly at: ProofSettings;
}

export interface VerifyOptions {
  /** Where it is looked at; the first is where the scope was looked through. Those that matter to the site when absent. */
  readonly at?: ProofSettings;
  /** Shapes that are laid on besides; they have a proof of their own. */
  readonly shapes?: readonly ProposedShape[];
  /** Properties of the theme; those taken change what follows them outside the scope, as was chosen. */
  readonly properties?: readonly ThemeProperty[];
}

/** Whether all was looked at, and nothing found. */
export function isProved({
  missed,
  spilt,
  unread,
}: Readonly<Record<'missed' | 'spilt', Pick<Told, 'count'>>> & { readonly unread: readonly unknown[] }): boolean {
  return missed.count + spilt.count + unread.length === 0;
}

/**
 * Resolves every page of the site with the overrides laid on, in each setting: each place of the proposal has its colour, in a state that
 * had none of its own that of rest, what is left alone is as it was, and nothing outside the scope has another colour than before.
 * A generator: it yields after each page and state.
 * @param before the site without the new overrides.
 */
export function* verifyMatch(
  before: SiteModel,
  after: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  { at = proofSettings(after), properties = [], shapes = [] }: VerifyOptions = {},
): Generator<string, MatchProof> {
  const wanted = wantedColors(colorsBeside(proposal, shapes));
  const isShaped = shapedPlaces(shapes);
  const unseen = new Set(wanted.keys());
  const meant = new Set(
    properties
      .filter(({ isTaken }) => isTaken)
      .flatMap(({ outside }) =>
        outside.map(
          ({ pageId, element, pseudo, property, index }) => `${pageId}:${element}:${pseudo}|${property}|${index}`,
        ),
      ),
  );
  const [missed, spilt] = [new Tally(), new Tally()];
  let looked = 0;
  for (const pageId of after.pages.keys()) {
    const [then, now] = [pageOf(before, pageId), pageOf(after, pageId)];
    const isIn = scope.kind === 'page' && scope.pageId !== pageId ? () => false : inScope(after, scope, pageId);
    for (const [i, setting] of at.settings.entries()) {
      const shares = [new StyleShare(), new StyleShare()];
      for (const state of CENSUS_STATES) {
        const states = allInState(now.document, state);
        const [was, is] = [then, now].map(
          (page, k) => new StyleView(page, { environment: setting, states, share: shares[k] }),
        );
        for (const element of now.document.elements) {
          const shown = colorsOf(is, element);
          const old = colorsOf(was, element);
          const isInside = isIn(element);
          // What is painted no longer has changed as well.
          for (const id of new Set([...shown.keys(), ...old.keys()])) {
            looked += 1;
            const place = `${pageId}:${element.number}:${id}`;
            if (i === 0) unseen.delete(`${place}:${state}`);
            const hex = shown.get(id) ?? null;
            if (isInside && isShaped(pageId, element.number, propertyOf(id))) continue;
            const expected = isInside ? expectedOf(wanted, place, state) : undefined;
            if (hex === (expected ?? old.get(id))) continue;
            const where = message('match.painted-in', {
              property: propertyIn(id),
              element: shortName(element),
              state,
              at: i === 0 ? 'none' : 'some',
              where: i === 0 ? '' : settingsTold([setting]),
            });
            if (isInside) missed.add(becameOther(where, hex, expected ?? old.get(id) ?? null));
            else if (!meant.has(place)) spilt.add(where);
          }
        }
        yield now.path;
      }
    }
  }
  for (const place of unseen)
    if (wanted.get(place) !== null) missed.add(message('match.no-more-painted', { property: propertyIn(place) }));
  const shaped = yield* verifyShapes(before, after, scope, shapes, at);
  return {
    looked: looked + shaped.looked,
    missed: joined(missed.told(), shaped.missed),
    spilt: joined(spilt.told(), shaped.spilt),
    unread: unreadPages(after),
    at,
  };
}

/** Colour each place is to have; `null` where it is left as it is. */
function wantedColors({ rows }: MatchProposal): ReadonlyMap<string, string | null> {
  const wanted = new Map<string, string | null>();
  for (const { found, becomes, css } of rows)
    for (const { pageId, element, pseudo, property, index, state } of found.places)
      wanted.set(`${pageId}:${element}:${pseudo}|${property}|${index}:${state}`, becomes.kind === 'value' ? css : null);
  return wanted;
}

/** What a place is to show in a state: its own there, else that of rest; `undefined` where it is to be as before. */
function expectedOf(wanted: ReadonlyMap<string, string | null>, place: string, state: CensusState): string | undefined {
  const own = wanted.get(`${place}:${state}`);
  return (own === undefined ? wanted.get(`${place}:rest`) : own) ?? undefined;
}

/** Colours an element paints, by pseudo-element, property and place in its value. */
function colorsOf(view: StyleView, element: ElementNode): Map<string, string> {
  return new Map(
    matchPaintings(view, element).map(({ pseudo, property, index, color }) => [
      `${pseudo}|${property}|${index}`,
      hexOf(color),
    ]),
  );
}

function propertyOf(id: string): string {
  return id.split('|')[1];
}

function propertyIn(id: string): string {
  const [pseudo, property] = (id.split(':').find((part) => part.includes('|')) ?? id).split('|');
  return pseudo === '' ? property : `${property} ::${pseudo}`;
}

/** What is painted otherwise than was meant; `null` for what is not painted. */
function becameOther(where: Message, hex: string | null, expected: string | null): Message {
  if (hex === null) return message('match.became-unpainted', { where, expected: expected ?? '' });
  return expected === null
    ? message('match.became-painted', { where, hex })
    : message('match.became-other', { where, hex, expected });
}
