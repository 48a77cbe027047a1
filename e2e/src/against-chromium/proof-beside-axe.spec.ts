import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { layOut, openSite, proveSite, toEnd, type ProofPlace } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { demoPages } from '../support/demo-pages.js';
import { measuredPage } from '../support/measured-page.js';
import { namedPages } from '../support/named-pages.js';
import { isWhole } from '../support/whole-run.js';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** High enough for the pages: what is out of view is not judged. */
const VIEWPORT = { width: 1280, height: 3000 };

interface AxeNode {
  /** Index in document order. */
  readonly element: number;
  readonly html: string;
  readonly ratio: number;
}

// Reference: axe-core's rule `color-contrast`, an independent checker, in Chromium.
describe('contrast beside an independent checker', () => {
  let browser: Browser;
  const sum = { theirs: 0, both: 0, ours: 0 };
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(async () => {
    await browser.close();
    process.stdout.write(
      `\nContrast beside axe-core: ${sum.theirs} failures of its own, ${sum.both} of them among ours; ${sum.ours} elements that only we report.\n`,
    );
  });

  const pages = [...demoPages(), ...namedPages()].filter((_, i) => isWhole || i % 4 === 0);
  for (const { name, html } of pages)
    it(`${name}: each of its failures is among ours, at its ratio`, async () => {
      const page = await browser.newPage({ viewport: VIEWPORT });
      await page.setContent(html);
      // Counted before anything is added.
      await page.evaluate("window.counted = [...document.querySelectorAll('*')]");
      await page.addScriptTag({ content: AXE });
      const theirs = (await page.evaluate(`(async () => {
        const { violations } = await axe.run(document, { runOnly: ['color-contrast'], elementRef: true, iframes: false });
        const told = ({ element, html, any }) => ({
          element: window.counted.indexOf(element),
          html: html.slice(0, 90),
          ratio: any[0]?.data?.contrastRatio ?? 0,
        });
        return violations.flatMap(({ nodes }) => nodes.map(told));
      })()`)) as AxeNode[];
      // What was added here is no part of the page.
      await page.evaluate('document.querySelectorAll("script").forEach((node) => node.remove())');
      const site = openSite({
        pages: [{ id: 1, name, path: 'index.html', html }],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'b',
      });
      const { layout } = await measuredPage(page, [...site.pages.values()][0]);
      await page.close();
      const { findings } = toEnd(
        proveSite(layOut(site, 1, layout), { at: { settings: [{ ...VIEWPORT }], unseen: [] } }),
      );
      const places = findings
        .filter(({ kind, unit }) => kind === 'reads' && unit === 'ratio')
        .flatMap((finding) => finding.places.filter(({ state }) => state === 'rest'));
      const own = new Set(places.map(({ element }: ProofPlace) => element));
      const missed = theirs.filter(({ element }) => element >= 0 && !own.has(element));
      sum.theirs += theirs.length;
      sum.both += theirs.length - missed.length;
      sum.ours += [...own].filter((number) => !theirs.some(({ element }) => element === number)).length;
      expect(missed.length)
        .withContext(missed.map((node) => `${node.html} ${node.ratio}`).join('\n'))
        .toBe(0);
    }, 60_000);
});
