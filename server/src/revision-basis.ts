import {
  colorOfValue,
  hexOf,
  plainValuesIn,
  type Override,
  type OverrideValue,
  type Palette,
  type PlainValue,
} from '@upper-veneer/core';
import type { NewPalette } from './db/palettes.js';
import type { RevisionRow } from './db/revisions.js';
import type { Store } from './store.js';

/** What a revision's sheet was compiled from beside its overrides, as the history keeps each. */
export interface RevisionBasis {
  readonly palette: NewPalette;
  readonly naming: unknown;
  readonly parts: unknown;
}

/** What the draft is compiled from beside its overrides. */
export function basisOf(store: Store, siteId: number): RevisionBasis {
  return {
    palette: store.palettes.subject.take(siteId),
    naming: store.sheetOptions.subject.take(siteId),
    parts: store.parts.subject.take(siteId),
  };
}

/** What came of bringing a revision back. */
export interface BroughtBack {
  /** Overrides that stay away, since their page is gone. */
  readonly stranded: number;
  /** Whether its palette, names and parts came back too. */
  readonly isWhole: boolean;
}

/** Brings a revision back into the draft, or one part of it, as one step of undo. @param partId `null` for the site-wide part; absent for all. */
export function bringBack(
  store: Store,
  siteId: number,
  revision: RevisionRow,
  partId: number | null | undefined,
  at: string,
): BroughtBack {
  const all = JSON.parse(revision.overrides) as Override[];
  const basis = revision.basis === null ? null : (JSON.parse(revision.basis) as RevisionBasis);
  const pages = new Set(store.pages.ids(siteId));
  const there = all.filter(({ pageId }) => pages.has(pageId));
  const lead = `Bring revision ${revision.number} back`;
  if (partId === undefined) {
    const names = basis ? (['overrides', 'palette', 'naming', 'parts'] as const) : (['overrides'] as const);
    store.changes.applyTo(
      siteId,
      lead,
      names,
      () => {
        if (basis) {
          store.palettes.subject.put(siteId, basis.palette);
          store.sheetOptions.subject.put(siteId, basis.naming as ReturnType<typeof store.sheetOptions.subject.take>);
          store.parts.subject.put(siteId, basis.parts as ReturnType<typeof store.parts.subject.take>);
        }
        store.overrides.subject.put(
          siteId,
          basis ? there : there.map((own) => rebound(own, store.palettes.bySite(siteId), null)),
        );
      },
      at,
    );
    return { stranded: all.length - there.length, isWhole: basis !== null };
  }
  const own = there.filter((override) => override.partId === partId);
  const now = store.palettes.bySite(siteId);
  const drop = store.overrides
    .bySite(siteId)
    .filter((override) => override.partId === partId)
    .map(({ id }) => id);
  const name = store.parts.bySite(siteId).find(({ id }) => id === partId)?.name ?? 'the site-wide part';
  const put = own.map((override) => rebound(override, now, basis?.palette ?? null));
  store.changes.apply(
    siteId,
    `${lead}: ${name}`.slice(0, 200),
    put,
    drop.filter((id) => !put.some((override) => override.id === id)),
    at,
  );
  return { stranded: all.filter((override) => override.partId === partId).length - own.length, isWhole: false };
}

/** An override whose swatches are no longer there keeps their colour as a plain value. */
function rebound(override: Override, now: Palette, then: NewPalette | null): Override {
  const before: Palette | null = then && {
    swatches: then.swatches.map(({ id, name, css }) => ({ id, name, css })),
    roles: then.roles.flatMap(({ role, swatch, shade }) => {
      const found = then.swatches.find(({ name }) => name === swatch);
      return found ? [{ role, swatchId: found.id, shade }] : [];
    }),
  };
  const plain = (value: PlainValue): PlainValue => {
    const isThere =
      value.kind === 'swatch'
        ? now.swatches.some(({ id }) => id === value.swatchId)
        : value.kind !== 'role' || now.roles.some(({ role }) => role === value.role);
    const color = isThere || !before ? null : colorOfValue(value, before);
    return color ? { kind: 'literal', css: hexOf(color) } : value;
  };
  const value: OverrideValue =
    override.value.kind === 'composite'
      ? { ...override.value, colors: plainValuesIn(override.value).map(plain) }
      : override.value.kind === 'house'
        ? override.value
        : plain(override.value);
  return { ...override, value };
}
