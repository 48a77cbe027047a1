import { keyOf, message, type Message } from '@upper-veneer/words';
import { errors, type Browser, type BrowserContext, type Page } from 'playwright-core';
// Types alone: what starts a browser must not wait for the whole core to be read.
import type { PageSight, SeenElement, VisitStep } from '@upper-veneer/core';
import type { AddressPolicy } from './address-policy.js';
import { checkAddress } from './address-policy.js';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';
import { doStep } from './do-step.js';
import { openGate, type Gate } from './gate.js';
import { lookAtPage, type EyeQuestion } from './page-eye.js';
import { Recorder, type RecordedFile } from './recorder.js';
import { AFTER_OPENING, AFTER_SCROLLING, AFTER_STEP, settle, type Calm } from './settle.js';
import { inPlainWords, within } from './plain-words.js';
import { startBrowser } from './start-browser.js';
import { takePage, type TakenPage } from './take-page.js';
import { watchBrowser } from './watch-browser.js';

export interface VisitOptions {
  /** The browser's program. */
  readonly program: string;
  readonly policy: AddressPolicy;
  /** Width of the window, CSS px. */
  readonly width: number;
}

/** A page as it is now, with its picture. */
export interface DrawnSight extends PageSight {
  /** JPEG of the window, one pixel a CSS px. */
  readonly picture: Buffer;
}

/** A visit under way, here or in a process of its own. */
export interface VisitHandle {
  open(address: string): Promise<void>;
  act(step: VisitStep): Promise<void>;
  see(): Promise<DrawnSight>;
  take(name: string): Promise<TakenPage>;
  files(): Promise<readonly RecordedFile[]>;
  /** What happened that a visitor would not see, since it was last asked. */
  notes(): Promise<readonly Message[]>;
  close(): Promise<void>;
}

const MOST_MAPPED = 400;
/** Opening with all that is waited for, ms. */
const OPENING_MS = BOUNDS.openMs + AFTER_OPENING.most + BOUNDS.stepMs;
/** Heights of the window that a page is scrolled through. */
const MOST_SCREENS = 20;

/**
 * A visit to one address in a browser of its own, started for it and ended with it. Scripts of pages run there alone. Every request
 * goes by the gate; time, bytes, memory and processes are bounded; downloads, permissions, dialogs and further windows are refused.
 */
export class Visit implements VisitHandle {
  readonly #recorder = new Recorder();
  readonly #notes = new Map<string, Message>();
  readonly #marks = new Set<string>();
  /** Rejects once the visit has been ended from outside. */
  readonly #ended: Promise<never>;
  #end: (problem: CaptureProblem) => void = () => undefined;
  #context: BrowserContext | null = null;
  #page: Page | null = null;
  #address = '';
  /** Of all pages taken, UTF-16 units. */
  #text = 0;
  /** Refused addresses that were told of. */
  #told = 0;
  #width: number;
  #unwatch: () => void = () => undefined;

  private constructor(
    private readonly browser: Browser,
    private readonly gate: Gate,
    private readonly policy: AddressPolicy,
    width: number,
  ) {
    this.#width = width;
    this.#ended = new Promise((_, refuse) => (this.#end = refuse));
    this.#ended.catch(() => undefined);
  }

  /** Starts a browser. @throws {CaptureProblem} `no-browser` when it does not start. */
  static async start({ program, policy, width }: VisitOptions): Promise<Visit> {
    let exceeded: (what: 'bytes' | 'requests') => void = () => undefined;
    const gate = await openGate({
      policy,
      totalBytes: BOUNDS.totalBytes,
      requests: BOUNDS.requests,
      onExceeded: (what) => exceeded(what),
    });
    const browser = await startBrowser(program, gate.address).catch(async (error: unknown) => {
      await gate.close();
      throw error;
    });
    const visit = new Visit(browser, gate, policy, width);
    exceeded = (what) =>
      visit.#end(
        what === 'bytes'
          ? new CaptureProblem(
              'too-large',
              message('capture.page-asked-bytes', { megabytes: BOUNDS.totalBytes / 1024 / 1024 }),
            )
          : new CaptureProblem('too-many', message('capture.page-asked-times', { times: BOUNDS.requests })),
      );
    browser.once('disconnected', () => visit.#end(new CaptureProblem('not-fetched', message('capture.browser-ended'))));
    visit.#unwatch = watchBrowser(browser, (problem) => visit.#end(problem));
    return visit;
  }

  async open(address: string): Promise<void> {
    checkAddress(address, this.policy);
    this.#address = address;
    await this.#within(this.#openAnew(), OPENING_MS, 'capture.late-to-come');
  }

  async act(step: VisitStep): Promise<void> {
    const limit = step.act === 'anew' ? OPENING_MS : 2 * BOUNDS.stepMs + AFTER_STEP.most;
    await this.#within(this.#do(step), limit, 'capture.late-step');
  }

