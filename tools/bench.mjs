import { ensureBuilt, ensureChromium, ensureDependencies, say } from './setup.mjs';

/** Prints speed as ratios from one run: the core, jsdom and Chromium reading the same values of the same page. */
await ensureDependencies();
await ensureChromium();
await ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server', 'e2e']);
const { JSDOM } = await import('jsdom');
const { StyleView, dressSite, inspect, judgeOverride, openSite, parsePage, planOverride, pointerStates, withVeneer } =
  await import('@upper-veneer/core');
const { BOOTSTRAP_BODY, packagePages } = await import('../e2e/dist/support/package-pages.js');
const { launchBrowser } = await import('../e2e/dist/support/browser.js');

const { COLOR_PROPERTIES } = await import('../e2e/dist/support/agreement.js');
const PROPERTIES = [
  ...COLOR_PROPERTIES,
  'opacity',
  'visibility',
  'display',
  'font-family',
  'font-size',
  'font-weight',
  'line-height',
  'text-decoration-line',
  'background-image',
  'box-shadow',
  'border-top-width',
  'border-top-style',
  'border-top-left-radius',
];
const JSDOM_SAMPLE = 40;
const css = packagePages().get('css/bootstrap.css');
const bodyOf = (count) => {
  const once = parsePage(`<body>${BOOTSTRAP_BODY}`).document.elements.length - 3;
  return BOOTSTRAP_BODY.repeat(Math.max(1, Math.round(count / once)));
};
const htmlOf = (count, style = '<link rel="stylesheet" href="b.css">') =>
  `<!doctype html><html><head>${style}</head><body>${bodyOf(count)}</body></html>`;
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const time = (work, runs = 5) =>
  median(
    Array.from({ length: runs }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    }),
  );
const ms = (value) => `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`;
const open = (html) => parsePage(html, { loadSheet: () => css });
const readAll = (view, elements) => {
  let length = 0;
  for (const element of elements) {
    const style = view.style(element);
    for (const property of PROPERTIES) length += style.resolved(property).length;
  }
  return length;
};

const html = htmlOf(2000);
const page = open(html);
const { elements } = page.document;
const hovered = elements[Math.floor(elements.length / 2)];
const states = pointerStates(page.document, hovered, 'hover');
const RUNS = 15;
say(
  `Page: bootstrap's CSS, ${elements.length} elements, ${PROPERTIES.length} properties, rest and hover. Medians of ${RUNS}, the core and Chromium by turns.`,
);
const parse = time(() => open(html), 5);

const browser = await launchBrowser();
const tab = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await tab.setContent(htmlOf(2000, `<style>${css}</style>`));
const session = await tab.context().newCDPSession(tab);
await session.send('DOM.enable');
await session.send('CSS.enable');
const { root } = await session.send('DOM.getDocument', { depth: -1 });
const { nodeIds } = await session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: '*' });
const chromiumRead = () =>
  tab.evaluate((properties) => {
    const all = [...document.querySelectorAll('*')];
    // Styles are dirtied, so that they are resolved and not only read.
    document.adoptedStyleSheets = document.adoptedStyleSheets.length ? [] : [new CSSStyleSheet()];
    const start = performance.now();
    let length = 0;
    for (const element of all) {
      const style = getComputedStyle(element);
      for (const property of properties) length += style.getPropertyValue(property).length;
    }
    return [performance.now() - start, length];
  }, PROPERTIES);
const coreRuns = [];
const chromiumRuns = [];
for (let i = 0; i < RUNS; i += 1) {
  const started = performance.now();
  readAll(new StyleView(page), elements);
  readAll(new StyleView(page, { states }), elements);
  coreRuns.push(performance.now() - started);
  await session.send('CSS.forcePseudoState', { nodeId: nodeIds[hovered.number], forcedPseudoClasses: [] });
  const [rest] = await chromiumRead();
  await session.send('CSS.forcePseudoState', { nodeId: nodeIds[hovered.number], forcedPseudoClasses: ['hover'] });
  chromiumRuns.push(rest + (await chromiumRead())[0]);
}
await browser.close();
const core = median(coreRuns);
const chromium = median(chromiumRuns);
say(`core: parse and index ${ms(parse)}; resolve, rest and hover together ${ms(core)}`);
say(`Chromium: the same reads ${ms(chromium)}; the core takes ${(core / chromium).toFixed(2)} times as long`);

