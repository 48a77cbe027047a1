import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  DELIVERY_WAYS,
  compileOptionsOf,
  deliver,
  tidySheet,
  type DeliveryFacts,
  type DeliveryWay,
} from '@upper-veneer/core';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { demoSource, matched } from '../support/matched-demo.js';
import { root } from '../support/product.js';
import { openSiteFolder } from '../support/site-folder.js';
import { isWhole, turn } from '../support/whole-run.js';

const folder = join(root, 'demo/site');
const ORIGIN = 'http://site.test';
const PROPERTIES = [
  'color',
  'background-color',
  'background-image',
  'border-top-color',
  'border-bottom-color',
  'outline-color',
  'text-decoration-color',
  'fill',
  'box-shadow',
  'border-top-left-radius',
];

/** Colours that Chromium computes from a mix are said as `color(srgb …)`, the same plain as `rgba()`: CSS Color 4 §15. */
function asRgb(line: string): string {
  return line.replaceAll(/color\(srgb ([\d.]+) ([\d.]+) ([\d.]+) \/ ([\d.]+)\)/g, (_, ...found: string[]) => {
    const [red, green, blue] = found.slice(0, 3).map((channel) => Math.round(Number(channel) * 255));
    return `rgba(${red}, ${green}, ${blue}, ${(Math.round(Number(found[3]) * 255) / 255).toFixed(2)})`;
  });
}

describe('a sheet delivered', () => {
  const { source, palette } = demoSource();
  const chosen = isWhole ? source.pages : [source.pages[turn % source.pages.length]];
  const site = matched({ ...source, pages: chosen }, palette);
  const { rules, css } = tidySheet(site);
  const facts: DeliveryFacts = {
    rules,
    options: compileOptionsOf(site),
    site: 'Osier & Reed',
    revision: 1,
    date: '2026-05-04',
    target: '',
    root: '/',
    partId: null,
    isPlain: false,
    existing: '',
  };
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  /** The last stylesheet that a page links in its head. */
  const lastSheet = (html: string): string => {
    const links = [
      ...html.slice(0, html.indexOf('</head>')).matchAll(/<link[^>]+rel="stylesheet"[^>]*href="([^"]+)"/g),
    ];
    return links.at(-1)?.[1] ?? '';
  };
  const atHeadEnd = (html: string, markup: string): string => html.replace('</head>', () => `${markup}</head>`);

  /** A page with the sheet as the preview has it, or put where a way says: its files by path. */
  function placed(path: string, html: string, way: DeliveryWay | 'preview', partId: number): Map<string, string> {
    if (way === 'preview') return new Map([[path, atHeadEnd(html, `<style>${css}</style>`)]]);
    const last = lastSheet(html);
    const existing = way === 'end' ? readFileSync(join(folder, last), 'utf8') : '';
    const { text, fileName, link } = deliver(way, { ...facts, partId, existing });
    switch (way) {
      case 'file':
        return new Map([
          [path, atHeadEnd(html, link ?? '')],
          [fileName ?? '', text],
        ]);
      case 'child':
        return new Map([
          [path, atHeadEnd(html, '<link rel="stylesheet" href="/child/style.css">')],
          ['child/style.css', text],
        ]);
      case 'head':
        return new Map([[path, atHeadEnd(html, text)]]);
      case 'box':
      case 'embed':
        return new Map([[path, atHeadEnd(html, `<style>${text}</style>`)]]);
      case 'end':
        return new Map([[last, text]]);
    }
  }

  /** Computed values of every element, and of those in a part apart. */
  async function values(
    path: string,
    files: ReadonlyMap<string, string>,
    selector: string,
  ): Promise<{ all: string[]; part: string[] }> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 900 } });
    await openSiteFolder(folder, files).serve(context);
    const page: Page = await context.newPage();
    await page.goto(`${ORIGIN}/${path}`);
    const read = await page.evaluate(
      ([properties, part]) => {
        const told = (node: Element): string => {
          const style = getComputedStyle(node);
          return `${node.localName}.${node.className.toString()}: ${properties.map((name) => style.getPropertyValue(name)).join('|')}`;
        };
        const inPart = [...document.querySelectorAll(part)].flatMap((node) => [node, ...node.querySelectorAll('*')]);
        return {
          all: [...document.body.querySelectorAll('*')]
            .filter((node) => !/^(?:link|style)$/.test(node.localName))
            .map(told),
          part: inPart.map(told),
        };
      },
      [PROPERTIES, selector] as const,
    );
    await context.close();
    return read;
  }

  // Reference: Chromium's computed values of the same page with the sheet as the preview has it.
  for (const { path, html, name } of chosen)
    for (const way of DELIVERY_WAYS)
      it(`${way}: ${name} looks as in the preview`, async () => {
        const own = site.source.parts.find(({ selector }) => selector.startsWith('.qs')) ?? site.source.parts[0];
        const [preview, delivered] = await Promise.all([
          values(path, placed(path, html, 'preview', own.id), own.selector),
          values(path, placed(path, html, way, own.id), own.selector),
        ]);
        const [expected, found] = (way === 'embed' ? [preview.part, delivered.part] : [preview.all, delivered.all]).map(
          (lines) => lines.map(asRgb),
        );
        expect(
          found.flatMap((line, i) => (line === expected[i] ? [] : [`${line} instead of ${expected[i]}`])).slice(0, 5),
        ).toEqual([]);
        expect(found.length).toBe(expected.length);
      });
});
