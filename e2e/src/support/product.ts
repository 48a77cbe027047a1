import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Browser, BrowserContext, Page } from 'playwright-core';

export const root = resolve(fileURLToPath(import.meta.url), '../../../..');

/** The product as `npm run demo` starts it, with data of its own. */
export interface Product {
  readonly url: string;
  readonly process: ChildProcess;
  readonly output: () => string;
  /** Ends it at once, as a crash would. */
  kill(): Promise<void>;
}

/** A folder for data that is removed afterwards. */
export function temporaryFolder(): { readonly path: string; remove(): void } {
  const path = mkdtempSync(join(tmpdir(), 'uv-e2e-'));
  return { path, remove: () => rmSync(path, { recursive: true, force: true }) };
}

/** Starts the built server and waits for its address. @throws when it ends before it gives one. */
export async function startProduct(
  dataFolder: string,
  environment: Readonly<Record<string, string>> = {},
): Promise<Product> {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, PORT: '0', DATA_DIR: dataFolder, ...environment },
  });
  let output = '';
  child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
  child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
  const url = await new Promise<string>((done, failed) => {
    child.stdout.on('data', () => {
      const found = /http:\/\/localhost:\d+/.exec(output);
      if (found) done(found[0]);
    });
    child.on('exit', (code) => failed(new Error(`The server ended with ${code}: ${output}`)));
  });
  return {
    url,
    process: child,
    output: () => output,
    kill: () =>
      new Promise((done) => {
        child.removeAllListeners('exit');
        child.on('exit', () => done());
        child.kill('SIGKILL');
      }),
  };
}

/** Runs the server until it ends by itself; its exit code and what it printed. */
export function runToEnd(
  environment: Readonly<Record<string, string>>,
): Promise<{ readonly code: number | null; readonly output: string }> {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, ...environment },
  });
  let output = '';
  child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
  child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
  return new Promise((done) => child.on('exit', (code) => done({ code, output })));
}

/** A window of the usual size, with nothing remembered. */
export function newContext(browser: Browser): Promise<BrowserContext> {
  return browser.newContext({ viewport: { width: 1280, height: 800 } });
}

/** The Bench in a browser, with the words a designer would use. */
export class BenchDriver {
  private constructor(
    readonly page: Page,
    readonly url: string,
  ) {}

  static async open(browser: Browser, url: string): Promise<BenchDriver> {
    return BenchDriver.openIn(await newContext(browser), url);
  }

  /** Opens it beside what the context has read already, which is quicker. */
  static async openIn(context: BrowserContext, url: string): Promise<BenchDriver> {
    const page = await context.newPage();
    await page.goto(`${url}/`);
    const driver = new BenchDriver(page, url);
    await driver.drawn();
    return driver;
  }

  /** Waits until the page stands in its frame. */
  async drawn(): Promise<void> {
    await this.page.waitForSelector('uv-page-frame iframe');
    await this.page.waitForSelector('uv-page-frame .loading', { state: 'detached' });
  }

  /** Middle of an element of the framed page, in window px, once it stands still: a window just resized is still being laid out. */
  async middleOf(selector: string): Promise<{ x: number; y: number }> {
    await this.drawn();
    // The same in three frames of the browser's, one after the other.
    await this.page.waitForFunction((wanted) => {
      const frame = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe');
      const element = frame?.contentDocument?.querySelector(wanted);
      const boxes = [frame?.getBoundingClientRect(), element?.getBoundingClientRect()];
      const at = JSON.stringify([wanted, ...boxes]);
      const seen = window as unknown as { stillAt?: string; stillFor?: number };
      seen.stillFor = seen.stillAt === at ? (seen.stillFor ?? 0) + 1 : 0;
      seen.stillAt = at;
      return element != null && seen.stillFor >= 3;
    }, selector);
    return this.middleNow(selector);
  }

  private middleNow(selector: string): Promise<{ x: number; y: number }> {
    return this.page.evaluate((wanted) => {
      const frame = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe');
      const element = frame?.contentDocument?.querySelector(wanted);
      if (!frame || !element) throw new Error(`No ${wanted} in the frame`);
      const outer = frame.getBoundingClientRect();
      const scale = outer.width / frame.offsetWidth;
      const box = element.getClientRects()[0];
      return { x: outer.left + (box.left + box.width / 2) * scale, y: outer.top + (box.top + box.height / 2) * scale };
    }, selector);
  }

  /** Chooses by a click on the page. */
  async choose(selector: string): Promise<void> {
    const { x, y } = await this.middleOf(selector);
    await this.page.mouse.move(x, y);
    await this.page.mouse.click(x, y);
    await this.page.waitForSelector('uv-states-grid', { state: 'attached' });
    await this.settled();
  }

  /** Chooses a cell of the grid, e.g. `Fill, hover`. */
  async cell(name: string): Promise<void> {
    await this.page.getByRole('button', { name: new RegExp(`^${name}:`) }).click();
    await this.settled();
  }

  /** Presses a button of the value picker by name, and waits until it is stored and shown. */
  async value(name: string): Promise<void> {
    const before = await this.version();
    await this.page.locator('uv-value-picker').getByRole('button', { name, exact: true }).first().click();
    await this.changed(before);
  }

