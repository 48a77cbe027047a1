import { carriedValue, withoutPage, type Override, type OwnCss } from '@upper-veneer/core';
import type { BasisRow } from './draft-basis.js';
import { toNewPalette } from './db/palettes.js';
import type { Store } from './store.js';

/** What came of bringing a revision back. */
export interface BroughtBack {
  /** Overrides that stay away, since their page is gone. */
  readonly stranded: number;
  /** Overrides that stay away, since nobody can tell their colour any more. */
  readonly colorless: number;
  /** Whether its palette, names and parts came back too. */
  readonly isWhole: boolean;
}

/** What is brought back: a revision, or a draft that was left behind. */
export interface KeptDraft {
  /** The overrides, and what they were compiled with besides, as JSON. */
  readonly overrides: string;
  readonly basis: string | null;
  /** What it is called in the history: `revision 3`. */
  readonly words: string;
}

interface BringBack {
  readonly store: Store;
  readonly siteId: number;
  readonly revision: KeptDraft;
  /** When it is done, as ISO 8601. */
  readonly at: string;
  /** What else is done in the same step, to settings sheets. */
  readonly withSettings?: () => void;
}

/** Brings a revision back into the draft, with its palette, names and parts where they were kept with it, as one step of undo. */
export function bringBack({ store, siteId, revision, at, withSettings }: BringBack): BroughtBack {
  const basis = basisIn(revision);
  const names = [
    ...(basis ? (['overrides', 'ownCss', 'palette', 'naming', 'parts'] as const) : (['overrides'] as const)),
    ...(withSettings ? (['settings'] as const) : []),
  ];
  let brought: Carried | null = null;
  store.changes.applyTo(
    siteId,
    `Bring ${revision.words} back`.slice(0, 200),
    names,
    () => {
      if (basis) {
        store.palettes.subject.put(siteId, toNewPalette(basis.palette));
        store.sheetOptions.subject.put(siteId, basis.naming);
        store.parts.subject.put(siteId, basis.parts);
        store.ownCss.put(siteId, basis.ownCss ?? []);
      }
      brought = carried(store, siteId, overridesIn(revision), basis);
      store.overrides.subject.put(siteId, brought.overrides);
      withSettings?.();
    },
    at,
  );
  return toldOf(brought, basis !== null);
}

/** Brings one part of a revision back, in today's palette. @param partId `null` for what is in no part. */
export function bringPartBack({ store, siteId, revision, at }: BringBack, partId: number | null): BroughtBack {
  const isOwn = (override: Override): boolean => override.partId === partId;
  const brought = carried(store, siteId, overridesIn(revision).filter(isOwn), basisIn(revision));
  const put = new Set(brought.overrides.map(({ id }) => id));
  const drop = store.overrides.bySite(siteId).filter((override) => isOwn(override) && !put.has(override.id));
  const name = store.parts.bySite(siteId).find(({ id }) => id === partId)?.name ?? 'what is in no part';
  const label = `Bring ${revision.words} back: ${name}`.slice(0, 200);
  store.changes.applyTo(
    siteId,
    label,
    ['overrides', 'ownCss'],
    () => {
      for (const { id } of drop) store.overrides.drop(siteId, id);
      for (const override of brought.overrides) store.overrides.put(siteId, override);
      const inPart = (own: OwnCss): boolean => own.partId === partId;
      store.ownCss.put(siteId, [
        ...store.ownCss.bySite(siteId).filter((own) => !inPart(own)),
        ...(basisIn(revision)?.ownCss ?? []).filter(inPart),
      ]);
    },
    at,
  );
  return toldOf(brought, false);
}

function basisIn({ basis }: KeptDraft): BasisRow | null {
  return basis === null ? null : (JSON.parse(basis) as BasisRow);
}

function overridesIn({ overrides }: KeptDraft): Override[] {
  return JSON.parse(overrides) as Override[];
}

interface Carried {
  readonly overrides: readonly Override[];
  readonly stranded: number;
  readonly colorless: number;
}

function toldOf(brought: Carried | null, isWhole: boolean): BroughtBack {
  return { stranded: brought?.stranded ?? 0, colorless: brought?.colorless ?? 0, isWhole };
}

/** Overrides of a revision on the pages, in the parts and in the palette that are there now. */
function carried(store: Store, siteId: number, all: readonly Override[], basis: BasisRow | null): Carried {
  const pages = new Set(store.pages.ids(siteId));
  const parts = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  const palette = store.palettes.bySite(siteId);
  const onPages = all.flatMap((override) => onlyOn(override, pages) ?? []);
  const overrides = onPages.flatMap((override) => {
    const value = carriedValue(override.value, basis?.palette ?? null, palette);
    const partId = override.partId !== null && parts.has(override.partId) ? override.partId : null;
    return value ? [{ ...override, value, partId }] : [];
  });
  return { overrides, stranded: all.length - onPages.length, colorless: onPages.length - overrides.length };
}

/** An override without the pages that are gone; `null` where it was made on one, or kept to those alone. */
function onlyOn(override: Override, pages: ReadonlySet<number>): Override | null {
  const named = [...(override.pages ?? []), ...(override.spared ?? []).map(({ pageId }) => pageId)];
  return [override.pageId, ...named]
    .filter((id) => !pages.has(id))
    .reduce<Override | null>((kept, id) => (kept && kept.pageId !== id ? withoutPage(kept, id) : null), override);
}
