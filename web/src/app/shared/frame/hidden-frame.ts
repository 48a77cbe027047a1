import { FrameDocument } from './frame-document';
import type { FramedPage } from './framed-page';

const VIEW_HEIGHT = 800;
/** A page that has not loaded by then does not load, ms. */
const PATIENCE_MS = 15_000;

/** A page laid out in a frame that nobody sees. */
export interface HiddenFrame {
  readonly page: FrameDocument;
  /** Height of the frame, CSS px. */
  readonly height: number;
  close(): void;
}

/** Lays a page out in a frame nobody sees, with its veneer and what opens its hidden parts; `null` when it does not load. */
export async function openHidden(page: FramedPage, width: number): Promise<HiddenFrame | null> {
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-same-origin');
  frame.setAttribute('aria-hidden', 'true');
  frame.setAttribute('scrolling', 'no');
  frame.tabIndex = -1;
  frame.referrerPolicy = 'no-referrer';
  frame.style.cssText = `position: fixed; left: 0; top: 0; width: ${width}px; height: ${VIEW_HEIGHT}px; border: 0; opacity: 0; pointer-events: none; z-index: -1;`;
  const isLoaded = new Promise<boolean>((done) => {
    frame.addEventListener('load', () => done(true), { once: true });
    setTimeout(() => done(false), PATIENCE_MS);
  });
  frame.src = page.url;
  document.body.append(frame);
  const content = (await isLoaded) ? frame.contentDocument : null;
  if (!content?.documentElement.hasAttribute('data-uv-n')) {
    frame.remove();
    return null;
  }
  const laid = new FrameDocument(content, page.veneerPlace);
  laid.show(page);
  return { page: laid, height: VIEW_HEIGHT, close: () => frame.remove() };
}
