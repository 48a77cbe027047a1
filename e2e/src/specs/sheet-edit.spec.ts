import type { Browser, Page } from 'playwright-core';
import type { DraftDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('the Sheet, typed in', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let page: Page;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    const bench = await BenchDriver.open(browser, product.url);
    ({ page } = bench);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    await bench.choose('.qs-go');
    await bench.value('Willow');
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.getByText('Edit', { exact: true }).click();
    await page.locator('uv-sheet-code .cm-line').first().waitFor();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as DraftDocument;
  const words = (): ReturnType<Page['locator']> => page.locator('uv-sheet-editor .words');
  /** Puts the caret at the end of a line. */
  async function goTo(line: string): Promise<void> {
    await page.locator('uv-sheet-code .cm-line', { hasText: line }).last().click();
    await page.keyboard.press('End');
  }
  async function takenOver(): Promise<void> {
    await page.locator('uv-sheet-editor .words', { hasText: 'As in the draft' }).waitFor();
  }

  it('changes the override a line stands for, in one step of undo, with the keyboard alone', async () => {
    const before = (await draft()).overrides;
    await goTo('background-color: var(--brand-reed');
    await page.keyboard.press('Shift+Home');
    await page.keyboard.type('background-color: var(--brand-heron);');
    await words().filter({ hasText: '1 override changes' }).waitFor();
    expect(await words().innerText()).toContain('proved to mean what is written');
    expect((await draft()).overrides).toEqual(before);
    await page.keyboard.press('Control+s');
    await takenOver();
    const after = (await draft()).overrides;
    const own = after.find(({ value }) => value.kind === 'swatch' && value.shade === 0);
    expect(after.length).toBe(before.length);
    expect(own?.selector).toContain('.qs-apply');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.locator('uv-sheet-code .cm-line', { hasText: 'var(--brand-reed' }).waitFor();
    expect((await draft()).overrides).toEqual(before);
  });

  it('lights what the rule at the caret matches, in its state, and says what it does', async () => {
    await goTo('.qs-go');
    const rule = page.locator('uv-sheet-editor .rule');
    await rule.filter({ hasText: '1 element on 1 page' }).waitFor();
    await page.waitForSelector('uv-sheet-editor uv-page-frame .outline.chosen');
    expect(await rule.innerText()).toMatch(/At rest, the button’s .* becomes/);
  });

  it('keeps what no override can say as own CSS, over a reload, to the letter', async () => {
    await goTo('.qs-go');
    await page.keyboard.press('Home');
    await page.keyboard.type('/* later */ @media print { .qs-go { colr: red } }\n');
    await page.locator('uv-becomes-list li', { hasText: 'Perhaps color is meant' }).waitFor();
    await page.locator('uv-becomes-list li', { hasText: 'stays as own CSS' }).waitFor();
    await page.reload();
    await page.locator('.told', { hasText: 'What you had typed is here again' }).waitFor();
    await page.getByRole('button', { name: 'Take over' }).click();
    await takenOver();
    const { ownCss } = await draft();
    expect(ownCss.map(({ css }) => css)).toEqual([
      jasmine.stringMatching(/^\/\* later \*\/ @media print \{ \.qs-go \{ colr: red/),
    ]);
    expect(
      await page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('uv-sheet-text'))),
    ).toEqual([]);
  });

  it('puts an earlier sheet in, each rule where it belongs, and shows what becomes of it first', async () => {
    await page.getByRole('button', { name: 'Put CSS in…' }).click();
    const dialog = page.locator('.p-dialog');
    await dialog.locator('textarea').fill('.qs-note { color: red');
    await dialog.getByRole('button', { name: 'Put in' }).click();
    expect(await dialog.locator('.problem').innerText()).toContain('leaves "{" open');
    await dialog
      .locator('textarea')
      .fill('.qs-note { color: PLACEHOLDER }\n.gone { color: red }\n.qs-note { font-size: 100% }');
    await dialog.getByRole('button', { name: 'Put in' }).click();
    await page.locator('.told', { hasText: '3 rules were put in' }).waitFor();
    await page.locator('uv-becomes-list li', { hasText: '.gone matches nothing' }).waitFor();
    await page.locator('uv-becomes-list li', { hasText: 'A colour is still to be filled in' }).waitFor();
    await page.locator('.cm-uv-press', { hasText: '?' }).click();
    await page.locator('uv-sheet-editor .picker').getByRole('button', { name: 'Heron' }).click();
    await page.locator('uv-sheet-code .cm-line', { hasText: '.qs-note { color: var(--brand-heron) }' }).waitFor();
    await words().filter({ hasText: 'new' }).waitFor();
    await page.getByRole('button', { name: 'Take over' }).click();
    await takenOver();
    const note = (await draft()).overrides.filter(({ selector }) => selector === '.qs-note');
    expect(note.map(({ property, value }) => [property, value.kind])).toContain(['color', 'swatch']);
    const part = (await draft()).overrides.find(({ selector }) => selector.includes('.qs-go'))?.partId;
    expect(note[0].partId).toBe(part ?? null);
  });

  it('carries what is typed over a change made elsewhere', async () => {
    await goTo('.qs-go');
    await page.keyboard.press('Home');
    await page.keyboard.type('/* mine */\n');
    const { overrides } = await draft();
    const [first] = overrides.filter(({ selector }) => selector.includes('.qs-apply'));
    await fetch(`${product.url}/api/sites/1/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        label: 'Elsewhere',
        put: [{ ...first, value: { kind: 'literal', css: '#123456' } }],
        drop: [],
      }),
    });
    await page.locator('.told', { hasText: 'The draft changed meanwhile' }).waitFor();
    await page.locator('uv-sheet-code .cm-line', { hasText: '#123456' }).waitFor();
    expect(await page.locator('uv-sheet-code .cm-line', { hasText: '/* mine */' }).count()).toBe(1);
    await page.getByRole('button', { name: 'Put back' }).click();
    await takenOver();
  });

  it('does not let the palette’s lines be typed in, and copies a line with the colour behind its name', async () => {
    await page.locator('.cm-foldPlaceholder').first().click();
    await page.locator('uv-sheet-code .cm-line', { hasText: '--brand-' }).first().click();
    await page.keyboard.type('x');
    await page.locator('.told', { hasText: 'written from Palette' }).waitFor();
    await takenOver();
    await goTo('background-color: var(--brand-willow');
    await page.getByRole('button', { name: 'Copy…' }).click();
    await page.getByRole('button', { name: 'The line' }).click();
    await eventually(
      () => page.evaluate(() => navigator.clipboard.readText()),
      (text) => /^background-color: var\(--brand-willow, #[0-9a-f]{6}\);$/.test(text),
    );
  });

  it('finds a draft again that was undone and written over', async () => {
    const { overrides } = await draft();
    const post = (path: string, body: object = {}): Promise<Response> =>
      fetch(`${product.url}/api/sites/1/${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const put = (label: string, css: string): Promise<Response> =>
      post('changes', { label, drop: [], put: [{ ...overrides[0], value: { kind: 'literal', css } }] });
    await put('To be left', '#010203');
    await post('undo');
    await put('Instead of it', '#040506');
    await page.getByText('The sheet', { exact: true }).click();
    const left = page.locator('uv-revision-list .left');
    await left.locator('summary').click();
    const row = left.locator('li', { hasText: 'the last: To be left' });
    await row.getByRole('button', { name: 'Bring back' }).click();
    await page.locator('uv-revision-list .told', { hasText: 'That draft is here again' }).waitFor();
    expect((await draft()).overrides[0].value).toEqual({ kind: 'literal', css: '#010203' });
  });

  it('says what it hides and what is lost, and offers to take it out of sight alone', async () => {
    await page.getByText('Edit', { exact: true }).click();
    await page.locator('uv-sheet-code .cm-line').first().waitFor();
    await page.getByRole('button', { name: 'Put CSS in…' }).click();
    await page.locator('.p-dialog textarea').fill('.qs-terms { display: none }');
    await page.locator('.p-dialog').getByRole('button', { name: 'Put in' }).click();
    await words().filter({ hasText: '1 is new' }).waitFor();
    await page.getByRole('button', { name: 'Take over' }).click();
    await takenOver();
    await page.getByText('The sheet', { exact: true }).click();
    // Further down than what is drawn of the text.
    const copied = async (): Promise<string> => {
      await page.getByRole('button', { name: 'Copy', exact: true }).first().click();
      return page.evaluate(() => navigator.clipboard.readText());
    };
    await eventually(copied, (css) => css.includes('/* hides 2 links and its text, for screen readers'));
    const list = page.locator('uv-hidden-list');
    expect(await list.innerText()).toContain('screen readers and the keyboard too: 2 links and its text');
    await list.getByRole('button', { name: 'Out of sight only' }).click();
    await eventually(copied, (css) => css.includes('.qs-terms:not(:focus, :focus-within) {'));
    expect((await draft()).overrides.some(({ property }) => property === 'display')).toBeFalse();
    expect(await list.locator('li').count()).toBe(0);
  });
});
