import { BenchDriver, startProduct, temporaryFolder } from '../e2e/dist/support/product.js';

/** Keeps, in a page, how long each of its tasks over 50 ms takes. */
function watchTasks() {
  globalThis.uvTasks = [];
  new globalThis.PerformanceObserver((list) =>
    globalThis.uvTasks.push(...list.getEntries().map(({ duration }) => duration)),
  ).observe({ type: 'longtask', buffered: true });
}

/** Times what the designer waits for in the running product, and its longest tasks on the interface's thread. */
export async function benchInterface({ say, ms, launchBrowser }) {
  const folder = temporaryFolder();
  const product = await startProduct(folder.path);
  const browser = await launchBrowser();
  try {
    say(await ofOpening(browser, product.url, ms));
    const bench = await BenchDriver.open(browser, product.url);
    await bench.settled();
    await bench.page.evaluate(watchTasks);
    const longest = async (act) => {
      await bench.page.evaluate(() => globalThis.uvTasks.splice(0));
      const start = performance.now();
      await act();
      const took = performance.now() - start;
      const tasks = await bench.page.evaluate(() => globalThis.uvTasks);
      return { took, task: Math.max(0, ...tasks), count: tasks.length };
    };
    // What is drawn before a first choice is over by then.
    await bench.page.waitForTimeout(6000);
    const first = await longest(() => bench.choose('.qs-go'));
    await bench.page.waitForTimeout(2000);
    const chosen = await longest(() => bench.choose('.qs-apply'));
    await bench.page.waitForTimeout(2000);
    const changed = await longest(() => bench.value('Willow'));
    const told = ({ took, task }) => `${ms(took)}, longest task ${task ? ms(task) : 'under 50 ms'}`;
    say(
      [
        `In the product: choosing the first element settles in ${told(first)} (the driver's own waits of some 200 ms in it)`,
        `another in ${told(chosen)}`,
        `a change in ${told(changed)} (tasks count the frames' style work too)`,
      ].join('; '),
    );
  } finally {
    await browser.close();
    await product.kill();
    folder.remove();
  }
}

/** How long the longest task is while the product opens, and how much of the thread's work it is. */
async function ofOpening(browser, url, ms) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(watchTasks);
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  await page.goto(`${url}/bench`);
  await page.locator('uv-state-strip').waitFor({ state: 'attached' });
  await page.waitForTimeout(4000);
  const { metrics } = await session.send('Performance.getMetrics');
  const whole = 1000 * metrics.find(({ name }) => name === 'TaskDuration').value;
  const tasks = await page.evaluate(() => globalThis.uvTasks);
  await context.close();
  const longest = tasks.length === 0 ? 'under 50 ms' : `${ms(Math.max(...tasks))} of them`;
  return `In the product: opening it keeps the interface's thread ${ms(whole)} busy, the longest task ${longest}, ${tasks.length} over 50 ms`;
}
