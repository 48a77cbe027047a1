import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  compileVeneer,
  dressSite,
  longhandsOfProperty,
  openSite,
  planAll,
  pointerStates,
  tidySheet,
  viewIn,
  type OverrideWish,
  type Palette,
  type SiteModel,
} from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { root } from '../support/product.js';
import { drawWish } from '../support/proof-draw.js';
import { ProofPage, WATCHED } from '../support/proof-page.js';
import { random } from '../support/random.js';
import { openSiteFolder } from '../support/site-folder.js';

const PATHS = ['book.html', 'trips.html'];
const SHEETS = ['theme', 'booking', 'consent', 'reviews'].map((name) => `css/${name}.css`);
const PALETTE: Palette = { swatches: [], roles: [] };
const VENEERS = 6;
const WISHES = 12;

/** A drawn veneer; every third wish asks for what is there already, so that there is something to leave out. */
function drawVeneer(site: SiteModel, draw: () => number): OverrideWish[] {
  return Array.from({ length: WISHES }, (_, i) => {
    const { wish } = drawWish(site, draw);
    if (i % 3 !== 0) return wish;
    const page = site.pages.get(wish.pageId);
    const element = page?.document.elements[wish.element];
    if (!page || !element) return wish;
    const [longhand] = longhandsOfProperty(wish.property);
    return {
      ...wish,
      state: 'rest' as const,
      value: {
        kind: 'literal' as const,
        css: viewIn(page, element, 'rest', 1280).style(element, wish.pseudo).resolved(longhand),
      },
    };
  });
}

describe('tidied sheets in Chromium', () => {
  const folder = openSiteFolder(join(root, 'demo/site'), new Map());
  const read = (path: string): string => readFileSync(join(root, 'demo/site', path), 'utf8');
  const site = dressSite(
    openSite({
      pages: PATHS.map((path, i) => ({ id: i + 1, name: path, path, html: read(path) })),
      stylesheets: Object.fromEntries(SHEETS.map((path) => [path, read(path)])),
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    PALETTE,
  );
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: Chromium's computed values of every element under the sheet before and after, at rest and hovered.
  it('come to the same values as before, for every element', async () => {
    const draw = random(1907);
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled: false });
    await folder.serve(context);
    const proof = await ProofPage.open(context);
    const differing: string[] = [];
    let rewrites = 0;
    for (let i = 0; i < VENEERS; i += 1) {
      const dressed = dressSite(site, planAll(site, drawVeneer(site, draw)).put, PALETTE);
      const plain = compileVeneer(dressed.overrides, { palette: PALETTE, parts: [], prefix: 'brand' });
      const { css, dropped, merged } = tidySheet(dressed);
      rewrites += dropped.length + merged;
      for (const page of site.pages.values()) {
        await proof.load(`${folder.origin}/${page.path}`);
        const tree = page.document.elements.filter((node) => node.root === page.document.root);
        const places = new Map(tree.map((node, at) => [node, at]));
        const hovered = tree
          .filter(({ localName }) => ['a', 'button', 'input'].includes(localName))
          .filter((_, at) => at % 9 === i % 9)
          .slice(0, 2);
        for (const lead of [null, ...hovered]) {
          await proof.force(lead ? pointerStates(page.document, lead, 'hover') : new Map(), places);
          await proof.write(plain);
          const before = await proof.valuesOf(WATCHED);
          await proof.write(css);
          const after = await proof.valuesOf(WATCHED);
          after.forEach((values, at) => {
            const names = WATCHED.filter((_, k) => values[k] !== before[at][k]);
            if (names.length > 0) differing.push(`veneer ${i}, ${page.path}, element ${at}: ${names.join(', ')}`);
          });
          await proof.release();
        }
      }
    }
    expect(differing.slice(0, 10)).withContext(`${differing.length} in all`).toEqual([]);
    expect(rewrites).toBeGreaterThan(VENEERS);
    await context.close();
  });
});
