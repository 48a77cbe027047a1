import { startProduct, temporaryFolder } from '../e2e/dist/support/product.js';
import { findBrowser, prepareVisit, runPlan, startVisitProcess } from '@upper-veneer/browser';

const RUNS = 5;
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** A live page of the demo got by a visit, start and end of the browser included, beside the same page opened in one that runs. */
export async function benchVisit({ say, ms, launchBrowser }) {
  const folder = temporaryFolder();
  const product = await startProduct(folder.path);
  const { example } = await (await fetch(`${product.url}/api/browser`)).json();
  const plan = { address: example, width: 1280, keep: '', steps: [] };
  const policy = { allowedHosts: [new URL(example).host, `*.localhost:${new URL(example).port}`], allowPrivate: false };
  const timed = async (work) => {
    const took = [];
    for (let i = 0; i < RUNS; i += 1) {
      prepareVisit();
      await new Promise((done) => setTimeout(done, 2500));
      const begun = performance.now();
      await work();
      took.push(performance.now() - begun);
    }
    return median(took);
  };
  const visit = await timed(async () => {
    const own = await startVisitProcess({ program: findBrowser(), policy, width: 1280 });
    await runPlan(own, plan, () => undefined);
    void own.close();
  });
  const browser = await launchBrowser();
  const opened = await timed(async () => {
    const page = await browser.newPage();
    await page.goto(example, { waitUntil: 'load' });
    await page.locator('.cb-bar').waitFor();
    await page.close();
  });
  await browser.close();
  await product.kill();
  folder.remove();
  say(
    `A live page of the demo, whose consent bar comes after a second: taken by a visit ${ms(visit)}, start of the browser included, ${(visit / opened).toFixed(1)} times as long as until it stands in a browser that runs (${ms(opened)})`,
  );
}
