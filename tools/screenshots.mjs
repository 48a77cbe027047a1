import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureDependencies, root, say } from './setup.mjs';

/** Takes the pictures in docs/screenshots from the demo data, in a database of its own. */
await ensureDependencies();
await ensureChromium();
await ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server', 'web', 'e2e']);
const { launchBrowser } = await import('../e2e/dist/support/browser.js');
const { BenchDriver, startProduct, temporaryFolder } = await import('../e2e/dist/support/product.js');

const folder = temporaryFolder();
const product = await startProduct(folder.path);
const browser = await launchBrowser();
const bench = await BenchDriver.open(browser, product.url);
const { page } = bench;
const shoot = async (name) => {
  await page.mouse.move(640, 2);
  await page.waitForTimeout(900);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  say(`docs/screenshots/${name}.png`);
};
/** Captures the booking page again, as its widget's next release has it. */
const captureAgain = async () => {
  const site = await (await fetch(`${product.url}/api/sites/1`)).json();
  const booking = site.pages.find(({ path }) => path === 'book.html');
  const updated = (text) => text.replaceAll('qs-go', 'qs-reserve').replaceAll('qs-card', 'qs-panel');
  const form = new FormData();
  form.set('wish', JSON.stringify({ siteId: 1, name: '', kind: 'files' }));
  form.append('files', new Blob([updated(booking.html)]), booking.path);
  for (const [path, css] of Object.entries(site.stylesheets)) form.append('files', new Blob([updated(css)]), path);
  const { id } = await (await fetch(`${product.url}/api/imports`, { method: 'POST', body: form })).json();
  await (await fetch(`${product.url}/api/imports/${id}/events`)).text();
};
await bench.choose('.qs-go');
await bench.cell('Fill, rest');
await bench.value('Willow');
await bench.cell('Text, rest');
await bench.value('Chalk');
await bench.cell('Edge, rest');
await bench.value('Willow, 6 darker');
await bench.cell('Fill, hover');
await bench.value('Willow');
await bench.value('Willow, 12 darker');
await shoot('bench');
await page.getByRole('link', { name: /Survey/ }).click();
await page.waitForSelector('uv-color-floor button', { timeout: 60_000 });
await page.getByLabel('Find colours').fill('.notice');
await page.locator('uv-color-table tbody tr', { hasText: '#fff6d8' }).click();
await page.getByLabel('Find colours').fill('');
await page.waitForSelector('uv-color-detail uv-page-frame .chosen');
await shoot('survey');
const { example } = await (await fetch(`${product.url}/api/browser`)).json();
await page.getByRole('button', { name: 'Bring in a site…' }).click();
await page.locator('uv-import-dialog').getByText('Address', { exact: true }).click();
await page.getByLabel('Address of the page').fill(`${example}gear.html`);
await page.getByRole('button', { name: 'Steps…' }).click();
await page.locator('uv-sight-picture img').waitFor({ timeout: 30_000 });
await page.locator('#uv-visit-target').click();
await page.getByRole('option', { name: 'Put a dry bag in the basket', exact: true }).click();
await page.locator('uv-step-form').getByRole('button', { name: 'Press', exact: true }).click();
await page.locator('uv-step-list li').nth(1).waitFor();
await page.locator('#uv-keep-0').click();
await page.getByLabel(/Name of the page kept after: Press/).fill('Basket open');
await page.locator('#uv-visit-target').click();
await page.getByRole('option', { name: 'Pay £24', exact: true }).click();
await shoot('visit');
await page.keyboard.press('Escape');
await page.locator('uv-visit-dialog').waitFor({ state: 'detached' });
await page.keyboard.press('Escape');
await page.getByRole('navigation').getByRole('link', { name: /Match/ }).click();
await page
  .locator('uv-scope-list')
  .getByRole('button', { name: /Booking form/ })
  .click();
