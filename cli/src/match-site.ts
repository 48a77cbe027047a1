import {
  dressSite,
  foundColors,
  layMatch,
  openSite,
  proposeMatch,
  selectorProblem,
  toEnd,
  verifyMatch,
  withOverrides,
  type LaidMatch,
  type MatchProof,
  type MatchProposal,
  type MatchScope,
  type Palette,
  type SiteModel,
  type Strategy,
} from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import type { SavedSite } from './read-site.js';
import { UsageProblem } from './usage-problem.js';

/** Viewport width pages are looked at, CSS px. */
const WIDTH = 1280;

export interface MatchQuestion {
  readonly saved: SavedSite;
  readonly palette: Palette;
  /** Selector of what is matched; `null` for the whole site. */
  readonly scope: string | null;
  readonly strategy: Strategy;
}

export interface Matched {
  readonly site: SiteModel;
  readonly scope: MatchScope;
  readonly proposal: MatchProposal;
}

/** Proposes for a saved site. @throws {UsageProblem} when the scope is no selector. */
export function matchSite({ saved, palette, scope, strategy }: MatchQuestion): Matched {
  const problem = scope === null ? '' : spoken(selectorProblem(scope));
  if (problem) throw new UsageProblem(`--scope ${scope}: ${problem}`);
  const site = dressSite(
    openSite({
      pages: saved.pages.map(({ path, html }, i) => ({ id: i + 1, name: path, path, html })),
      stylesheets: saved.stylesheets,
      parts: scope === null ? [] : [{ id: 1, name: 'Scope', kind: 'scope', selector: scope, openers: [] }],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    palette,
  );
  const matched: MatchScope = scope === null ? { kind: 'site' } : { kind: 'parts', partIds: [1] };
  const found = foundColors(site, matched, WIDTH);
  return { site, scope: matched, proposal: proposeMatch(site, matched, found, { strategy, locked: {}, equal: [] }) };
}

/** The proposal as a stylesheet, what of it could not be written, and what resolving the site with it found. */
export interface LaidOn {
  readonly css: string;
  readonly refused: LaidMatch['refused'];
  readonly proof: MatchProof;
}

export function layOn({ site, scope, proposal }: Matched): LaidOn {
  const laid = toEnd(layMatch(site, proposal, WIDTH));
  const after = withOverrides(site, laid);
  return {
    css: after.css,
    refused: laid.refused,
    proof: toEnd(verifyMatch(site, after, scope, proposal)),
  };
}
