import type { ArchiveStep, PaletteBody, PlanRequest } from '@upper-veneer/contract';
import type { Becomes, MatchChoices, Override, Palette } from '@upper-veneer/core';
import { toNewPalette } from '../db/palettes.js';
import type { PlanRow } from '../db/plans.js';
import { sheetBody } from '../settings.js';
import type { Store } from '../store.js';

/** The draft of a site, whole. */
export type DraftState = Required<Omit<ArchiveStep, 'label' | 'madeAt' | 'put' | 'drop'>> & {
  readonly overrides: readonly Override[];
};

/** Subjects of the draft that are kept whole in a step that changed them. */
const WHOLE = [
  'palette',
  'parts',
  'ownCss',
  'exceptions',
  'requests',
  'plans',
  'settings',
  'arrangement',
  'naming',
] as const;

/** The draft as it stands. */
export function draftState(store: Store, siteId: number): DraftState {
  return {
    overrides: store.overrides.bySite(siteId),
    palette: paletteBody(store.palettes.bySite(siteId)),
    parts: store.parts
      .bySite(siteId)
      .map((part) => ({ ...part, openers: part.openers.map((own) => ({ ...own })) })) as DraftState['parts'],
    ownCss: store.ownCss.bySite(siteId),
    exceptions: store.exceptions.bySite(siteId).map(({ kind, target, reason }) => ({ kind, target, reason })),
    requests: store.requests.bySite(siteId) as DraftState['requests'],
    plans: store.plans.bySite(siteId).map(planBody),
    settings: store.settingsSheets.rows(siteId).map(sheetBody),
    arrangement: store.arrangements.bySite(siteId),
    naming: store.sheetOptions.bySite(siteId) as DraftState['naming'],
  };
}

/** What leads from one state of the draft to the next. */
export function stepBetween(
  before: DraftState,
  after: DraftState,
  { label, madeAt }: Pick<ArchiveStep, 'label' | 'madeAt'>,
): ArchiveStep {
  const known = new Map(before.overrides.map((override) => [override.id, JSON.stringify(override)]));
  const left = new Set(after.overrides.map(({ id }) => id));
  const changed = WHOLE.filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]));
  return {
    label,
    madeAt,
    put: after.overrides.filter((override) => known.get(override.id) !== JSON.stringify(override)),
    drop: before.overrides.map(({ id }) => id).filter((id) => !left.has(id)),
    ...Object.fromEntries(changed.map((name) => [name, after[name]])),
  };
}

/** A whole draft as the step that everything begins with. */
export function firstStep({ overrides, ...state }: DraftState, at: string): ArchiveStep {
  return { label: 'Start', madeAt: at, put: overrides, drop: [], ...state };
}

/** A palette as it goes over the wire: what fills a role is named. */
export function paletteBody(palette: Palette): PaletteBody {
  const { swatches, roles, second, shape, former } = toNewPalette(palette);
  return {
    swatches: swatches.map(({ id, name, css, token, origin, note }) => ({ id, name, css, token, origin, note })),
    roles,
    second: second as PaletteBody['second'],
    shape: shape as PaletteBody['shape'],
    former,
  };
}

function planBody({ scope, choices }: PlanRow): PlanRequest {
  const { strategy, locked, equal, mains, properties, shapes, apart, merged } = choices as MatchChoices;
  const settled = Object.entries(locked) as [string, Becomes][];
  return {
    label: 'Plan',
    scope,
    strategy,
    settled: settled.map(([row, becomes]) => (becomes.kind === 'value' ? { row, value: becomes.value } : { row })),
    equal: equal.map((rows) => ({ rows: [...rows] })),
    mains: (mains ?? []).map(({ pageId, element }) => ({ pageId, element })),
    ...(properties ? { properties: [...properties] } : {}),
    ...(shapes ? { shapes: Object.entries(shapes).map(([row, becomes]) => ({ row, becomes })) } : {}),
    ...(apart ? { apart: apart.map(({ row, places }) => ({ row, places: [...places] })) } : {}),
    ...(merged ? { merged: merged.map((rows) => ({ rows: [...rows] })) } : {}),
  };
}