await page.locator('uv-match-table tbody tr', { hasText: 'fill of Apply' }).first().click();
await shoot('match');
await page.getByRole('navigation').getByRole('link', { name: /Proof/ }).click();
await page.waitForSelector('uv-finding-card .mend', { timeout: 90_000 });
await page.waitForFunction(
  () => !/so far|Looking/.test(document.querySelector('.toolbar h2')?.textContent ?? 'Looking'),
);
await shoot('proof');
await page.getByRole('navigation').getByRole('link', { name: /Bench/ }).click();
await bench.drawn();
await bench.choose('.qs-title');
await bench.value('River');
await bench.choose('.lede a');
await bench.cell('Text, rest');
await bench.value('River');
await bench.cell('Text, visited');
await bench.value('Heron');
await bench.cell('Text, hover');
await bench.value('Willow');
await page.getByRole('button', { name: /Interface lit/ }).click();
await page.getByRole('button', { name: /Interface lit/ }).click();
await shoot('bench-dark');
await page.getByRole('button', { name: /Interface lit/ }).click();
await page.getByRole('link', { name: /Palette/ }).click();
await page.waitForSelector('uv-pair-table table');
await page.getByRole('combobox', { name: 'A picture of the site' }).click();
await page.getByRole('option', { name: 'img/logo.svg', exact: true }).click();
await page.waitForSelector('uv-ink-list li');
await shoot('palette');
await page.locator('.topics').getByText('Roles', { exact: true }).click();
await page.locator('uv-second-lighting p-select').click();
await page.getByRole('option', { name: 'prefers-color-scheme: dark' }).click();
await page.getByRole('button', { name: 'Inverted', exact: true }).click();
await page.waitForTimeout(600);
await shoot('lightings');
await page.getByRole('button', { name: 'Inverted', exact: true }).click();
await page.getByRole('button', { name: 'Save revision' }).click();
await page.getByLabel(/What changed/).fill('Booking button and links in text');
await page.locator('.p-dialog').getByRole('button', { name: 'Save revision' }).click();
await page.getByRole('link', { name: /Sheet/ }).click();
await page.waitForTimeout(1500);
await shoot('sheet');
await page.getByText('Edit', { exact: true }).click();
await page.locator('uv-sheet-code .cm-line', { hasText: '.qs-go' }).first().click();
await page.keyboard.press('End');
await page.keyboard.type('\n  colr: white;\n  border: 1px solid var(--brand-accent);');
await page.locator('uv-becomes-list li', { hasText: 'own CSS' }).first().waitFor();
await page.waitForTimeout(1500);
await shoot('sheet-edit');
await page.getByRole('button', { name: 'Put back' }).click();
await page.locator('.toolbar').getByText('The sheet', { exact: true }).click();
const { overrides } = await (await fetch(`${product.url}/api/sites/1/draft`)).json();
await fetch(`${product.url}/api/sites/1/changes`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ label: 'Without its fill', put: [], drop: [overrides[0].id] }),
});
await page.getByText('On the page', { exact: true }).click();
await page.waitForSelector('uv-differing-rules iframe', { timeout: 30_000 });
await page.waitForTimeout(2500);
await shoot('sheet-compared');
await page.getByRole('button', { name: 'Undo' }).click();
await page.waitForTimeout(1500);
await page.getByRole('link', { name: /Bench/ }).click();
await page.getByRole('button', { name: 'Requests' }).click();
await page
  .locator('#uv-wishes')
  .fill(
    'A few wishes for spring:\n- The booking form in our orange, in every state\n- A calmer header and menu\n- Could the logo be bigger?',
  );
await page.getByRole('button', { name: /^Take in as/ }).click();
const wish = page.locator('uv-request-item').first();
await wish.getByText('Name a look to prove it by').click();
await wish.getByLabel('Selector of the elements').fill('.qs-go');
await wish.getByRole('combobox', { name: 'What of them' }).click();
await page.getByRole('option', { name: 'fill', exact: true }).first().click();
await wish.getByRole('combobox', { name: 'Colour of the palette' }).click();
await page.getByRole('option', { name: 'accent', exact: true }).click();
await wish.getByRole('button', { name: 'Name it' }).click();
await wish.locator('.holds').waitFor();
await page.waitForTimeout(1000);
await shoot('requests');
await page.keyboard.press('Escape');
const readOf = async (part, widget) => {
  await page.locator('uv-scope-list').getByRole('button', { name: part }).click();
  await page.getByRole('button', { name: 'Read the maker’s fields…' }).click();
  await page.getByLabel('From the maker’s address').fill(`https://widgets.osier.example/settings/${widget}`);
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
  await page.getByRole('button', { name: 'Take them over' }).click();
  await page.locator('uv-settings-table tbody tr').first().waitFor();
};
const keepVariation = async () => {
  await page.waitForTimeout(800);
  await page.getByRole('button', { name: 'As a variation…' }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.waitForTimeout(800);
};
await page.getByRole('navigation').getByRole('link', { name: /Match/ }).click();
await readOf('Promotion unit', 'promo');
await keepVariation();
await page.getByText('Stand out', { exact: true }).click();
await keepVariation();
await page.locator('uv-settings-table tbody tr').nth(4).click();
await shoot('settings');
await page.getByRole('navigation').getByRole('link', { name: /Trial/ }).click();
await page.getByRole('button', { name: 'Plan a trial…' }).click();
await page.getByRole('button', { name: 'Plan it' }).click();
await page.getByRole('button', { name: 'Prove and start' }).click();
await page.getByText('Both read in every state').waitFor();
await page.getByRole('button', { name: 'Make traffic up…' }).click();
await page.getByLabel('Rate of B, %').fill('5.6');
await page.getByRole('button', { name: 'Make it up' }).click();
await page.locator('uv-trial-chart canvas').first().waitFor();
await shoot('trial');
await captureAgain();
await page.goto(`${product.url}/proof?see=drift`);
await page.waitForSelector('uv-drift-detail uv-scope-picture iframe', { timeout: 60_000 });
await page.waitForTimeout(2000);
await shoot('drift');
await browser.close();
await product.kill();
folder.remove();