  async see(): Promise<DrawnSight> {
    const page = this.#open();
    return this.#within(
      (async () => {
        const picture = await page.screenshot({ type: 'jpeg', quality: 72, scale: 'css', timeout: BOUNDS.stepMs });
        const elements = await this.#mapOf(page);
        if (elements.length >= MOST_MAPPED) this.#note(message('visit-note.first-things', { count: MOST_MAPPED }));
        return {
          picture,
          ...(page.viewportSize() ?? { width: this.#width, height: BOUNDS.height }),
          address: page.url(),
          title: await page.title(),
          elements,
          notes: await this.notes(),
        };
      })(),
      2 * BOUNDS.stepMs,
      'capture.late-to-be-drawn',
    );
  }

  async take(name: string): Promise<TakenPage> {
    const page = this.#open();
    const taken = await this.#within(takePage(page, name, this.#markFor(name)), 30_000, 'capture.late-to-be-taken');
    this.#text += taken.frames.reduce((sum, { html }) => sum + html.length, taken.html.length);
    if (this.#text > BOUNDS.allText)
      throw new CaptureProblem('too-large', message('capture.pages-characters', { millions: BOUNDS.allText / 1e6 }));
    return taken;
  }

  files(): Promise<RecordedFile[]> {
    return this.#within(this.#recorder.files(), 30_000, 'capture.late-files');
  }

  notes(): Promise<Message[]> {
    const said = [...this.#notes.values()];
    this.#notes.clear();
    const refused = [...this.gate.refused].slice(this.#told);
    this.#told = this.gate.refused.size;
    if (refused.length > 0)
      said.push(message('visit-note.not-asked', { count: refused.length, addresses: refused.slice(0, 3) }));
    return Promise.resolve(said);
  }

  async close(): Promise<void> {
    this.#unwatch();
    this.#end(new CaptureProblem('stopped', message('capture.visit-was-ended')));
    await this.browser.close().catch(() => undefined);
    await this.gate.close();
  }

  /** Same for the same name, so that a page is known again when it is captured again. */
  #markFor(name: string): string {
    if (name === '') return '';
    const slug = name
      .toLowerCase()
      .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
      .replaceAll(/^-|-$/g, '')
      .slice(0, 60);
    let mark = slug || 'kept';
    for (let number = 2; this.#marks.has(mark); number += 1) mark = `${slug || 'kept'}-${number}`;
    this.#marks.add(mark);
    return mark;
  }

  /** The page, where it is one to be looked at. */
  #open(): Page {
    if (!this.#page) throw new CaptureProblem('no-page', message('capture.no-page-open'));
    const address = this.#page.url();
    if (this.gate.isRefused(address))
      throw new CaptureProblem('refused-address', message('capture.went-to-refused', { address }));
    if (!/^https?:/.test(address)) throw new CaptureProblem('not-fetched', message('capture.went-to-silent'));
    return this.#page;
  }

  /** A context of its own has nothing of any visit before. */
  async #openAnew(): Promise<void> {
    await this.#context?.close();
    const version = this.browser.version().split('.')[0];
    const context = await this.browser.newContext({
      viewport: { width: this.#width, height: BOUNDS.height },
      acceptDownloads: false,
      serviceWorkers: 'block',
      permissions: [],
      userAgent: `Mozilla/5.0 (${PLATFORM}) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${version}.0.0.0 Safari/537.36`,
    });
    this.#context = context;
    await context.addInitScript(withoutPeers);
    this.#recorder.listen(context);
    const page = await context.newPage();
    this.#page = page;
    context.on('page', (other) => {
      this.#note(message('visit-note.another-window'));
      void other.close().catch(() => undefined);
    });
    page.on('dialog', (dialog) => {
      this.#note(message('visit-note.asked', { text: dialog.message().slice(0, 120) }));
      void dialog.dismiss().catch(() => undefined);
    });
    page.on('download', (download) => {
      this.#note(message('visit-note.download', { name: download.suggestedFilename().slice(0, 120) }));
      void download.cancel().catch(() => undefined);
    });
    page.on('crash', () => this.#end(new CaptureProblem('not-fetched', message('capture.page-crashed'))));
    let status = 0;
    page.on('response', (response) => {
      if (response.request().isNavigationRequest() && response.frame() === page.mainFrame()) status = response.status();
    });
    let answer;
    const asked = Date.now();
    let begun = asked;
    try {
      answer = await page.goto(this.#address, { waitUntil: 'domcontentloaded', timeout: BOUNDS.openMs });
      // Scripts run from here on, and what they put in a while after comes by this clock.
      begun = Date.now();
      await page.waitForLoadState('load', { timeout: Math.max(1000, BOUNDS.openMs - (begun - asked)) });
    } catch (error) {
      // A page whose pictures never come is there all the same.
      if (!answer || !(error instanceof errors.TimeoutError))
        throw new CaptureProblem(
          'not-fetched',
          status >= 400
            ? message('capture.answered', { address: this.#address, status })
            : message('capture.not-opened', { address: this.#address, error: within(inPlainWords(error)) }),
        );
      this.#note(message('visit-note.not-all', { seconds: BOUNDS.openMs / 1000 }));
    }
    if (answer && this.gate.isRefused(answer.url()))
      throw new CaptureProblem('refused-address', message('capture.address-not-asked', { address: answer.url() }));
    if (answer && !answer.ok())
      throw new CaptureProblem(
        'not-fetched',
        message('capture.answered', { address: this.#address, status: answer.status() }),
      );
    // What comes once it is scrolled to comes while scripts have their time.
    const height = await scrollThrough(page).catch(() => 0);
    if (height > MOST_SCREENS * BOUNDS.height)
      this.#note(message('visit-note.tall', { height, scrolled: MOST_SCREENS * BOUNDS.height }));
    await this.#settled(page, AFTER_OPENING, begun);
    const grown = await page.evaluate(() => document.documentElement.scrollHeight).catch(() => 0);
    if (grown > height) {
      await scrollThrough(page).catch(() => 0);
      await this.#settled(page, AFTER_SCROLLING);
    }
  }

  #note(note: Message): void {
    this.#notes.set(keyOf(note), note);
  }

  async #settled(page: Page, calm: Calm, since = Date.now()): Promise<void> {
    if (!(await settle(page, () => this.#recorder.asking, calm, since)))
      this.#note(message('visit-note.still-changing', { seconds: calm.most / 1000 }));
  }

  async #do(step: VisitStep): Promise<void> {
    if (step.act === 'anew') {
      await this.#openAnew();
      return;
    }
    const page = this.#open();
    if (step.act === 'width') {
      this.#width = step.width ?? this.#width;
      await page.setViewportSize({ width: this.#width, height: BOUNDS.height });
    } else await doStep(page, step, (note) => this.#note(note));
    await this.#settled(page, AFTER_STEP);
  }

  /** What stands in the window, that of frames in their places. */
  async #mapOf(page: Page): Promise<SeenElement[]> {
    const question: EyeQuestion = { kind: 'map', most: MOST_MAPPED };
    const { map } = await page.evaluate(lookAtPage, question);
    const all = [...map];
    for (const frame of page.mainFrame().childFrames()) {
      const element = await frame.frameElement().catch(() => null);
      const box = await element?.boundingBox().catch(() => null);
      if (!box || all.length >= MOST_MAPPED) continue;
      const own = map.find(
        ({ box: at }) => Math.abs(at.x - box.x) < 1 && Math.abs(at.y - box.y) < 1 && Math.abs(at.width - box.width) < 1,
      );
      if (!own) continue;
      const within = await frame.evaluate(lookAtPage, question).catch(() => null);
      for (const seen of within?.map ?? [])
        all.push({
          ...seen,
          frame: own.selector,
          box: { ...seen.box, x: seen.box.x + box.x, y: seen.box.y + box.y },
        });
    }
    return all.slice(0, MOST_MAPPED);
  }

  /** Work on the page, until it is done, the time is over, or the visit is ended from outside. */
  async #within<T>(
    work: Promise<T>,
    limit: number,
    late: `capture.late-${'to-come' | 'step' | 'to-be-drawn' | 'to-be-taken' | 'files'}`,
  ): Promise<T> {
    let timer: NodeJS.Timeout | undefined;
    const tooLate = new Promise<never>((_, refuse) => {
      timer = setTimeout(
        () => refuse(new CaptureProblem('too-long', message(late, { seconds: Math.round(limit / 1000) }))),
        limit,
      );
    });
    work.catch(() => undefined);
    try {
      return await Promise.race([work, tooLate, this.#ended]);
    } catch (error) {
      if (error instanceof CaptureProblem) throw error;
      throw new CaptureProblem('not-fetched', message('capture.not-looked-at', { error: within(inPlainWords(error)) }));
    } finally {
      clearTimeout(timer);
    }
  }
}

const PLATFORM =
  { darwin: 'Macintosh; Intel Mac OS X 10_15_7', win32: 'Windows NT 10.0; Win64; x64' }[process.platform as string] ??
  'X11; Linux x86_64';

/** What reaches others past any proxy is not there; runs before the page's own scripts. */
function withoutPeers(): void {
  for (const name of ['RTCPeerConnection', 'webkitRTCPeerConnection', 'RTCDataChannel', 'WebTransport'])
    Reflect.deleteProperty(globalThis, name);
}

/** Scrolls through a page once, so that what comes only then has come; how tall it is after, CSS px. Waits here: a page without scripts has no clock. */
async function scrollThrough(page: Page): Promise<number> {
  const scroll = (top: number): Promise<number> =>
    page.evaluate((to) => {
      window.scrollTo({ top: to, behavior: 'instant' });
      return document.documentElement.scrollHeight;
    }, top);
  const from = await page.evaluate(() => window.scrollY);
  for (let screen = 1; screen <= MOST_SCREENS; screen += 1) {
    const top = screen * BOUNDS.height;
    if (top >= (await scroll(top))) break;
    await new Promise((done) => setTimeout(done, 50));
  }
  return scroll(from);
}
