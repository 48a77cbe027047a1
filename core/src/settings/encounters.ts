import { FILL_JOBS, READ_JOBS, type Job } from '../match/job.js';
import { isLengthJob, type SettingPlace, type SettingsSheet, type SettingState } from './settings-sheet.js';

/** One side of an encounter: a field's place, or one that no field reaches. */
export interface EncounterSide {
  /** Id of the field; `null` for a fixed place. */
  readonly field: string | null;
  /** Colour of a fixed place; else empty. */
  readonly css: string;
  readonly place: SettingPlace;
}

/** What is read or seen on a surface, and what fills that, in one state. */
export interface Encounter {
  readonly ink: EncounterSide;
  readonly ground: EncounterSide;
  readonly state: SettingState;
  /** Whether it is read, and not only seen. */
  readonly isRead: boolean;
}

/** Jobs whose contrast is asked for where they are only seen (WCAG 2.2, 1.4.11). */
const SEEN_JOBS: ReadonlySet<string> = new Set<Job>(['icon', 'frame', 'ring']);

/**
 * All that meets on the surfaces of a sheet: on each, in each state that anything of it is for, what is read or seen there and
 * the fill under it. What a state does not say falls back to rest.
 */
export function encounters(sheet: Pick<SettingsSheet, 'fields' | 'fixed'>): readonly Encounter[] {
  const found: Encounter[] = [];
  for (const sides of surfacesOf(sheet).values()) {
    const fills = sides.filter(({ place }) => (FILL_JOBS as ReadonlySet<string>).has(place.job));
    const inks = sides.filter(({ place }) => isInk(place));
    for (const state of new Set(sides.map(({ place }) => place.state))) {
      const ground = sideIn(fills, state);
      if (!ground) continue;
      for (const job of new Set(inks.map(({ place }) => place.job))) {
        const ink = sideIn(
          inks.filter(({ place }) => place.job === job),
          state,
        );
        // Neither says this state: they met at rest already.
        if (ink && (ink.place.state === state || ground.place.state === state))
          found.push({ ink, ground, state, isRead: (READ_JOBS as ReadonlySet<string>).has(job) });
      }
    }
  }
  return found;
}

/** Surfaces on which something is read or seen, with nobody to say what fills them. */
export function groundless(sheet: Pick<SettingsSheet, 'fields' | 'fixed'>): readonly string[] {
  return [...surfacesOf(sheet)].flatMap(([surface, sides]) => {
    const isFilled = sides.some(({ place }) => (FILL_JOBS as ReadonlySet<string>).has(place.job));
    return !isFilled && sides.some(({ field, place }) => field !== null && isInk(place)) ? [surface] : [];
  });
}

function isInk({ job }: SettingPlace): boolean {
  return (READ_JOBS as ReadonlySet<string>).has(job) || SEEN_JOBS.has(job);
}

function sideIn(sides: readonly EncounterSide[], state: SettingState): EncounterSide | null {
  return sides.find(({ place }) => place.state === state) ?? sides.find(({ place }) => place.state === 'rest') ?? null;
}

function surfacesOf({ fields, fixed }: Pick<SettingsSheet, 'fields' | 'fixed'>): Map<string, EncounterSide[]> {
  const surfaces = new Map<string, EncounterSide[]>();
  const add = (side: EncounterSide): void => {
    if (isLengthJob(side.place.job)) return;
    const name = side.place.surface.trim().toLowerCase();
    surfaces.set(name, [...(surfaces.get(name) ?? []), side]);
  };
  for (const field of fields) for (const place of field.places) add({ field: field.id, css: '', place });
  for (const { css, ...place } of fixed) if (css !== '') add({ field: null, css, place });
  return surfaces;
}
