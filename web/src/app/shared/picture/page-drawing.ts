import { wordsOf } from '@upper-veneer/words';
import { cssAddresses, withCssAddresses } from '@upper-veneer/core';
import type { FramedPage } from '../frame/framed-page';
import type { FrameDocument } from '../frame/frame-document';
import { openHidden, type HiddenFrame } from '../frame/hidden-frame';
import { PictureProblem, drawSvg, type Area } from './decode-picture';

/** Height to which a page is drawn, CSS px. */
const TALLEST = 6000;

/**
 * A captured page that can be drawn into pictures, so that its pixels can be read: the frame's own markup with its
 * stylesheets and pictures carried inside. Shadow trees and framed parts are left blank.
 */
export class PageDrawing {
  private constructor(
    private readonly hidden: HiddenFrame,
    private readonly name: string,
    private readonly width: number,
  ) {}

  /**
   * @param near pictures in the page that do not touch this area are left blank; all are drawn when it is `null`.
   * @throws {PictureProblem} when the page does not load.
   */
  static async open(
    page: FramedPage,
    name: string,
    width: number,
    near: ((page: FrameDocument) => Area | null) | null = null,
  ): Promise<PageDrawing> {
    const hidden = await openHidden(page, width);
    if (!hidden) throw new PictureProblem(wordsOf('screen.does-not-load', { name }));
    try {
      stretch(hidden);
      const area = near?.(hidden.page) ?? null;
      if (area) blankBeyond(hidden.page.document, area);
      await carryInside(hidden.page.document);
      return new PageDrawing(hidden, name, width);
    } catch (error) {
      hidden.close();
      throw error;
    }
  }

  get page(): FrameDocument {
    return this.hidden.page;
  }

  /** Draws the page as it stands, or an area of it. @throws {PictureProblem} */
  draw(area: Area | null = null): Promise<ImageBitmap> {
    const { documentElement } = this.page.document;
    const full = this.fullHeight;
    const markup = new XMLSerializer().serializeToString(documentElement);
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${this.width}" height="${full}"><foreignObject x="0" y="0" width="${this.width}" height="${full}">${markup}</foreignObject></svg>`;
    // Cut out while drawing: a view box of its own would shift what is positioned.
    return drawSvg(svg, area ?? { left: 0, top: 0, width: this.width, height: full }, this.name);
  }

  private get fullHeight(): number {
    return fullHeightOf(this.hidden);
  }

  close(): void {
    this.hidden.close();
  }
}

function fullHeightOf({ page, height }: HiddenFrame): number {
  return Math.min(TALLEST, Math.max(height, page.document.documentElement.scrollHeight));
}

/** Makes the window as high as the page is drawn, so that what is fixed in it is measured where it is drawn. */
function stretch(hidden: HiddenFrame): void {
  const frame = hidden.page.document.defaultView?.frameElement as HTMLElement | null;
  if (frame) frame.style.height = `${fullHeightOf(hidden)}px`;
}

/** Pictures that do not touch an area keep their place and show nothing. */
function blankBeyond(content: Document, { left, top, width, height }: Area): void {
  for (const image of content.querySelectorAll('img')) {
    const box = image.getBoundingClientRect();
    if (box.right > left && box.left < left + width && box.bottom > top && box.top < top + height) continue;
    image.style.width = `${box.width}px`;
    image.style.height = `${box.height}px`;
    image.removeAttribute('srcset');
    image.src = BLANK;
  }
}

/** A picture of one clear pixel. */
const BLANK = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw==';

/** Puts sheets, pictures and fonts of a framed page into its markup: an image may load nothing. */
async function carryInside(content: Document): Promise<void> {
  const carried = new Map<string, Promise<string>>();
  const carry = (url: string): Promise<string> => {
    const known = carried.get(url);
    if (known) return known;
    const loading = dataUrl(url);
    carried.set(url, loading);
    return loading;
  };
  for (const link of content.querySelectorAll<HTMLLinkElement>('link[rel~="stylesheet" i]')) {
    if (!link.sheet) continue;
    const style = content.createElement('style');
    if (link.media) style.media = link.media;
    style.textContent = await withCarried(await (await fetch(link.href)).text(), link.href, carry);
    link.replaceWith(style);
  }
  for (const style of content.querySelectorAll('style'))
    style.textContent = await withCarried(style.textContent ?? '', content.baseURI, carry);
  for (const element of content.querySelectorAll('[style*="url("]'))
    element.setAttribute('style', await withCarried(element.getAttribute('style') ?? '', content.baseURI, carry));
  for (const image of content.querySelectorAll('img')) {
    image.removeAttribute('srcset');
    if (image.src !== '' && !image.src.startsWith('data:')) image.src = await carry(image.src);
  }
  for (const image of content.querySelectorAll('svg image, video, iframe, script, noscript'))
    image.removeAttribute('src');
  // Fields show what they hold only through their markup.
  for (const field of content.querySelectorAll('input')) field.setAttribute('value', field.value);
}

async function withCarried(css: string, base: string, carry: (url: string) => Promise<string>): Promise<string> {
  const carried = new Map<string, string>();
  for (const { address } of cssAddresses(css)) {
    if (!/^(?:data:|#|about:)/.test(address)) carried.set(address, await carry(new URL(address, base).href));
  }
  return withCssAddresses(css, ({ address }) => carried.get(address) ?? null);
}

async function dataUrl(url: string): Promise<string> {
  try {
    const response = await fetch(url);
    if (!response.ok) return 'data:,';
    const blob = await response.blob();
    return await new Promise<string>((done, failed) => {
      const reader = new FileReader();
      reader.onload = () => done(String(reader.result));
      reader.onerror = () => failed(reader.error ?? new Error('unreadable'));
      reader.readAsDataURL(blob);
    });
  } catch {
    return 'data:,';
  }
}
