import {
  ProofMemo,
  dressSheet,
  filesShown,
  dressSite,
  openSite,
  proofSettings,
  proposeParts,
  proveSite,
  toEnd,
  tryMend,
  type MendTried,
  type Palette,
  type Proof,
  type ProofFinding,
  type SiteModel,
  message,
} from '@upper-veneer/core';
import type { SavedSite } from './read-site.js';

export interface CheckQuestion {
  readonly saved: SavedSite;
  /** `null` where no colours are the brand's. */
  readonly palette: Palette | null;
  /** Stylesheet in the veneer's place; empty to look at the site as it is. */
  readonly veneer: string;
  /** Viewport widths, CSS px; those that matter when `null`. */
  readonly widths: readonly number[] | null;
  readonly lighting: 'light' | 'inverted' | 'both';
  readonly triesMends: boolean;
}

/** What a saved site comes to. */
export interface Checked {
  readonly site: SiteModel;
  readonly proof: Proof;
  /** What came of looking for a mend, by finding; empty where it was not asked for. */
  readonly mends: ReadonlyMap<string, MendTried>;
}

/** Looks at a saved site with a stylesheet on it. */
export function checkSite({ saved, palette, veneer, widths, lighting, triesMends }: CheckQuestion): Checked {
  const source = {
    pages: saved.pages.map(({ path, html }, i) => ({ id: i + 1, name: path, path, html })),
    stylesheets: saved.stylesheets,
    parts: [],
    veneerPlace: 'head-end' as const,
    prefix: 'brand',
  };
  const parts = proposeParts(openSite(source).closed).map(({ name, kind, selector, openers }, i) => ({
    id: i + 1,
    name,
    kind,
    selector,
    openers,
  }));
  const brand: Palette = palette ?? { swatches: [], roles: [] };
  const lit = lighting === 'light' ? brand : { ...brand, second: { told: { kind: 'scheme' as const }, roles: [] } };
  const site = dressSheet(dressSite(openSite({ ...source, parts }), [], lit), veneer);
  const memo = new ProofMemo();
  const at = widths ? { settings: widths.map((width) => ({ width })), unseen: [] } : proofSettings(site);
  const found = toEnd(proveSite(site, { at, memo }));
  const whole = { ...found, unseen: [...found.unseen, ...filesUnread(site, at.settings)] };
  const proof = lighting === 'inverted' ? onlyInverted(whole) : whole;
  const mends = new Map(
    triesMends
      ? proof.findings.map((finding) => [finding.id, toEnd(tryMend(site, finding, whole, memo))] as const)
      : [],
  );
  return { site, proof, mends };
}

/** Picture files: nothing decodes them here. */
function filesUnread(site: SiteModel, settings: Proof['settings']): Proof['unseen'] {
  const files = new Set(toEnd(filesShown(site, settings)).flatMap((shown) => shown.files.map(({ path }) => path)));
  if (files.size === 0) return [];
  return [{ what: message('check.files-unread', { count: files.size }), reason: message('check.files-unread-reason') }];
}

function onlyInverted(proof: Proof): Proof {
  const isInverted = ({ lightings, kind }: ProofFinding): boolean => kind === 'holds' || lightings.includes('inverted');
  return { ...proof, lightings: ['inverted'], findings: proof.findings.filter(isInverted) };
}
