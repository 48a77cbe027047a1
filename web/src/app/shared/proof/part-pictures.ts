import type { PartPicture } from '@upper-veneer/core';
import type { FrameDocument } from '../frame/frame-document';
import type { FramedPage } from '../frame/framed-page';
import type { Area } from '../picture/decode-picture';
import { PageDrawing } from '../picture/page-drawing';

/** A part on a page that is to be drawn, as it arrived and as it is now. */
export interface PartToDraw {
  readonly name: string;
  readonly element: number;
  readonly page: FramedPage;
  readonly pageName: string;
}

/** Viewport width at which parts are drawn, CSS px. */
const WIDTH = 1280;
/** Most of a part's height that is drawn, CSS px. */
const TALLEST = 900;
/** Width to which a picture is made smaller, px. */
const WIDEST = 560;

/**
 * Draws parts without and with the veneer. One whose page does not load, or that shows nothing, is left out.
 * @param isWanted asked before each, with how many are done; what was drawn until then is given.
 */
export async function drawParts(
  parts: readonly PartToDraw[],
  isWanted: (done: number) => boolean,
): Promise<PartPicture[]> {
  const pictures: PartPicture[] = [];
  for (const [done, { name, element, page, pageName }] of parts.entries()) {
    if (!isWanted(done)) break;
    let drawing: PageDrawing | null = null;
    try {
      const bare: FramedPage = { ...page, frameCss: '' };
      drawing = await PageDrawing.open(bare, pageName, WIDTH, (shown) => areaOf(shown, element));
      const before = await drawn(drawing, element);
      drawing.page.show(page);
      const after = await drawn(drawing, element);
      if (before && after) pictures.push({ name, page: pageName, before, after });
    } catch {
      // The report is whole without it, and says which parts it shows.
    } finally {
      drawing?.close();
    }
  }
  return pictures;
}

async function drawn(drawing: PageDrawing, element: number): Promise<string | null> {
  const area = areaOf(drawing.page, element);
  if (!area) return null;
  const bitmap = await drawing.draw(area);
  const scale = Math.min(1, WIDEST / bitmap.width);
  const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.max(1, Math.round(bitmap.height * scale)));
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return dataUrl(await canvas.convertToBlob({ type: 'image/png' }));
}

function areaOf(page: FrameDocument, element: number): Area | null {
  const box = page.boxOf(element);
  if (!box || box.width < 1 || box.height < 1) return null;
  const left = Math.max(0, Math.floor(box.left));
  const top = Math.max(0, Math.floor(box.top));
  return {
    left,
    top,
    width: Math.min(WIDTH - left, Math.ceil(box.width)),
    height: Math.min(TALLEST, Math.ceil(box.height)),
  };
}

function dataUrl(blob: Blob): Promise<string> {
  return new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => failed(reader.error ?? new Error('unreadable'));
    reader.readAsDataURL(blob);
  });
}
