import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { withLayout, type Page, type PageLayout } from '@upper-veneer/core';
import type { Page as BrowserPage } from 'playwright-core';
import ts from 'typescript';
import { root } from './product.js';

/** The product's own measuring, as a script: it needs nothing but a document. */
const MEASURE = ts
  .transpileModule(readFileSync(join(root, 'web/src/app/shared/frame/measure-layout.ts'), 'utf8'), {
    compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ES2022 },
  })
  .outputText.replace('export function', 'function');

/** Elements of the page in the core's numbering: the document's, then those of shadow trees, tree by tree. */
const NUMBERED = `(() => {
  const elements = [...document.querySelectorAll('*')];
  const hosts = elements.filter((e) => e.shadowRoot);
  for (let i = 0; i < hosts.length; i += 1) { const inner = [...hosts[i].shadowRoot.querySelectorAll('*')]; elements.push(...inner); hosts.push(...inner.filter((e) => e.shadowRoot)); }
  return new Map(elements.map((e, i) => [i, e]));
})()`;

/** Brings what moves to its end, as the core takes it; what moves for ever has none, and is taken off. */
const STILL = `for (const animation of document.getAnimations())
  try { animation.finish(); } catch { animation.cancel(); }`;

interface Measured {
  readonly width: number;
  readonly height: number;
  readonly boxes: number[];
  readonly fragments: [number, number[]][];
  readonly lines: [number, number[]][];
  readonly pseudoBoxes: [string, number[]][];
}

/** The core's page with the layout that a browser gives it when nothing moves. */
export async function measuredPage(
  browserPage: BrowserPage,
  page: Page,
): Promise<{ readonly page: Page; readonly layout: PageLayout }> {
  const found = (await browserPage.evaluate(
    `(() => { ${STILL}\n${MEASURE}\n return measureLayout(document, ${NUMBERED}); })()`,
  )) as Measured;
  const layout: PageLayout = {
    width: found.width,
    height: found.height,
    boxes: Float32Array.from(found.boxes),
    fragments: new Map(found.fragments),
    lines: new Map(found.lines),
    pseudoBoxes: new Map(found.pseudoBoxes),
  };
  return { page: withLayout(page, layout), layout };
}
