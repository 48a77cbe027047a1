import { parsePage, reanchorOverride, type Override } from '@upper-veneer/core';

interface PageText {
  readonly path: string;
  readonly html: string;
}

/** Pages before and after they were captured again, with the sheets of their site, and its overrides. */
export interface ReanchorInput {
  readonly pages: readonly { readonly id: number; readonly before: PageText; readonly after: PageText }[];
  readonly sheetsBefore: Readonly<Record<string, string>>;
  readonly sheetsAfter: Readonly<Record<string, string>>;
  readonly overrides: readonly Override[];
}

/** An override as it is after pages were captured again, and what of it was lost on which page. */
export interface Reanchored {
  readonly override: Override;
  readonly lost: readonly { readonly path: string; readonly reason: string }[];
}

/** Leads overrides to where their elements are now; those that do not change are among them. */
export function reanchorPages({ pages, sheetsBefore, sheetsAfter, overrides }: ReanchorInput): Reanchored[] {
  const parse = ({ path, html }: PageText, sheets: Readonly<Record<string, string>>) =>
    parsePage(html, { path, loadSheet: (name) => sheets[name] ?? null });
  let moved: Reanchored[] = overrides.map((override) => ({ override, lost: [] }));
  for (const { id, before, after } of pages) {
    const [pageBefore, pageAfter] = [parse(before, sheetsBefore), parse(after, sheetsAfter)];
    moved = moved.map(({ override, lost }) => {
      const next = reanchorOverride(pageBefore, pageAfter, id, override);
      return { override: next.override, lost: [...lost, ...next.lost.map((reason) => ({ path: after.path, reason }))] };
    });
  }
  return moved;
}
