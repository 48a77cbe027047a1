import { errorText } from '@upper-veneer/words';
import { parsePage } from '@upper-veneer/core';
import type { SavedSite } from './read-site.js';
import { UsageProblem } from './usage-problem.js';

/** Bounds on what is fetched. */
const LIMITS = { bytes: 20_000_000, sheets: 200, rounds: 6, patienceMs: 20_000 } as const;

export function isAddress(path: string): boolean {
  return /^https?:\/\//i.test(path);
}

/**
 * Fetches a page and the stylesheets of its own origin, those they import too; others are left out, which is said as any sheet that is missing.
 * @throws {UsageProblem} when it does not answer, is no page, or is larger than is read.
 */
export async function readAddress(address: string): Promise<SavedSite> {
  const url = readUrl(address);
  const path = url.pathname.replace(/^\//, '').replace(/\/$|^$/, (end) => `${end}index.html`);
  const html = await fetchText(url);
  const stylesheets: Record<string, string> = {};
  for (let round = 0; round < LIMITS.rounds; round += 1) {
    const wanted = new Set<string>();
    parsePage(html, {
      path,
      loadSheet: (sheet) => {
        if (!(sheet in stylesheets)) wanted.add(sheet);
        return stylesheets[sheet] ?? null;
      },
    });
    const missing = [...wanted].filter((sheet) => !(sheet in stylesheets));
    if (missing.length === 0 || Object.keys(stylesheets).length > LIMITS.sheets) break;
    const texts = await Promise.all(missing.map((sheet) => fetchText(new URL(`/${sheet}`, url)).catch(() => null)));
    const read = missing.flatMap((sheet, i) => (texts[i] === null ? [] : [[sheet, texts[i] ?? ''] as const]));
    if (read.length === 0) break;
    for (const [sheet, text] of read) stylesheets[sheet] = text;
  }
  return { pages: [{ path, html }], stylesheets };
}

function readUrl(address: string): URL {
  try {
    return new URL(address);
  } catch {
    throw new UsageProblem(`${address} is no address that can be read`);
  }
}

async function fetchText(url: URL): Promise<string> {
  const fail = (reason: string): never => {
    throw new UsageProblem(`${url.href} ${reason}`);
  };
  const response = await fetch(url, { signal: AbortSignal.timeout(LIMITS.patienceMs) }).catch((error: unknown) =>
    fail(`does not answer: ${errorText(error)}`),
  );
  if (!response.ok) fail(`answers with ${response.status}`);
  const body = await response.arrayBuffer();
  if (body.byteLength > LIMITS.bytes) fail(`is larger than ${LIMITS.bytes / 1e6} MB`);
  return new TextDecoder('utf-8').decode(body);
}
