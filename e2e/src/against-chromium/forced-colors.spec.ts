import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { dressSite, openSite, planAll, withOverrides, type OverrideWish, type SiteModel } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { root } from '../support/product.js';
import { ProofPage } from '../support/proof-page.js';
import { openSiteFolder } from '../support/site-folder.js';

const PATH = 'book.html';
/** Colours that a visitor's own take the place of, as computed. Source: CSS Color Adjustment 1 §3.1. Those of text decorations Chromium forces when it paints. */
const FORCED = [
  'color',
  'background-color',
  'border-top-color',
  'border-left-color',
  'outline-color',
  'caret-color',
  'box-shadow',
  'text-shadow',
  'accent-color',
] as const;
const WISHED: readonly (readonly [property: string, css: string])[] = [
  ['color', '#7a3fd1'],
  ['background-color', '#123456'],
  ['border-color', '#d1663f'],
  ['outline-color', '#3fd1a0'],
  ['box-shadow', '0 2px 4px #7a3fd1'],
  ['text-shadow', '1px 1px 2px #7a3fd1'],
];
const TARGETS = ['qs-go', 'qs-title', 'notice', 'qs-card', 'qs-note'];

function openModel(read: (path: string) => string): SiteModel {
  const sheets = ['theme', 'booking', 'consent', 'basket', 'newsletter'].map((name) => `css/${name}.css`);
  return dressSite(
    openSite({
      pages: [{ id: 1, name: PATH, path: PATH, html: read(PATH) }],
      stylesheets: Object.fromEntries(sheets.map((path) => [path, read(path)])),
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    { swatches: [], roles: [] },
  );
}

// Reference: the computed values of Chromium, told that its visitor has forced colours.
describe('a veneer under forced colours', () => {
  const folder = openSiteFolder(join(root, 'demo/site'), new Map());
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  it('leaves every colour to the visitor, and without them changes what it is for', async () => {
    const site = openModel((path) => readFileSync(join(root, 'demo/site', path), 'utf8'));
    const page = [...site.pages.values()][0];
    const wishes = TARGETS.flatMap((name) =>
      page.document.elements.filter(({ classes }) => classes.includes(name)).slice(0, 1),
    ).flatMap((element) =>
      WISHED.map(([property, css]): OverrideWish => ({
        pageId: 1,
        element: element.number,
        pseudo: '',
        reach: 'alike',
        state: 'rest',
        property,
        value: { kind: 'literal', css },
        width: 1280,
      })),
    );
    expect(wishes.length).toBeGreaterThan(2 * WISHED.length);
    const { css } = withOverrides(site, planAll(site, wishes));
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled: false });
    await folder.serve(context);
    const proof = await ProofPage.open(context);
    await proof.load(`${folder.origin}/${PATH}`);
    // A fill keeps its own alpha, and takes the visitor's colour.
    const opaque = (value: string): string => value.replace(/^rgba\((\d+, \d+, \d+), [\d.]+\)$/, 'rgb($1)');
    const differing = async (): Promise<readonly string[]> => {
      await proof.write('');
      const before = await proof.valuesOf(FORCED);
      await proof.write(css);
      const after = await proof.valuesOf(FORCED);
      return after.flatMap((values, i) =>
        values.flatMap((value, k) =>
          opaque(value) === opaque(before[i][k]) ? [] : [`element ${i}, ${FORCED[k]}: ${before[i][k]}, ${value}`],
        ),
      );
    };
    expect((await differing()).length).toBeGreaterThan(2 * WISHED.length);
    await proof.page.emulateMedia({ forcedColors: 'active' });
    expect(await differing()).toEqual([]);
    await context.close();
  });
});
