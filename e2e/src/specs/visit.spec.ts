import { say } from '@upper-veneer/words';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { openTopLayer } from '@upper-veneer/snapshot';
import type { BrowserDocument, ImportResult, SightDocument, SiteDocument } from '@upper-veneer/contract';
import type { VisitStep } from '@upper-veneer/core';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { newContext, startProduct, temporaryFolder, type Product } from '../support/product.js';
import { runImport } from '../support/run-import.js';
import { isWhole } from '../support/whole-run.js';

/** Times a visit is gone through again. */
const AGAIN = isWhole ? 20 : 3;

function step(act: VisitStep['act'], said: Partial<VisitStep>): VisitStep {
  return { act, selector: '', words: '', frame: '', text: '', width: null, keep: null, ...said };
}

describe('pages as visitors get them', () => {
  const folder = temporaryFolder();
  let product: Product;
  let browser: Browser;
  let context: BrowserContext;
  let live = '';
  beforeAll(async () => {
    [product, browser] = await Promise.all([startProduct(folder.path, { FETCH_PRIVATE: '1' }), launchBrowser()]);
    context = await newContext(browser);
    live = ((await (await fetch(`${product.url}/api/browser`)).json()) as BrowserDocument).example;
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const siteOf = async (result: ImportResult): Promise<SiteDocument> => {
    if (!result.ok) throw new Error(result.problem.detail ?? '');
    return (await (await fetch(`${product.url}/api/sites/${result.siteId}`)).json()) as SiteDocument;
  };
  const visit = async (
    path: string,
    steps: readonly VisitStep[],
    keep: string | null = '',
  ): Promise<{ result: ImportResult; site: SiteDocument }> => {
    const result = await runImport(product.url, {
      kind: 'visit',
      siteId: null,
      name: '',
      visit: { address: `${live}${path}`, width: 1280, keep, steps: [...steps] },
    });
    return { result, site: await siteOf(result) };
  };
  const opened = async (): Promise<Page> => {
    const page = await context.newPage();
    await page.goto(`${product.url}/survey`);
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    await page.locator('uv-import-dialog').getByText('Address', { exact: true }).click();
    await page.locator('uv-address-source').getByText('As a visitor').waitFor();
    return page;
  };

  it('come in by an address and steps pointed at, from the first screen to the Bench', async () => {
    const page = await opened();
    await page.getByLabel('Address of the page').fill(`${live}checkout.html`);
    await page.getByRole('button', { name: 'Steps…' }).click();
    const sheet = page.locator('uv-sight-picture .sheet');
    await sheet.waitFor({ timeout: 30_000 });
    const dialog = page.locator('uv-visit-dialog');
    // Where the field is, as a share of the picture: it is looked for as eyes do.
    const point = async (name: RegExp): Promise<void> => {
      const box = await sheet.boundingBox();
      for (let y = 0.05; box && y < 1; y += 0.02)
        for (const x of [0.15, 0.3, 0.7, 0.9]) {
          await page.mouse.move(box.x + box.width * x, box.y + box.height * y);
          if (name.test((await sheet.locator('.mark').allInnerTexts()).join())) {
            await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
            return;
          }
        }
      throw new Error(`Nothing called ${String(name)} on the picture`);
    };
    await point(/^First paddler$/);
    await dialog.getByLabel('What is typed').fill('Nell Pargeter');
    await dialog.getByRole('button', { name: 'Type it' }).click();
    await dialog.getByText('Type “Nell Pargeter” into').waitFor();
    await point(/^Go on to payment$/);
    await dialog.getByRole('button', { name: 'Press', exact: true }).click();
    await dialog.getByText('Press “Go on to payment”').waitFor();
    await dialog.locator('li[data-place="1"] label').click();
    await dialog.getByLabel(/Name of the page kept after: Press/).fill('Checkout, second step');
    await dialog.getByRole('button', { name: 'Bring in 2 pages' }).click();
    await page.getByText('2 pages brought in: Checkout and Checkout, second step.').waitFor({ timeout: 40_000 });
    await page.getByRole('button', { name: 'Look at it' }).click();
    await page.locator('uv-pages-panel li', { hasText: 'Checkout, second step' }).waitFor();
    const sites = (await (await fetch(`${product.url}/api/sites`)).json()) as { id: number; name: string }[];
    const id = sites.find(({ name }) => name === 'Checkout')?.id ?? 0;
    await page.goto(`${product.url}/bench?site=${id}`);
    await page.getByRole('combobox', { name: 'Page', exact: true }).click();
    await page.getByRole('option', { name: 'Checkout, second step', exact: true }).click();
    await page.waitForFunction(() =>
      document
        .querySelector<HTMLIFrameElement>('uv-page-frame iframe')
        ?.contentDocument?.querySelector('#ck-d[name=card]'),
    );
    await page.close();
  }, 120_000);

  it('come in as three pages of consent, by the keyboard alone', async () => {
    const page = await context.newPage();
    await page.goto(`${product.url}/survey`);
    const isOn = (words: string): Promise<boolean> =>
      page.evaluate(
        (wanted) =>
          [document.activeElement?.getAttribute('aria-label') ?? '', document.activeElement?.textContent ?? ''].some(
            (own) => own.trim().startsWith(wanted),
          ),
        words,
      );
    const tabTo = async (words: string): Promise<void> => {
      for (let tries = 0; tries < 80; tries += 1) {
        if (await isOn(words)) return;
        await page.keyboard.press('Tab');
      }
      throw new Error(`The keyboard does not come to ${words}`);
    };
    await page.locator('uv-pages-panel').waitFor();
    await tabTo('Bring in a site…');
    await page.keyboard.press('Enter');
    await page.locator('uv-import-dialog [role=dialog]').waitFor();
    await tabTo('Address');
    await page.keyboard.press('Space');
    await page.locator('#uv-address').waitFor();
    await page.locator('uv-address-source .how').waitFor();
    await page.keyboard.press('Tab');
    while (!(await page.evaluate(() => document.activeElement?.id === 'uv-address'))) await page.keyboard.press('Tab');
    await page.keyboard.type(live);
    await tabTo('Steps…');
    await page.keyboard.press('Enter');
    await page.locator('uv-sight-picture .sheet').waitFor({ timeout: 30_000 });
    // The picture itself is gone through by arrows.
    await tabTo('The page as it is now');
    await page.keyboard.press('ArrowRight');
    await page.locator('uv-sight-picture .mark').waitFor();
    await tabTo('Consent as three pages…');
    await page.keyboard.press('Enter');
    await page.getByText('guessed by their words').waitFor();
    await tabTo('Go through both');
    await page.keyboard.press('Enter');
    await page.locator('uv-step-list li').nth(4).waitFor({ timeout: 40_000 });
    await tabTo('Bring in 3 pages');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Look at it' }).waitFor({ timeout: 60_000 });
    await page.close();
    const sites = (await (await fetch(`${product.url}/api/sites`)).json()) as { id: number; name: string }[];
    const id = sites.find(({ name }) => name === 'Home, before consent')?.id ?? 0;
    const site = (await (await fetch(`${product.url}/api/sites/${id}`)).json()) as SiteDocument;
    expect(site.pages.map(({ name }) => name)).toEqual([
      'Home, before consent',
      'Home, after accepting',
      'Home, after refusing',
    ]);
    const [before, accepted, refused] = site.pages.map(({ html }) => html);
    expect(before).toContain('cb-bar');
    expect(accepted).toContain('Thank you');
    expect(refused).not.toContain('Thank you');
    expect(refused).toContain('Cookie settings');
    // A part that stands on several of the pages is one.
    expect(site.parts.filter(({ selector }) => selector.includes('cb')).length).toBeLessThanOrEqual(1);
  }, 180_000);

  it('have frames as documents of their own, lazy pictures, and shadow trees', async () => {
    const { site } = await visit('', []);
    expect(site.documents.length).toBe(1);
    expect(site.parts.map(({ kind }) => kind)).toContain('framed');
    const frame = await fetch(`${product.url}/frame/sites/${site.id}/files/${site.documents[0]}`);
    expect(await frame.text()).toContain('Chat with the boathouse');
    expect(site.pages[0].html).toContain('img/river-morning.svg');
    expect(site.pages[0].html).toContain('css-1q8vd3k');
    const { site: book } = await visit('book.html', [
      step('type', { selector: '[name=day]', text: 'Sat 14 June', keep: 'Book, a day given' }),
      step('choose', { selector: '[name=people]', text: '2 adults' }),
      step('hover', { words: 'Hold my place' }),
      step('width', { width: 390, keep: 'Book, on a phone' }),
    ]);
    expect(book.pages.map(({ name }) => name)).toEqual(['Book', 'Book, a day given', 'Book, on a phone']);
    expect(book.pages.map(({ html }) => html.includes('Two canoes are left'))).toEqual([false, true, true]);
    expect(book.pages[2].html).toMatch(/<option selected="">2 adults<\/option>/);
  }, 60_000);

  it('look in the copy as they look live, a dialog and its backdrop too', async () => {
    const { site } = await visit('gear.html', [
      step('press', { selector: '[data-item="Dry bag"]', keep: 'Basket open' }),
    ]);
    const read = (page: Page): Promise<string[]> =>
      page.evaluate(() => {
        const names = ['color', 'background-color', 'border-top-color', 'font-size', 'display', 'position', 'opacity'];
        const all = [...document.body.querySelectorAll('*')].filter((own) => !own.matches('script, style, link'));
        const values = (style: CSSStyleDeclaration): string =>
          names.map((name) => style.getPropertyValue(name)).join('; ');
        return [
          ...all.map((own) => `${own.localName} ${values(getComputedStyle(own))}`),
          ...[...document.querySelectorAll(':modal')].map(
            (own) => `backdrop ${values(getComputedStyle(own, '::backdrop'))}`,
          ),
        ];
      });
    const own = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const there = await own.newPage();
    await there.goto(`${live}gear.html`);
    await there.locator('[data-item="Dry bag"]').click();
    const here = await own.newPage();
    await here.goto(`${site.hostUrl}${site.pages[1].path}`);
    await here.evaluate(`(${openTopLayer.toString()})(document)`);
    const wanted = await read(there);
    expect(wanted.at(-1)).toContain('rgba(20, 20, 60, 0.45)');
    expect(await read(here)).toEqual(wanted);
    await own.close();
  }, 60_000);

  it('are the same each time a visit is gone through again, and what changed is told', async () => {
    const { site } = await visit('checkout.html', [
      step('type', { selector: '[name=first]', text: 'Nell' }),
      step('press', { words: 'Go on to payment', keep: 'Checkout, second step' }),
    ]);
    const texts = ({ pages }: SiteDocument): string[] => pages.map(({ html }) => html);
    for (let i = 0; i < AGAIN; i += 1) {
      const again = await runImport(product.url, { kind: 'again', siteId: site.id, name: '' });
      if (!again.ok) throw new Error(again.problem.detail ?? '');
      expect([again.pages, again.again, again.changed, again.changedSheets]).toEqual([
        [],
        ['Checkout', 'Checkout, second step'],
        [],
        [],
      ]);
      expect(texts(await siteOf(again))).toEqual(texts(site));
    }
    // A page that was removed stays away, and one whose step finds nothing is left as it was.
    await fetch(`${product.url}/api/sites/${site.id}/pages/${site.pages[0].id}`, { method: 'DELETE' });
    const after = await runImport(product.url, { kind: 'again', siteId: site.id, name: '' });
    expect((await siteOf(after)).pages.map(({ name }) => name)).toEqual(['Checkout, second step']);
  }, 300_000);

  it('hand what changed since to drift', async () => {
    let color = 'rgb(9, 9, 9)';
    const server = createServer((_request, response) =>
      response
        .setHeader('content-type', 'text/html')
        .end(
          `<!doctype html><title>Late</title><script>document.write("<p class=late style='color: ${color}'>late</p>")</script>`,
        ),
    );
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
    const brought = await siteOf(
      await runImport(product.url, {
        kind: 'visit',
        siteId: null,
        name: '',
        visit: { address, width: 1280, keep: '', steps: [] },
      }),
    );
    const override = { id: 'o1', partId: null, pageId: brought.pages[0].id, element: 0, pseudo: '', reach: 'one' };
    const value = { kind: 'literal', css: '#123456' };
    const put = [{ ...override, state: 'rest', property: 'color', value, selector: '.late', important: true }];
    await fetch(`${product.url}/api/sites/${brought.id}/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ label: 'Late', put, drop: [] }),
    });
    color = 'rgb(1, 2, 3)';
    const again = await runImport(product.url, { kind: 'again', siteId: brought.id, name: '' });
    expect(again.ok && again.changed).toEqual(['Late']);
    expect((await siteOf(again)).draft.formerCaptures).toBe(1);
    server.close();
  }, 60_000);

  it('say what was not captured again, and what is not listed', async () => {
    let isMoved = false;
    const server = createServer((request, response) => {
      const url = request.url ?? '';
      if (url === '/book' && isMoved) response.writeHead(302, { location: '/booking' }).end();
      else
        response
          .setHeader('content-type', 'text/html')
          .end(
            `<!doctype html><title>Book</title>${'<button>Hold a canoe</button>'.repeat(url === '/many' ? 450 : 1)}`,
          );
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const brought = await siteOf(
      await runImport(product.url, {
        kind: 'visit',
        siteId: null,
        name: '',
        visit: { address: `${origin}/book`, width: 1280, keep: '', steps: [] },
      }),
    );
    await runImport(product.url, { kind: 'widget', siteId: brought.id, name: 'Bubble', html: '<b>Chat</b>', css: '' });
    isMoved = true;
    const again = await runImport(product.url, { kind: 'again', siteId: brought.id, name: '' });
    expect(again.ok && again.again).toEqual([]);
    expect(again.ok && again.leftOut.map(({ path, reason }) => `${path}: ${say(reason)}`)).toEqual([
      'Bubble: It came from no address, and stays as it is',
      'Book: Not captured again: the visit leads elsewhere by now, to booking.html',
    ]);
    // The visit is still the one of that page.
    expect((await siteOf(again)).visits.map(({ paths }) => paths)).toEqual([['book.html']]);
    const sight = await fetch(`${product.url}/api/sights/many-buttons-1`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ address: `${origin}/many`, width: 1280 }),
    });
    const { elements, notes } = (await sight.json()) as SightDocument;
    expect([elements.length, notes.map(say)]).toEqual([
      400,
      ['The first 400 things on the page are listed; others are found by hand'],
    ]);
    await fetch(`${product.url}/api/sights/many-buttons-1`, { method: 'DELETE' });
    server.close();
  }, 60_000);

  it('are refused with the step that found nothing, and where there is no browser with what is missing', async () => {
    const failed = await runImport(product.url, {
      kind: 'visit',
      siteId: null,
      name: '',
      visit: { address: `${live}gear.html`, width: 1280, keep: '', steps: [step('press', { words: 'Weigh anchor' })] },
    });
    expect(failed.ok ? '' : failed.problem.detail).toBe(
      'Step 1, Press “Weigh anchor”: Nothing of the kind shows within 10 seconds',
    );
    const bare = temporaryFolder();
    const other = await startProduct(bare.path, { CHROME_BIN: '/nowhere/chromium' });
    const page = await context.newPage();
    await page.goto(`${other.url}/survey`);
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    await page.locator('uv-import-dialog').getByText('Address', { exact: true }).click();
    await page.getByText('no Chromium or Chrome was found on this machine').waitFor();
    const { example } = (await (await fetch(`${other.url}/api/browser`)).json()) as BrowserDocument;
    await page.getByLabel('Address of the page').fill(example);
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByText('1 page brought in: Home.').waitFor({ timeout: 30_000 });
    await page.close();
    await other.kill();
    bare.remove();
  }, 60_000);
});
