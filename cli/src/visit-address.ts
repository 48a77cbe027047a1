import { readFile } from 'node:fs/promises';
import {
  CaptureProblem,
  findBrowser,
  narrowedTo,
  relativeAddress,
  runPlan,
  sitePathOf,
  startVisitProcess,
  withoutFragment,
  type AddressPolicy,
  type PlanResult,
} from '@upper-veneer/browser';
import { VisitBody, validateBody } from '@upper-veneer/contract';
import { cleanPage, planProblem, withCssAddresses, type VisitPlan } from '@upper-veneer/core';
import { errorText, say, spoken, wordsOf } from '@upper-veneer/words';
import type { SavedSite } from './read-site.js';
import { UsageProblem } from './usage-problem.js';

/** A saved site, and what was said of its capture. */
export interface VisitedSite extends SavedSite {
  readonly notes: readonly string[];
}

/** Whether this machine has a browser to visit pages with. */
export function canVisit(): boolean {
  return findBrowser() !== null;
}

/**
 * Gets a page as a visitor's browser does, with the stylesheets it looks by.
 * @param stepsFile JSON with the width of the window, what is done, and what is kept (docs/steps-file.md); absent for the page alone.
 * @throws {UsageProblem} when there is no browser, a step finds nothing, or the file is no such file.
 */
export async function visitAddress(
  address: string,
  stepsFile: string | undefined,
  tell: (words: string) => void,
): Promise<VisitedSite> {
  const program = findBrowser();
  if (program === null)
    throw new UsageProblem('No Chromium or Chrome is on this machine; name it in CHROME_BIN, or use --as-sent');
  const plan = await readPlan(address, stepsFile);
  try {
    const visit = await startVisitProcess({ program, policy: policyFor(address), width: plan.width });
    try {
      const result = await runPlan(visit, plan, (stage) => tell(say(stage)));
      return savedOf(result);
    } finally {
      await visit.close();
    }
  } catch (error) {
    if (error instanceof CaptureProblem) throw new UsageProblem(error.message);
    throw error;
  }
}

/** Who asks for an address of this machine means it; a page from outside gets no way in. */
function policyFor(address: string): AddressPolicy {
  return narrowedTo(address, { allowedHosts: [new URL(address).host], allowPrivate: false });
}

async function readPlan(address: string, file: string | undefined): Promise<VisitPlan> {
  const plain = { address, width: 1280, keep: '', steps: [] };
  if (file === undefined) return plain;
  const text = await readFile(file, 'utf8').catch(() => {
    throw new UsageProblem(`${file} is not there`);
  });
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch (error) {
    throw new UsageProblem(`${file} is no JSON: ${errorText(error)}`);
  }
  if (typeof said !== 'object' || said === null || Array.isArray(said))
    throw new UsageProblem(`${file} must hold an object with "steps"`);
  const { width = 1280, keep = null, steps = [] } = said as Partial<VisitPlan>;
  const empty = { selector: '', words: '', frame: '', text: '', width: null, keep: null };
  const whole = {
    address,
    width,
    keep,
    steps: Array.isArray(steps) ? steps.map((step) => ({ ...empty, ...step })) : steps,
  };
  const checked = validateBody(VisitBody, whole);
  if (!checked.ok) throw new UsageProblem(`${file}: ${checked.errors[0].field} ${checked.errors[0].reason}`);
  const wrong = spoken(planProblem(checked.value));
  if (wrong !== null) throw new UsageProblem(`${file}: ${wrong}`);
  return checked.value;
}

/** Pages and sheets under the paths of a folder, leading to each other; pictures and fonts are left where they are. */
function savedOf({ pages, files, notes }: PlanResult): VisitedSite {
  const home = new URL(pages[0]?.base ?? 'http://page.invalid/').origin;
  const documents = pages.flatMap((page) => [page, ...page.frames]);
  const sheets = files.filter(({ mediaType }) => mediaType === 'text/css');
  const paths = new Map([
    ...sheets.map((sheet) => [sheet.address, sitePathOf(sheet.address, home, '.css')] as const),
    ...documents.map((page) => [page.address, sitePathOf(page.address, home, '.html')] as const),
  ]);
  const led = (from: string, base: string, written: string): string => {
    const address = URL.canParse(written, base) ? new URL(written, base).href : written;
    const path = paths.get(withoutFragment(address));
    return path === undefined ? address : relativeAddress(paths.get(from) ?? from, path);
  };
  return {
    pages: documents.map(({ address, base, html }) => ({
      path: paths.get(address) ?? address,
      html: cleanPage(html, (found) => (found.kind === 'page' ? found.address : led(address, base, found.address)))
        .html,
    })),
    stylesheets: Object.fromEntries(
      sheets.map(({ address, base, body }) => [
        paths.get(address) ?? address,
        withCssAddresses(body.toString('utf8'), (found) => led(address, base ?? address, found.address)),
      ]),
    ),
    notes: [
      ...notes.map(say),
      ...pages.flatMap(({ lost }) => lost.map((what) => wordsOf('left-out.not-in-copy', { what }))),
    ],
  };
}
