import type { Page } from 'playwright-core';
import { setUpBench } from '../support/on-bench.js';

/** What the page keeps of closed shadow roots: their hosts, and all that ever stood in them. */
interface Watched {
  readonly hosts: HTMLElement[];
  readonly seen: Set<string>;
}

/** Keeps what is put into closed shadow roots, which nothing else can look into (DOM Standard, "shadow root mode"). */
function watchClosed(): void {
  const watched: Watched = { hosts: [], seen: new Set() };
  (window as unknown as { watched: Watched }).watched = watched;
  const attach = Reflect.get(Element.prototype, 'attachShadow');
  Element.prototype.attachShadow = function (init): ShadowRoot {
    const root = attach.call(this, init);
    if (init.mode !== 'closed') return root;
    watched.hosts.push(this as HTMLElement);
    new MutationObserver(() => {
      for (const { localName } of root.querySelectorAll('*')) watched.seen.add(localName);
    }).observe(root, { childList: true, subtree: true });
    return root;
  };
}

const read = (page: Page): Promise<{ hosts: number; left: number; seen: string[] }> =>
  page.evaluate(() => {
    const { hosts, seen } = (window as unknown as { watched: Watched }).watched;
    return { hosts: hosts.length, left: hosts.filter(({ isConnected }) => isConnected).length, seen: [...seen] };
  });

describe('what a first choice draws, drawn before', () => {
  const on = setUpBench();

  const reload = async (): Promise<Page> => {
    const { page } = on.bench;
    await page.addInitScript(watchClosed);
    await page.reload();
    await on.bench.drawn();
    return page;
  };
  const begun = (page: Page): Promise<unknown> =>
    page.waitForFunction(() => (window as unknown as { watched: Watched }).watched.hosts.length > 0, null, {
      polling: 'raf',
    });
  const over = (page: Page): Promise<unknown> =>
    page.waitForFunction(() =>
      (window as unknown as { watched: Watched }).watched.hosts.every(({ isConnected }) => !isConnected),
    );

  it('draws panels and a tile out of sight, and leaves nothing: no choice, no address, no words', async () => {
    const page = await reload();
    const [address, entries] = [page.url(), await page.evaluate(() => history.length)];
    await begun(page);
    const place = page.locator('body > [inert]');
    expect(await place.evaluate((node) => [node.clientWidth, node.clientHeight])).toEqual([0, 0]);
    await over(page);
    await on.bench.settled();
    const { seen, left } = await read(page);
    for (const piece of ['uv-target-panel', 'uv-states-grid', 'uv-plies-list', 'uv-state-tile', 'iframe'])
      expect(seen).toContain(piece);
    expect(left).toBe(0);
    expect(await page.getByRole('heading', { name: 'Nothing chosen yet' }).isVisible()).toBe(true);
    expect(await page.locator('uv-state-tile').count()).toBe(0);
    expect(page.url()).toBe(address);
    expect(await page.evaluate(() => history.length)).toBe(entries);
    expect(await page.locator('.uv-hidden[aria-live]').textContent()).toBe('');
    expect(await page.evaluate(() => document.activeElement === document.body)).toBe(true);
  });

  it('gives way to a choice', async () => {
    const page = await reload();
    await begun(page);
    await on.bench.choose('.qs-go');
    await over(page);
    expect(await page.locator('uv-target-panel h2').first().innerText()).toBe('Hold my place');
  });
});
