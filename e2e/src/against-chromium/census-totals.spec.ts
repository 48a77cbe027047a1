import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { colorOfCss, hexOf, openSite, takeCensus, type Census } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { root } from '../support/product.js';
import { openSiteFolder } from '../support/site-folder.js';

interface Painted {
  readonly use: string;
  readonly color: string;
  readonly element: number;
}

const manifest = JSON.parse(readFileSync(join(root, 'demo/site.json'), 'utf8')) as {
  readonly pages: readonly { readonly name: string; readonly path: string }[];
};
const SHEETS = ['basket', 'booking', 'checkout', 'consent', 'newsletter', 'reviews', 'theme'].map(
  (name) => `css/${name}.css`,
);

function censusOf(read: (path: string) => string): Census {
  const site = openSite({
    pages: manifest.pages.map(({ name, path }, i) => ({ id: i + 1, name, path, html: read(path) })),
    stylesheets: Object.fromEntries(SHEETS.map((path) => [path, read(path)])),
    parts: [],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
  const steps = takeCensus(site, [], 1280);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

describe('the census', () => {
  const folder = openSiteFolder(join(root, 'demo/site'));
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: Chromium's computed values of every element of all demo pages, shadow trees among them.
  it('counts at rest what Chromium paints: fills, edges on four sides, text and its lines', async () => {
    const census = censusOf((path) => readFileSync(join(root, 'demo/site', path), 'utf8'));
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled: false });
    await folder.serve(context);
    const page = await context.newPage();
    for (const [i, { path }] of manifest.pages.entries()) {
      await page.goto(`${folder.origin}/${path}`);
      const painted = await page.evaluate((): Painted[] => {
        const found: Painted[] = [];
        const all: Element[] = [];
        const shadows: ShadowRoot[] = [];
        // In the core's order: the document first, then the shadow trees.
        const walk = (parent: Document | ShadowRoot): void => {
          for (const element of parent.querySelectorAll('*')) {
            all.push(element);
            if (element.shadowRoot) shadows.push(element.shadowRoot);
          }
        };
        walk(document);
        for (const shadow of shadows) walk(shadow);
        const unseen = new Set(['head', 'title', 'meta', 'link', 'style', 'script', 'option']);
        all.forEach((node, element) => {
          if (unseen.has(node.localName)) return;
          const style = getComputedStyle(node);
          const add = (use: string, color: string): unknown => found.push({ use, color, element });
          add('fill', style.backgroundColor);
          for (const side of ['top', 'right', 'bottom', 'left']) {
            if (
              style.getPropertyValue(`border-${side}-width`) !== '0px' &&
              !/none|hidden/.test(style.getPropertyValue(`border-${side}-style`))
            )
              add('edge', style.getPropertyValue(`border-${side}-color`));
          }
          const hasText = [...node.childNodes].some(
            (child) => child.nodeType === Node.TEXT_NODE && (child.nodeValue ?? '').trim() !== '',
          );
          const isTextControl =
            /^(?:select|textarea)$/.test(node.localName) ||
            (node instanceof HTMLInputElement && !/^(?:checkbox|radio|range|color|image|hidden)$/.test(node.type));
          if (!hasText && !isTextControl) return;
          add('text', style.color);
          if (style.textDecorationLine !== 'none') add('text', style.textDecorationColor);
        });
        return found;
      });
      const expected = new Map<string, Set<number>>();
      for (const { use, color, element } of painted) {
        const value = colorOfCss(color);
        if (!value || (value.alpha ?? 1) === 0) continue;
        const key = `${use} ${hexOf(value)}`;
        expected.set(key, (expected.get(key) ?? new Set()).add(element));
      }
      const counted = new Map<string, Set<number>>();
      for (const { hex, places } of census.colors) {
        for (const place of places) {
          if (
            place.pageId !== i + 1 ||
            place.state !== 'rest' ||
            place.pseudo !== '' ||
            !['fill', 'edge', 'text'].includes(place.use)
          )
            continue;
          const key = `${place.use} ${hex}`;
          counted.set(key, (counted.get(key) ?? new Set()).add(place.element));
        }
      }
      const written = (map: ReadonlyMap<string, ReadonlySet<number>>): string[] =>
        [...map].map(([key, elements]) => `${path} ${key}: ${[...elements].sort((a, b) => a - b).join(' ')}`).sort();
      expect(expected.size).toBeGreaterThan(8);
      expect(written(counted)).toEqual(written(expected));
    }
    await context.close();
  });
});
