import type { PageMeasure } from '@upper-veneer/core';
import type { FramedPage } from '../frame/framed-page';
import { FrameDocument } from '../frame/frame-document';
import { measurePage } from './measure-page';

const VIEW_HEIGHT = 800;
/** A page that has not loaded by then is counted without its areas, ms. */
const PATIENCE_MS = 15_000;

/** Lays a page out in a frame nobody sees and measures it; `null` when it does not load. */
export async function measureInFrame(pageId: number, page: FramedPage, width: number, check: () => void): Promise<PageMeasure | null> {
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-same-origin');
  frame.setAttribute('aria-hidden', 'true');
  frame.setAttribute('scrolling', 'no');
  frame.tabIndex = -1;
  frame.referrerPolicy = 'no-referrer';
  frame.style.cssText = `position: fixed; left: 0; top: 0; width: ${width}px; height: ${VIEW_HEIGHT}px; border: 0; opacity: 0; pointer-events: none; z-index: -1;`;
  try {
    const isLoaded = new Promise<boolean>((done) => {
      frame.addEventListener('load', () => done(true), { once: true });
      setTimeout(() => done(false), PATIENCE_MS);
    });
    frame.src = page.url;
    document.body.append(frame);
    const content = (await isLoaded) ? frame.contentDocument : null;
    check();
    if (!content?.documentElement.hasAttribute('data-uv-n')) return null;
    new FrameDocument(content, page.veneerPlace).dress(page.frameCss);
    return await measurePage(pageId, content, check);
  } finally {
    frame.remove();
  }
}
