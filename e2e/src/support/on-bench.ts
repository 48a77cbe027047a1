import type { Browser } from 'playwright-core';
import { launchBrowser } from './browser.js';
import { BenchDriver, startProduct, temporaryFolder, type Product } from './product.js';

/** What a spec on the running product works with; a new product with data of its own for each spec. */
export interface OnBench {
  browser: Browser;
  product: Product;
  bench: BenchDriver;
  folder: ReturnType<typeof temporaryFolder>;
}

/** Sets a suite up with a browser, and each of its specs with a product and a Bench in it. */
export function setUpBench(): OnBench {
  const on = {} as OnBench;
  beforeAll(async () => {
    on.browser = await launchBrowser();
  });
  afterAll(() => on.browser.close());
  beforeEach(async () => {
    on.folder = temporaryFolder();
    on.product = await startProduct(on.folder.path);
    on.bench = await BenchDriver.open(on.browser, on.product.url);
  });
  afterEach(async () => {
    await on.bench.page.context().close();
    await on.product.kill();
    on.folder.remove();
  });
  return on;
}
