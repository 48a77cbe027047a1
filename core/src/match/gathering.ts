import { CENSUS_STATES } from '../census/census-states.js';
import type { Painting } from '../census/paintings.js';
import { SAME_TO_THE_EYE, deltaE2000OfLab, labOf } from '../color/delta-e.js';
import type { ElementNode } from '../dom/tree.js';
import { isBrandColor } from '../palette/brand-color.js';
import type { Page } from '../resolve/page.js';
import { isExcepted } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import type { Color } from '../values/color.js';
import type { FoundColor, FoundColors, FoundPlace, Home, Meeting } from './found-color.js';
import { homeOf } from './home.js';
import { JOBS, type Job } from './job.js';
import { isWarningRed, paintsMessage, saysWarning } from './place-words.js';

/** What tells a row: its job and colour, and whether it is read on dark. */
export interface EntryKey {
  readonly isOnDark: boolean;
  readonly key: string;
  readonly job: Job;
  readonly hex: string;
}

/** A place with what it was found by, which cannot cross to another thread. */
export interface RawPlace {
  readonly place: FoundPlace;
  readonly node: ElementNode;
  readonly page: Page;
}

/** All places of one colour in one job, as they are gathered. */
interface Entry {
  readonly key: string;
  readonly hex: string;
  readonly color: Color;
  readonly job: Job;
  readonly isOnDark: boolean;
  readonly places: RawPlace[];
  readonly homes: Map<string, { readonly home: Omit<Home, 'places'>; places: number }>;
  readonly atRest: Map<string, number>;
  warnings: number;
  excepted: number;
}

interface RawMeeting {
  readonly kind: Meeting['kind'];
  readonly ink: string;
  readonly ground: string | null;
  readonly outside: string;
  readonly veil: Meeting['veil'];
  readonly film?: Meeting['film'];
  readonly wanted: number;
  readonly before: number;
  places: number;
}

interface IdentifiedHome {
  readonly id: string;
  readonly home: Omit<Home, 'places'>;
}

/** Gathers places over pages and states, then joins near-duplicates. */
export class Gathering {
  readonly #entries = new Map<string, Entry>();
  readonly #meetings = new Map<string, RawMeeting>();
  readonly #homes = new WeakMap<object, Map<object | null, IdentifiedHome>>();

  constructor(readonly site: SiteModel) {}

