import { keyOf, message, type Message } from '@upper-veneer/words';
import type { ElementHandle, Frame, Page } from 'playwright-core';
import { takeSnapshot } from '@upper-veneer/snapshot';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';

/** How long one frame with all in it is waited for, ms. */
const FRAME_MS = 6000;

/** A document as it stood when it was taken. */
export interface TakenDocument {
  /** Address it is known by to what frames it, and to the product: its own, or one made up where several have it. */
  readonly address: string;
  /** Address that what it refers to is found from. */
  readonly base: string;
  readonly html: string;
}

/** A page that was kept, with the documents it frames. */
export interface TakenPage extends TakenDocument {
  /** Name it was kept under; empty for its title. */
  readonly name: string;
  readonly title: string;
  readonly frames: readonly TakenDocument[];
  /** What of it no HTML text holds. */
  readonly lost: readonly Message[];
}

/**
 * Takes a page as it stands, framed documents as documents of their own.
 * @param mark told apart by it from other pages kept at the same address; empty for the page as it comes.
 * @throws {CaptureProblem} `too-large`.
 */
export async function takePage(page: Page, name: string, mark: string): Promise<TakenPage> {
  const address = page.url();
  const lost = new Map<string, Message>();
  const lose = (what: Message): unknown => lost.set(keyOf(what), what);
  const frames: TakenDocument[] = [];
  let text = 0;
  const taken = async (frame: Frame): Promise<{ html: string; title: string; base: string }> => {
    const held: { element: ElementHandle; address: string }[] = [];
    for (const child of frame.childFrames()) {
      // An error page or a file stands in for a document that never came; it is no part of the page.
      if (child.isDetached() || !/^(?:https?:|about:(?:srcdoc|blank))/.test(child.url())) continue;
      if (frames.length >= BOUNDS.frames) {
        lose(message('lost.more-frames', { frames: BOUNDS.frames }));
        break;
      }
      try {
        const element = await child.frameElement();
        const own = addressWithin(address, `${mark === '' ? '' : `${mark}-`}frame-${frames.length + 1}`);
        // Its place is held while what it frames itself is taken.
        const place = frames.push({ address: own, base: child.url(), html: '' }) - 1;
        const { html, base } = await within(FRAME_MS, taken(child));
        frames[place] = { address: own, base, html };
        held.push({ element, address: own });
      } catch (error) {
        if (error instanceof CaptureProblem) throw error;
        lose(message('lost.framed-document', { address: child.url().slice(0, 200) }));
      }
    }
    const snapshot = await frame.evaluate(takeSnapshot, {
      isWhole: false,
      isScripted: await runsScripts(frame),
      frames: held,
    });
    for (const what of snapshot.lost) lose(what);
    text += snapshot.html.length;
    if (text > BOUNDS.pageText)
      throw new CaptureProblem('too-large', message('capture.page-characters', { millions: BOUNDS.pageText / 1e6 }));
    return { html: snapshot.html, title: snapshot.title, base: snapshot.base };
  };
  const { html, title, base } = await taken(page.mainFrame());
  const own = mark === '' ? address : addressWithin(address, mark);
  return {
    address: own,
    base,
    html,
    title,
    name,
    frames: frames.filter((frame) => frame.html !== ''),
    lost: [...lost.values()],
  };
}

/** Whether anything runs in a document: where its sandbox lets nothing, its clock stands, and what would wait for it waits for ever. */
function runsScripts(frame: Frame): Promise<boolean> {
  return within(
    1500,
    frame.evaluate(() => new Promise<boolean>((done) => setTimeout(() => done(true), 0))),
  ).catch(() => false);
}

/** @throws when it takes longer. */
async function within<T>(limit: number, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, refuse) => {
    timer = setTimeout(() => refuse(new Error('too long')), limit);
  });
  work.catch(() => undefined);
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

/** An address beside another's, with a mark in its name: `/checkout.html` → `/checkout~second-step.html`. */
function addressWithin(address: string, mark: string): string {
  const url = new URL(URL.canParse(address) && /^https?:/.test(address) ? address : 'http://page.invalid/');
  url.hash = '';
  const path = url.pathname.endsWith('/') ? `${url.pathname}index.html` : url.pathname;
  url.pathname = /\.[a-z]{1,5}$/i.test(path) ? path.replace(/\.([a-z]{1,5})$/i, `~${mark}.$1`) : `${path}~${mark}.html`;
  return url.href;
}
