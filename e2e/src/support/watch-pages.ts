import type { Browser, BrowserContext } from 'playwright-core';

/** Frames opened at a time. */
const FRAMES = 12;
/** A page that is not there: an empty one stands for it. */
const NOTHING = 'nothing.html';

/** Opens pages in frames and says which asked a foreign host, ran a script or went elsewhere. */
export async function watchPages(
  browser: Browser,
  start: string,
  pages: readonly (readonly [path: string, url: string])[],
  where: 'frame' | 'host' | 'trial',
): Promise<string[]> {
  const context: BrowserContext = await browser.newContext();
  const found: string[] = [];
  let current: readonly (readonly [path: string, url: string])[] = [];
  const { port } = new URL(start);
  const isOwn = (url: string): boolean =>
    /^(?:data|about|blob):/.test(url) ||
    new RegExp(`^http://(?:localhost|(?:site|widgets)-\\d+\\.localhost):${port}/`).test(url);
  await context.route('**/*', async (route) => {
    const url = route.request().url();
    if (url === `${start}${NOTHING}`) await route.fulfill({ contentType: 'text/html', body: '<body>' });
    else if (isOwn(url)) await route.continue();
    else {
      found.push(`${where}: ${url} asked by one of ${current.map(([path]) => path).join()}`);
      await route.abort();
    }
  });
  const page = await context.newPage();
  // The frames hang in a page that is the product's own, or, for visitors, in one of the same origin.
  // What the host itself sends lets nothing run in what hangs in it, and the script that counts is to run.
  await page.goto(where === 'frame' ? `${start}/api/sites` : `${start}${where === 'host' ? 'veneer.css' : NOTHING}`);
  for (let i = 0; i < pages.length; i += FRAMES) {
    current = pages.slice(i, i + FRAMES);
    await page.evaluate(
      ([urls, isSandboxed]) => {
        document.body.replaceChildren(
          ...urls.map((url) => {
            const frame = document.createElement('iframe');
            if (isSandboxed) frame.setAttribute('sandbox', 'allow-same-origin');
            frame.src = url;
            return frame;
          }),
        );
      },
      [current.map(([, url]) => url), where === 'frame'] as const,
    );
    // Until nothing has been asked for a while: what acts does so as it is read, loaded or failed to load.
    await Promise.all(
      page
        .frames()
        .slice(1)
        .map((frame) => frame.waitForLoadState('networkidle').catch(() => undefined)),
    );
    for (const frame of page.frames().slice(1)) {
      if (!isOwn(frame.url()) && frame.url() !== '') found.push(`${where}: went to ${frame.url()}`);
      const ran = await frame.evaluate(() => 'uvRan' in window).catch(() => false);
      if (ran) found.push(`${where}: a script ran in ${frame.url()}`);
    }
    const shown = page
      .frames()
      .slice(1)
      .filter((frame) => frame.parentFrame() === page.mainFrame())
      .map((frame) => new URL(frame.url()).pathname);
    for (const [path, url] of current)
      if (!shown.includes(new URL(url, start).pathname)) found.push(`${where}: ${path} is not shown where it was`);
  }
  await context.close();
  return found;
}