  add({ key, job, hex, isOnDark }: EntryKey, painting: Painting, raw: RawPlace, atRest: EntryKey | null): void {
    let entry = this.#entries.get(key);
    if (!entry)
      this.#entries.set(
        key,
        (entry = {
          key,
          hex,
          color: painting.color,
          job,
          isOnDark,
          places: [],
          homes: new Map(),
          atRest: new Map(),
          warnings: 0,
          excepted: 0,
        }),
      );
    entry.places.push(raw);
    const { id, home } = this.#homeOf(painting);
    const known = entry.homes.get(id);
    if (known) known.places += 1;
    else entry.homes.set(id, { home, places: 1 });
    if (atRest) entry.atRest.set(atRest.key, (entry.atRest.get(atRest.key) ?? 0) + 1);
    if (saysWarning(raw.node, raw.place.state) || isWarningRed(job, painting.color)) entry.warnings += 1;
    if (isExcepted(this.site.exceptions, raw.page.document, raw.node, painting.color)) entry.excepted += 1;
  }

  /** Elements that come to the same values by one declaration have one home: there are far fewer than places. */
  #homeOf(painting: Painting): IdentifiedHome {
    const { identity } = painting.style;
    let byEntry = this.#homes.get(identity);
    if (!byEntry) this.#homes.set(identity, (byEntry = new Map()));
    const entry = painting.decided?.entry ?? null;
    let found = byEntry.get(entry);
    if (!found) {
      const home = homeOf(painting);
      byEntry.set(entry, (found = { id: JSON.stringify(home), home }));
    }
    return found;
  }

  meet(meeting: Omit<RawMeeting, 'places'>): void {
    if (meeting.ink === meeting.ground) return;
    const id = idOf(meeting);
    const known = this.#meetings.get(id);
    if (known) known.places += 1;
    else this.#meetings.set(id, { ...meeting, places: 1 });
  }

  /** Rows and meetings of all that was gathered. A generator: it yields after each row, in which thousands of places may be told. */
  *result(): Generator<void, Pick<FoundColors, 'rows' | 'meetings'>> {
    const leaders = this.#leaders();
    const groups = new Map<string, Entry[]>();
    for (const [key, leader] of leaders) {
      const entry = this.#entries.get(key);
      if (entry) groups.set(leader, [...(groups.get(leader) ?? []), entry]);
    }
    const rows: FoundColor[] = [];
    for (const [leader, entries] of groups) {
      rows.push(this.#row(leader, entries, leaders));
      yield;
    }
    rows.sort(
      (a, b) =>
        b.area - a.area ||
        Number(a.atRest !== null) - Number(b.atRest !== null) ||
        Number(b.states.includes('rest')) - Number(a.states.includes('rest')) ||
        JOBS.indexOf(a.job) - JOBS.indexOf(b.job) ||
        b.places.length - a.places.length ||
        (a.id < b.id ? -1 : 1),
    );
    const meetings = new Map<string, Meeting>();
    for (const meeting of this.#meetings.values()) {
      const ink = leaders.get(meeting.ink);
      const ground = meeting.ground === null ? null : (leaders.get(meeting.ground) ?? null);
      if (ink === undefined || ink === ground || (meeting.ground !== null && ground === null)) continue;
      const behind = meeting.veil?.behind == null ? null : (leaders.get(meeting.veil.behind) ?? null);
      const veil = meeting.veil && { ...meeting.veil, behind };
      const film = meeting.film && {
        ...meeting.film,
        row: meeting.film.row === null ? null : (leaders.get(meeting.film.row) ?? null),
      };
      const id = idOf({ ...meeting, ink, ground, veil, film });
      const known = meetings.get(id);
      meetings.set(id, {
        ...meeting,
        ink,
        ground,
        veil,
        ...(film ? { film } : {}),
        before: Math.min(meeting.before, known?.before ?? Infinity),
        places: meeting.places + (known?.places ?? 0),
      });
    }
    return { rows, meetings: [...meetings.values()] };
  }

  /** For each entry the one that stands for it: the most painted of the same job within `SAME_TO_THE_EYE`. */
  #leaders(): Map<string, string> {
    const weighed = [...this.#entries.values()].map((entry) => ({
      entry,
      weight: entry.places.reduce((sum, { place }) => sum + place.area, 0) + entry.places.length,
    }));
    const leaders: { readonly entry: Entry; readonly lab: ReturnType<typeof labOf> }[] = [];
    const found = new Map<string, string>();
    for (const { entry } of weighed.sort((a, b) => b.weight - a.weight || (a.entry.key < b.entry.key ? -1 : 1))) {
      const lab = labOf(entry.color);
      const leader = leaders.find(
        (other) =>
          other.entry.job === entry.job &&
          other.entry.isOnDark === entry.isOnDark &&
          // What shows in states only is a row beside the one at rest, however near: its step is what matters.
          isAtRest(other.entry) === isAtRest(entry) &&
          Math.abs((other.entry.color.alpha ?? 1) - (entry.color.alpha ?? 1)) < 0.02 &&
          deltaE2000OfLab(other.lab, lab) <= SAME_TO_THE_EYE,
      );
      if (!leader) leaders.push({ entry, lab });
      found.set(entry.key, (leader?.entry ?? entry).key);
    }
    return found;
  }

  #row(id: string, entries: readonly Entry[], leaders: ReadonlyMap<string, string>): FoundColor {
    const [lead] = entries;
    const raw = entries.flatMap(({ places }) => places);
    const places = raw.map(({ place }) => place);
    const states = CENSUS_STATES.filter((state) => places.some((place) => place.state === state && !place.isEcho));
    const homes = new Map<string, Home>();
    for (const { homes: own } of entries)
      for (const [key, { home, places: count }] of own)
        homes.set(key, { ...home, places: count + (homes.get(key)?.places ?? 0) });
    const rest = new Map<string, number>();
    for (const { atRest } of entries)
      for (const [key, count] of atRest) {
        const leader = leaders.get(key);
        if (leader !== undefined && leader !== id) rest.set(leader, (rest.get(leader) ?? 0) + count);
      }
    return {
      id,
      hex: lead.hex,
      hexes: entries.map(({ hex }) => hex),
      job: lead.job,
      isOnDark: lead.isOnDark,
      places,
      states,
      area: places.reduce((sum, { area }) => sum + area, 0),
      elements: countElements(raw),
      homes: [...homes.values()].sort((a, b) => b.places - a.places),
      paints: paintsMessage(
        lead.job,
        raw.map(({ node, place: { pseudo } }) => ({ node, pseudo })),
      ),
      isBrand: isBrandColor(lead.color, this.site.palette),
      isExcepted: entries.every((entry) => entry.places.length === entry.excepted),
      isWarning: entries.reduce((sum, { warnings }) => sum + warnings, 0) * 2 > raw.length,
      atRest: states.includes('rest') ? null : ([...rest].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null),
    };
  }
}

/** Elements and pseudo-elements among places. */
function countElements(places: readonly RawPlace[]): number {
  const byPseudo = new Map<string, Set<ElementNode>>();
  for (const { node, place } of places) {
    const nodes = byPseudo.get(place.pseudo);
    if (nodes) nodes.add(node);
    else byPseudo.set(place.pseudo, new Set([node]));
  }
  return [...byPseudo.values()].reduce((sum, { size }) => sum + size, 0);
}

function idOf({ kind, ink, ground, outside, wanted, veil, film }: Omit<RawMeeting, 'places' | 'before'>): string {
  return [
    kind,
    ink,
    ground ?? outside,
    wanted,
    ...(veil ? Object.values(veil) : []),
    ...(film ? [film.row ?? film.outside] : []),
  ].join('|');
}

function isAtRest({ places }: Entry): boolean {
  return places.some(({ place }) => place.state === 'rest');
}