const dom = new JSDOM(htmlOf(2000, `<style>${css}</style>`));
const all = [...dom.window.document.querySelectorAll('*')];
const step = Math.floor(all.length / JSDOM_SAMPLE);
const sample = all.filter((_, i) => i % step === 0).slice(0, JSDOM_SAMPLE);
const start = performance.now();
for (const element of sample) {
  const style = dom.window.getComputedStyle(element);
  for (const property of PROPERTIES) style.getPropertyValue(property);
}
const jsdom = ((performance.now() - start) / sample.length) * all.length * 2;
say(
  `jsdom: ${ms(jsdom)} (from ${sample.length} elements, twice over for rest and hover); the core is ${Math.round(jsdom / core)} times as fast`,
);

const veneer = (color) => `.card .card-link { color: ${color} } .btn-primary { background-color: ${color} }`;
const dressed = withVeneer(page, veneer('#b4582a'));
const full = time(() => readAll(new StyleView(dressed), elements));
const view = new StyleView(dressed);
readAll(view, elements);
let touchedCount = 0;
const again = time(() => {
  const { view: next, touched } = view.dressed(withVeneer(page, veneer('#0f4a48')));
  touchedCount = touched.size;
  readAll(next, touched);
}, 25);
say(
  `One override changed: ${touchedCount} elements resolved again in ${ms(again)}, ${((100 * again) / full).toFixed(1)} % of the full ${ms(full)}`,
);

say('Growth:');
for (const count of [500, 2000, 8000, 20000]) {
  const grown = open(htmlOf(count));
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  let kept = null;
  const took = time(() => {
    kept = new StyleView(grown);
    readAll(kept, grown.document.elements);
  }, 3);
  const heap = process.memoryUsage().heapUsed - before;
  say(
    `  ${grown.document.elements.length} elements: ${ms(took)}, ${((1000 * took) / grown.document.elements.length).toFixed(0)} µs an element, heap grown by ${(heap / 1048576).toFixed(0)} MB${kept ? '' : ' '}`,
  );
}

const source = {
  pages: [{ id: 1, name: 'Page', path: 'p.html', html }],
  stylesheets: { 'b.css': css },
  parts: [{ id: 1, name: 'Main', kind: 'theme', selector: 'main' }],
  veneerPlace: 'head-end',
  prefix: 'brand',
};
const palette = {
  swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};
const site = dressSite(openSite(source), [], palette);
const button = elements.find((element) => element.classes.includes('btn-primary'));
const wish = {
  pageId: 1,
  element: button.number,
  pseudo: '',
  reach: 'alike',
  state: 'hover',
  property: 'background-color',
  value: { kind: 'role', role: 'accent', shade: 0 },
  width: 1280,
};
const plan = planOverride(site, wish);
const withOverride = dressSite(site, plan.put, palette);
say(
  `On that page: inspect an element ${ms(time(() => inspect(site, 1, button.number, '', 1280)))}, write its selector ${ms(time(() => planOverride(site, wish)))}, judge it ${ms(time(() => judgeOverride(withOverride, plan.put[0], 1280)))}`,
);

await (await import('./bench-verdict.mjs')).benchVerdict({ say, time, ms, html, css });
await (await import('./bench-match.mjs')).benchMatch({ say, ms });
await (await import('./bench-proof.mjs')).benchProof({ say, ms });
await (await import('./bench-interface.mjs')).benchInterface({ say, ms, launchBrowser });
await (await import('./bench-visit.mjs')).benchVisit({ say, ms, launchBrowser });
// The process that stands ready for a next visit would keep this one.
process.exit(0);
