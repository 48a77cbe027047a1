import { CENSUS_STATES } from '../census/census-states.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import type { FoundColor, FoundColors, FoundPlace } from './found-color.js';
import { paintsMessage } from './place-words.js';
import type { MatchChoices } from './proposal.js';

/** Tells a place from all others of a site. */
export function placeId({ pageId, element, pseudo, property, index, state }: FoundPlace): string {
  return [pageId, element, pseudo, property, index, state].join(':');
}

/** What stands in the name of a row set apart, before its first place. */
const APART = ' apart ';

/** Whether a row is another, or was set apart from it. */
export function isOfRow(id: string, row: string): boolean {
  return id === row || id.startsWith(`${row}${APART}`);
}

/** The row that a row was set apart from, however often; itself where it was not. */
export function rowAsFound(id: string): string {
  return id.split(APART)[0];
}

/**
 * Found colours with some places of a row set apart as a row of their own, and with rows merged into the first of them. What a
 * row met, both of its halves meet; rows that are gone are passed over.
 */
export function regroup(
  site: SiteModel,
  found: FoundColors,
  { apart = [], merged = [] }: Pick<MatchChoices, 'apart' | 'merged'>,
): FoundColors {
  if (apart.length + merged.length === 0) return found;
  let { rows, meetings } = found;
  for (const { row: id, places } of apart) {
    const wanted = new Set(places);
    const row = rows.find((candidate) => candidate.id === id);
    // What a state says once more goes with what it says at rest.
    const isTaken = (place: FoundPlace): boolean =>
      wanted.has(placeId(place.isEcho ? { ...place, state: 'rest' } : place));
    const own = row?.places.filter(isTaken) ?? [];
    if (!row || own.length === 0 || own.length === row.places.length) continue;
    const apartId = `${id}${APART}${places[0]}`;
    rows = rows.flatMap((candidate) =>
      candidate === row
        ? [
            withPlaces(
              site,
              row,
              row.places.filter((place) => !isTaken(place)),
            ),
            withPlaces(site, { ...row, id: apartId }, own),
          ]
        : [candidate],
    );
    meetings = meetings.flatMap((meeting) => [
      meeting,
      ...(meeting.ink === id ? [{ ...meeting, ink: apartId }] : []),
      ...(meeting.ground === id ? [{ ...meeting, ground: apartId }] : []),
      ...(meeting.film?.row === id ? [{ ...meeting, film: { ...meeting.film, row: apartId } }] : []),
    ]);
  }
  for (const ids of merged) {
    const own = ids.flatMap((id) => rows.find((row) => row.id === id) ?? []);
    const [lead, ...others] = own;
    if (others.length === 0) continue;
    const gone = new Set(others.map(({ id }) => id));
    const whole: FoundColor = {
      ...withPlaces(
        site,
        lead,
        own.flatMap(({ places }) => places),
      ),
      hexes: [...new Set(own.flatMap(({ hexes }) => hexes))],
      homes: own.flatMap(({ homes }) => homes).sort((a, b) => b.places - a.places),
      isBrand: own.every(({ isBrand }) => isBrand),
      isExcepted: own.every(({ isExcepted }) => isExcepted),
      isWarning: own.some(({ isWarning }) => isWarning),
    };
    const now = (id: string | null): string | null => (id !== null && gone.has(id) ? lead.id : id);
    rows = rows.flatMap((row) =>
      row === lead
        ? [whole]
        : gone.has(row.id)
          ? []
          : [{ ...row, atRest: now(row.atRest) === row.id ? null : now(row.atRest) }],
    );
    meetings = meetings
      .map((meeting) => ({
        ...meeting,
        ink: now(meeting.ink) ?? meeting.ink,
        ground: now(meeting.ground),
        veil: meeting.veil && { ...meeting.veil, behind: now(meeting.veil.behind) },
        film: meeting.film && { ...meeting.film, row: now(meeting.film.row) },
      }))
      .filter(({ ink, ground }) => ink !== ground);
  }
  return { ...found, rows, meetings };
}

function withPlaces(site: SiteModel, row: FoundColor, places: readonly FoundPlace[]): FoundColor {
  const states = CENSUS_STATES.filter((state) => places.some((place) => place.state === state && !place.isEcho));
  return {
    ...row,
    places,
    states,
    area: places.reduce((sum, { area }) => sum + area, 0),
    elements: new Set(places.map(({ pageId, element, pseudo }) => [pageId, element, pseudo].join())).size,
    paints: paintsMessage(
      row.job,
      places.map(({ pageId, element, pseudo }) => ({ node: elementOf(pageOf(site, pageId), element), pseudo })),
    ),
    atRest: states.includes('rest') ? null : row.atRest,
  };
}
