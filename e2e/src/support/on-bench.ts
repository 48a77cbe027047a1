import type { Browser, BrowserContext } from 'playwright-core';
import { launchBrowser } from './browser.js';
import { BenchDriver, newContext, startProduct, temporaryFolder, type Product } from './product.js';

/** What a spec on the running product works with: the demo as it arrives, for each spec. */
export interface OnBench {
  browser: Browser;
  product: Product;
  bench: BenchDriver;
  folder: ReturnType<typeof temporaryFolder>;
}

/** Sets a suite up with a browser and a product, and each of its specs with the demo untouched and a Bench in it. */
export function setUpBench(): OnBench {
  const on = {} as OnBench;
  let isFresh = false;
  let context: BrowserContext | null = null;
  beforeAll(async () => {
    on.browser = await launchBrowser();
  });
  afterAll(async () => {
    if (isFresh) await discard(on);
    await on.browser.close();
  });
  beforeEach(async () => {
    if (!isFresh) {
      on.folder = temporaryFolder();
      on.product = await startProduct(on.folder.path);
    }
    context ??= await newContext(on.browser);
    on.bench = await BenchDriver.openIn(context, on.product.url);
  });
  afterEach(async () => {
    await on.bench.page.evaluate(() => localStorage.clear());
    await on.bench.page.close();
    isFresh = await asArrived(on.product);
    if (!isFresh) await discard(on);
  });
  return on;
}

async function discard({ product, folder }: OnBench): Promise<void> {
  await product.kill();
  folder.remove();
}

/** Takes back all that was done to the demo. @returns whether it is as it arrived; what is saved, published or brought in stays. */
async function asArrived({ url, process }: Product): Promise<boolean> {
  if (process.exitCode !== null || process.signalCode !== null) return false;
  const read = async <T>(path: string): Promise<T> => (await (await fetch(`${url}/api/sites${path}`)).json()) as T;
  if ((await read<unknown[]>('')).length !== 1) return false;
  const { revisions } = await read<{ revisions: unknown[] }>('/1/draft');
  if (revisions.length > 0) return false;
  while (
    (
      await fetch(`${url}/api/sites/1/undo`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{}',
      })
    ).ok
  );
  return true;
}
