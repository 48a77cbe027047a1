import { type Message, message, parsePage, proposeParts, type Opener, type Page } from '@upper-veneer/core';
import type { ImportRequest } from '@upper-veneer/contract';
import { isArchive, readArchive, type ReadArchive } from '../archive/read-archive.js';
import type { TellProgress } from '../work/progress.js';
import { CaptureProblem, type AddressPolicy, type PlanResult } from '@upper-veneer/browser';
import { assembleSite, type AssembledSite } from './assemble-site.js';
import type { Capture, ReportProgress } from './captured.js';
import { fetchAddress } from './fetch-address.js';
import { readUploads, type Upload } from './read-uploads.js';
import { captureVisited } from './visited-capture.js';
import { readWidget } from './widget-page.js';

/** What is to be brought in; plain data. */
export interface ImportInput {
  readonly request: Pick<ImportRequest, 'kind' | 'address' | 'html' | 'css' | 'name'>;
  readonly uploads: readonly { readonly name: string; readonly body: Uint8Array }[];
  readonly policy: AddressPolicy;
  /** Whether parts are to be proposed, as for a new site. */
  readonly isNew: boolean;
  /** What a browser took of each visit, where pages were visited. */
  readonly visited?: readonly PlanResult[];
  /** Addresses that are fetched again as they are sent. */
  readonly addresses?: readonly string[];
}

export interface ProposedPart {
  readonly name: string;
  readonly kind: string;
  readonly selector: string;
  readonly openers: readonly Opener[];
}

/** A site ready to be stored, or why it is refused. */
export type BroughtIn =
  | {
      readonly ok: true;
      readonly site: AssembledSite;
      readonly parts: readonly ProposedPart[];
      /** Paths of the pages of each visit. */
      readonly visitPaths: readonly (readonly string[])[];
    }
  /** An archive of a site, which is stored whole. */
  | { readonly ok: true; readonly whole: ReadArchive }
  | { readonly ok: false; readonly code: CaptureProblem['code']; readonly told: Message | string };

/** Most parts that a site begins with. */
const MOST_PARTS = 60;

/** Reads or fetches a site and makes it ready to be stored. */
export async function bringIn(input: ImportInput, tell: TellProgress): Promise<BroughtIn> {
  const report: ReportProgress = (stage, done, total) => tell({ stage, done, total });
  try {
    const [first] = input.uploads;
    if (input.request.kind === 'files' && input.uploads.length === 1) {
      const body = Buffer.from(first.body.buffer, first.body.byteOffset, first.body.byteLength);
      if (await isArchive(body)) {
        if (!input.isNew) throw new CaptureProblem('unreadable', message('capture.whole-site'));
        return { ok: true, whole: await readArchive(body, report) };
      }
    }
    const { site, visitPaths } = await assembled(input, report);
    return { ok: true, site, parts: input.isNew ? partsOf(site, report) : [], visitPaths };
  } catch (error) {
    if (error instanceof CaptureProblem) return { ok: false, code: error.code, told: error.told };
    throw error;
  }
}

async function assembled(
  input: ImportInput,
  report: ReportProgress,
): Promise<{ readonly site: AssembledSite; readonly visitPaths: readonly (readonly string[])[] }> {
  const { visited, addresses = [], policy } = input;
  if (!visited) return { site: assembleSite(await capture(input, report), report), visitPaths: [] };
  // Each by itself: a path is within the origin of its own page.
  const sites: AssembledSite[] = [];
  for (const result of visited) sites.push(assembleSite(await captureVisited(result, policy, report), report));
  const visitPaths = sites.map(({ pages }) => pages.map(({ path }) => path));
  for (const address of addresses)
    try {
      sites.push(assembleSite(await fetchAddress(address, policy, report), report));
    } catch (error) {
      if (!(error instanceof CaptureProblem) || error.code === 'stopped') throw error;
      sites.push({
        pages: [],
        assets: [],
        leftOut: [{ path: address, reason: message('left-out.not-again', { problem: error.told }) }],
      });
    }
  return { site: togetherOf(sites), visitPaths };
}

/** Several captures as one; of what lies at one path the first is it. */
function togetherOf(sites: readonly AssembledSite[]): AssembledSite {
  const firstOf = <T extends { readonly path: string }>(all: readonly T[]): T[] =>
    [...new Map([...all].reverse().map((own) => [own.path, own])).values()].reverse();
  return {
    pages: firstOf(sites.flatMap(({ pages }) => pages)),
    assets: firstOf(sites.flatMap(({ assets }) => assets)),
    leftOut: sites.flatMap(({ leftOut }) => leftOut),
  };
}

async function capture({ request, uploads, policy }: ImportInput, report: ReportProgress): Promise<Capture> {
  if (request.kind === 'address') return fetchAddress(request.address ?? '', policy, report);
  if (request.kind === 'widget') return readWidget(request.html ?? '', request.css ?? '', request.name || 'Widget');
  return readUploads(
    uploads.map(({ name, body }): Upload => ({
      name,
      body: Buffer.from(body.buffer, body.byteOffset, body.byteLength),
    })),
    report,
  );
}

/** Parts that the structure of the pages suggests, to begin with. */
function partsOf({ pages, assets }: AssembledSite, report: ReportProgress): ProposedPart[] {
  const sheets = new Map(
    assets.filter(({ mediaType }) => mediaType === 'text/css').map(({ path, body }) => [path, body.toString('utf8')]),
  );
  const loadSheet = (path: string): string | null => sheets.get(path) ?? null;
  const parsed = function* (): Generator<[number, Page]> {
    for (const [i, page] of pages.entries()) {
      report(message('stage.looking-for-parts'), i, pages.length);
      yield [i, parsePage(page.html, { path: page.path, loadSheet })];
    }
  };
  return proposeParts(parsed())
    .slice(0, MOST_PARTS)
    .map(({ name, kind, selector, openers }) => ({ name, kind, selector, openers }));
}
