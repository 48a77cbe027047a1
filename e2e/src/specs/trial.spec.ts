import type { Browser, BrowserContext, Page } from 'playwright-core';
import type { DraftDocument, SiteDocument, TrialDocument, TrialsDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { newContext, startProduct, temporaryFolder } from '../support/product.js';

describe('a trial', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let context: BrowserContext;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let page: Page;
  let site: SiteDocument;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    context = await newContext(browser);
    page = await context.newPage();
    site = (await (await fetch(`${product.url}/api/sites/1`)).json()) as SiteDocument;
    await page.goto(`${product.url}/match`);
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const trial = async (): Promise<TrialDocument> =>
    ((await (await fetch(`${product.url}/api/sites/1/trials`)).json()) as TrialsDocument).trials[0];
  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as DraftDocument;
  const totals = async (): Promise<Record<string, readonly [number, number]>> => {
    const { counts } = await trial();
    return Object.fromEntries(
      ['A', 'B'].map((name) => {
        const own = counts.filter(({ variation, source }) => variation === name && source === 'counted');
        return [
          name,
          [own.reduce((sum, { seen }) => sum + seen, 0), own.reduce((sum, { pressed }) => sum + pressed, 0)] as const,
        ];
      }),
    );
  };
  const keepVariation = async (): Promise<void> => {
    await page.getByRole('button', { name: 'As a variation…' }).click();
    const kept = page.waitForResponse((response) => response.url().endsWith('/variations'));
    await page.getByRole('button', { name: 'Keep it' }).click();
    expect((await kept).status()).toBe(201);
  };
  /** A visitor of a browser of its own; the look it is given. */
  const visitor = async (
    headers: Record<string, string> = {},
  ): Promise<{ context: BrowserContext; page: Page; look: string }> => {
    const own = await browser.newContext({ viewport: { width: 1280, height: 800 }, extraHTTPHeaders: headers });
    const shown = await own.newPage();
    await shown.goto(`${site.hostUrl}gear.html`);
    const href = await shown.locator('iframe.promo-unit').getAttribute('src');
    return { context: own, page: shown, look: /look=([A-F])/.exec(href ?? '')?.[1] ?? '' };
  };

  it('of the promotion unit, blended in against standing out, goes from fork to start', async () => {
    await page.locator('uv-scope-list button', { hasText: 'Promotion unit' }).click();
    await page.getByRole('button', { name: 'Read the maker’s fields…' }).click();
    await page.getByLabel('From the maker’s address').fill('https://widgets.osier.example/settings/promo');
    await page.getByRole('button', { name: 'Ask', exact: true }).click();
    await page.getByRole('button', { name: 'Take them over' }).click();
    await page.locator('uv-settings-table').getByText('ink', { exact: true }).waitFor();
    await keepVariation();
    await page.getByText('Stand out', { exact: true }).click();
    await page.locator('uv-settings-table').getByText('on accent', { exact: true }).waitFor();
    await keepVariation();
    await page.getByRole('link', { name: /^\s*Trial/ }).click();
    await page.getByRole('button', { name: 'Plan a trial…' }).click();
    await page.getByText(/Each look is to be seen by [\d,]+ visitors: \d+ days/).waitFor();
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.getByText('They differ in colour alone').waitFor();
    expect((await trial()).state).toBe('planned');
    await page.getByRole('button', { name: 'Prove and start' }).click();
    await page.getByText('Both read in every state').waitFor();
    expect((await trial()).state).toBe('running');
  }, 60_000);

  it('gives visitors one of the looks, counts what they do once, and takes no part of who opts out', async () => {
    const looks: string[] = [];
    for (let i = 0; i < 6; i += 1) {
      const { context: own, page: shown, look } = await visitor();
      looks.push(look);
      // What the frame shows is that look's.
      const words = shown.frameLocator('iframe.promo-unit').locator('a');
      await words.waitFor();
      const color = await words.evaluate((node) => getComputedStyle(node).color);
      const { looks: known } = await trial();
      const wanted = known.find(({ variation }) => variation === look)?.settings[0].values['Words'] ?? '';
      expect(color).toBe(`rgb(${wanted})`);
      await shown.locator('iframe.promo-unit').scrollIntoViewIfNeeded();
      if (i < 2) await shown.frameLocator('iframe.promo-unit').locator('b').click();
      // Seen again, it is the same, and counts no more.
      await allTold(shown);
      await shown.reload();
      expect(await shown.locator('iframe.promo-unit').getAttribute('src')).toContain(`look=${look}`);
      await shown.locator('iframe.promo-unit').scrollIntoViewIfNeeded();
      await shown.waitForLoadState('networkidle');
      await own.close();
    }
    const counted = await eventually(totals, ({ A, B }) => A[0] + B[0] === 6 && A[1] + B[1] === 2);
    expect(counted['A'][0]).toBe(looks.filter((look) => look === 'A').length);
    const out = await visitor({ 'sec-gpc': '1' });
    expect(out.look).toBe('');
    await out.page.locator('iframe.promo-unit').scrollIntoViewIfNeeded();
    await out.page.waitForLoadState('networkidle');
    expect(await out.context.cookies()).toEqual([]);
    await out.context.close();
    const { A, B } = await totals();
    expect(A[0] + B[0]).toBe(6);
  }, 60_000);

  it('runs nothing of what was captured beside the script that counts', async () => {
    const { context: own, page: shown } = await visitor();
    const ran = await shown.evaluate(async () => {
      const script = document.createElement('script');
      script.textContent = 'window.ran = true';
      document.body.append(script);
      const image = document.createElement('img');
      image.setAttribute('onerror', 'window.ran = true');
      image.src = 'none.png';
      document.body.append(image);
      const link = document.createElement('a');
      link.href = 'javascript:window.ran = true';
      document.body.append(link);
      link.click();
      await new Promise((done) => setTimeout(done, 400));
      return (window as unknown as { ran?: boolean }).ran ?? false;
    });
    expect(ran).toBeFalse();
    await own.close();
  });

  it('is judged on made-up traffic beside what was counted, and decided in one step of undo', async () => {
    await page.getByRole('button', { name: 'Make traffic up…' }).click();
    await page.getByLabel('Rate of B, %').fill('6');
    await page.getByRole('button', { name: 'Make it up' }).click();
    await page.getByText('B does better, and may be called').waitFor();
    await page.getByText(/counted by the host, .*made up/).waitFor();
    const canvas = page.locator('uv-trial-chart canvas').first();
    await canvas.waitFor();
    expect(await canvas.getAttribute('aria-label')).toMatch(/After 1[45] days the difference is \+\d/);
    // What is brought in wrongly costs nothing.
    const file = page.getByLabel('Counts as CSV: day, variation, seen, pressed');
    await file.setInputFiles({
      name: 'x.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('day,variation,seen,pressed\n2026-05-04,Q,1,1'),
    });
    await page.locator('.p-toast', { hasText: 'line 2 "Q" is no variation of this trial' }).waitFor();
    await page.getByRole('button', { name: 'Decide…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Who decides').fill('Mara Quill');
    await dialog.getByLabel('Why').fill('Clear after two weeks');
    await dialog.getByRole('button', { name: 'Decide', exact: true }).click();
    await page.getByText(/decided for B by Mara Quill/).waitFor();
    const { decision } = await trial();
    expect(decision?.figures.call).toEqual({ kind: 'better', variation: 'B' });
    expect((await draft()).settings[0].strategy).toBe('stand-out');
    // Visitors get what is published again, without a script.
    const after = await visitor();
    expect(after.look).toBe('');
    expect(await after.page.locator('script[nonce]').count()).toBe(0);
    await after.context.close();
  }, 60_000);

  it('of a match forks the draft without changing it', async () => {
    const before = await draft();
    await page.goto(`${product.url}/match`);
    await page.locator('uv-scope-list button', { hasText: 'Reviews' }).click();
    await page.locator('uv-match-table tbody tr').first().waitFor();
    await page.getByRole('button', { name: 'As a variation…' }).click();
    await page.getByRole('button', { name: 'Keep it' }).click();
    await page.getByText('the draft is as it was').waitFor();
    const { overrides, revisions } = await draft();
    expect(overrides).toEqual(before.overrides);
    expect(revisions[0].note).toBe('Variation: Reviews, blended in');
    expect(revisions[0].rules).toBeGreaterThan(3);
  }, 60_000);
});

/** Waits until all that a visitor did is acknowledged. */
async function allTold(visited: Page): Promise<void> {
  await visited.waitForFunction(() => {
    const kept = Object.keys(localStorage).find((key) => key.startsWith('look-'));
    const events = Object.values(
      JSON.parse((kept && localStorage.getItem(kept)) ?? '{}') as Record<string, { told?: boolean }>,
    );
    return events.length > 0 && events.every(({ told }) => told);
  });
}