  async typed(text: string): Promise<void> {
    const before = await this.version();
    await this.page.getByLabel('Typed colour').fill(text);
    await this.page.getByLabel('Typed colour').press('Enter');
    await this.changed(before);
  }

  /** Version of the stored draft, asked of the server. */
  async version(): Promise<number> {
    return this.page.evaluate(
      async () => ((await (await fetch('/api/sites/1/draft')).json()) as { version: number }).version,
    );
  }

  /** Waits until the stored draft is another than `before`. @throws when it stays as it was. */
  async changed(before: number): Promise<void> {
    await this.page.waitForFunction(
      async (version) =>
        ((await (await fetch('/api/sites/1/draft')).json()) as { version: number }).version !== version,
      before,
      { polling: 60, timeout: 10_000 },
    );
    await this.settled();
  }

  /** Waits until the worker owes no answer and nothing is being stored, twice in a row. */
  async settled(): Promise<void> {
    for (let calm = 0, tries = 0; calm < 3 && tries < 1_500; tries += 1) {
      await this.page.waitForTimeout(40);
      const isBusy = await this.page.evaluate(
        () => document.querySelector(':is(main, uv-bench-page aside)[aria-busy=true]') !== null,
      );
      calm = isBusy ? 0 : calm + 1;
    }
  }

  /** Computed value inside the framed page, as the frame's own engine has it. */
  async framed(selector: string, property: string): Promise<string> {
    return this.page.evaluate(
      ([wanted, name]) => {
        const document_ = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe')?.contentDocument;
        const element = document_?.querySelector(wanted);
        return element ? (document_?.defaultView?.getComputedStyle(element).getPropertyValue(name) ?? '') : 'nothing';
      },
      [selector, property] as const,
    );
  }

  /** Computed value of a pseudo-element, or of an element in the first shadow tree that has it. */
  async framedPart(selector: string, property: string, pseudo: string | null): Promise<string> {
    return this.page.evaluate(
      ([wanted, name, part]) => {
        const document_ = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe')?.contentDocument;
        const roots = [
          document_,
          ...[...(document_?.querySelectorAll('*') ?? [])].map(({ shadowRoot }) => shadowRoot),
        ].filter((root) => root != null);
        const element = roots.map((root) => root.querySelector(wanted)).find((found) => found !== null);
        return element
          ? (document_?.defaultView?.getComputedStyle(element, part).getPropertyValue(name) ?? '')
          : 'nothing';
      },
      [selector, property, pseudo] as const,
    );
  }

  /** Shows another page of the site. */
  async openPage(name: string): Promise<void> {
    await this.page.getByRole('combobox', { name: 'Page', exact: true }).click();
    await this.page.getByRole('option', { name, exact: true }).click();
    await this.drawn();
    await this.settled();
  }

  /** Scrolls an element of the framed page to the middle, then chooses it by a click. */
  async find(selector: string): Promise<void> {
    await this.page.evaluate(
      (wanted) =>
        document
          .querySelector<HTMLIFrameElement>('uv-page-frame iframe')
          ?.contentDocument?.querySelector(wanted)
          ?.scrollIntoView({ block: 'center' }),
      selector,
    );
    await this.choose(selector);
  }

  /** Chooses a step of the lineage by its label. */
  async step(label: string): Promise<void> {
    await this.page.locator('uv-lineage-bar li > button', { hasText: label }).first().click();
    await this.settled();
  }

  /** Chooses which property of the row is changed. */
  async property(words: string): Promise<void> {
    await this.page.getByRole('combobox', { name: 'Property', exact: true }).click();
    await this.page.getByRole('option', { name: words, exact: true }).click();
    await this.settled();
  }

  /** Types a measure and uses it. */
  async measure(text: string): Promise<void> {
    const before = await this.version();
    await this.page.locator('uv-measure-field input').fill(text);
    await this.page.locator('uv-measure-field input').press('Enter');
    await this.changed(before);
  }

  /** Presses any button that changes the draft. */
  async act(name: string | RegExp): Promise<void> {
    const before = await this.version();
    const options = { name, ...(typeof name === 'string' ? { exact: true } : {}) };
    const beside = this.page.locator('aside').getByRole('button', options);
    // What mends a finding is in the list that the foot opens into.
    if ((await beside.count()) === 0)
      await this.page
        .locator('uv-verdict-bar')
        .getByRole('button', { name: /findings/ })
        .click();
    await this.page.locator('aside, uv-verdict-bar').getByRole('button', options).first().click();
    await this.changed(before);
  }

  async plies(): Promise<string[]> {
    return this.page
      .locator('uv-plies-list li')
      .evaluateAll((items) =>
        items.map((item) =>
          [...item.querySelectorAll('.value, .from')].map((node) => node.textContent?.trim()).join(' | '),
        ),
      );
  }

  async css(): Promise<string> {
    return this.page.locator('uv-written-css pre').innerText();
  }

  async verdict(): Promise<string> {
    // It is made anew once other pages have been measured.
    await this.page.locator('uv-verdict-bar', { hasText: /Checking page/ }).waitFor({ state: 'detached' });
    // All that was found, whether or not the line is opened.
    return this.page
      .locator('uv-verdict-bar')
      .evaluate((bar) => (bar.querySelector('ul[aria-label="Verdict"]') ?? bar).textContent ?? '');
  }
}
