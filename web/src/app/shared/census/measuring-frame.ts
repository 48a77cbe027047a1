import type { PageMeasure } from '@upper-veneer/core';
import type { FramedPage } from '../frame/framed-page';
import { openHidden } from '../frame/hidden-frame';
import { measurePage } from './measure-page';

/** Lays a page out in a frame nobody sees and measures it; `null` when it does not load: it is counted without its areas then. */
export async function measureInFrame(
  pageId: number,
  page: FramedPage,
  width: number,
  check: () => void,
): Promise<PageMeasure | null> {
  const hidden = await openHidden(page, width);
  try {
    check();
    return hidden && (await measurePage(pageId, hidden.page.document, check));
  } finally {
    hidden?.close();
  }
}
