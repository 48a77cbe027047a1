import { keyOf, message } from '../message/message.js';
import { lightSite, type SiteModel } from '../site/site-model.js';
import { LIGHTINGS } from '../veneer/lighting.js';
import { hexOf } from '../color/read-notation.js';
import { boundValue, colorOfValue } from '../veneer/override-value.js';
import { colorOfCss, paletteIn, type Palette } from '../veneer/palette.js';
import { COMPOSITES, coveringPlaces, placeKey } from './lay-tasks.js';
import type { FoundPlace } from './found-color.js';
import type { MatchProposal, ProposedRow } from './proposal.js';
import { proposalIn } from './proposal-in.js';
import type { MatchScope } from './scope.js';
import type { ProofSettings } from './proof-settings.js';
import { joined, type Told } from './tally.js';
import { verifyMatch, type MatchProof, type VerifyOptions } from './verify-match.js';

/** `verifyMatch` in every lighting of a site. @param proposal as it was made in the light. */
export function* verifyLightings(
  before: SiteModel,
  after: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  options: Omit<VerifyOptions, 'at'> = {},
): Generator<string, MatchProof> {
  let proof: MatchProof | null = null;
  for (const lighting of before.palette.second ? LIGHTINGS : (['light'] as const)) {
    const own = yield* verifyMatch(
      lightSite(before, lighting),
      lightSite(after, lighting),
      scope,
      lighting === 'light' ? proposal : proposalIn(withKept(proposal, before.palette), lighting),
      options,
    );
    proof =
      proof === null
        ? own
        : {
            looked: proof.looked + own.looked,
            missed: joined(proof.missed, own.missed, (told) => message('match.in-lighting', { lighting, told })),
            spilt: joined(proof.spilt, own.spilt, (told) => message('match.in-lighting', { lighting, told })),
            unread: proof.unread,
            at: bothSettings(proof.at, own.at),
          };
  }
  return proof ?? { looked: 0, missed: NONE, spilt: NONE, unread: [], at: { settings: [], unseen: [] } };
}

/** The proposal with what keeps its colour under an override as rows of their own: laid on, it is written by the palette and follows. */
function withKept(proposal: MatchProposal, palette: Palette): MatchProposal {
  const matched = new Set(
    proposal.rows.flatMap(({ found, becomes }) => (becomes.kind === 'leave' ? [] : found.places.map(placeKey))),
  );
  const isKept = (place: FoundPlace): boolean =>
    !COMPOSITES.has(place.property) && coveringPlaces(place).some((covering) => matched.has(placeKey(covering)));
  return { ...proposal, rows: proposal.rows.flatMap((row) => keptApart(row, isKept, palette)) };
}

function keptApart(row: ProposedRow, isKept: (place: FoundPlace) => boolean, palette: Palette): ProposedRow[] {
  const color = row.becomes.kind === 'leave' ? colorOfCss(row.css) : null;
  const kept = color ? row.found.places.filter(isKept) : [];
  if (!color || kept.length === 0) return [row];
  const value = boundValue(color, palette);
  const inverted = colorOfValue(value, paletteIn(palette, 'inverted'));
  return [
    { ...row, found: { ...row.found, places: row.found.places.filter((place) => !kept.includes(place)) } },
    {
      ...row,
      found: { ...row.found, places: kept },
      becomes: { kind: 'value', value },
      inverted: inverted && { css: hexOf(inverted), worst: null },
    },
  ];
}

/** Where both were looked at; what rules hang on can differ between the two. */
function bothSettings(a: ProofSettings, b: ProofSettings): ProofSettings {
  return {
    settings: a.settings,
    unseen: [...new Map([...a.unseen, ...b.unseen].map((own) => [keyOf(own), own])).values()],
  };
}

const NONE: Told = { words: [], count: 0 };
