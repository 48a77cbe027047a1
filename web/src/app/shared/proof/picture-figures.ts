import type { EngineApi } from '../engine/engine-api';
import type { ProofPlaceView } from '../engine/proof-api';
import type { FramedPage } from '../frame/framed-page';
import { PageDrawing } from '../picture/page-drawing';
import { areaOf, hideText, pixelsUnder } from '../picture/under-text';
import type { Remote } from 'comlink';

/** Places of one finding that are read; each is a drawing of its page. */
const MOST_READ = 8;

/** A place over a picture, and the worst contrast of its text over the pixels under its lines. */
export interface PictureFigure {
  readonly index: number;
  readonly ratio: number;
}

/**
 * Reads the pixels under texts that stand over pictures, and holds each text against them. A pseudo-element, which has no lines that
 * a frame tells, and what cannot be drawn is left out.
 */
export async function pictureFigures(
  findingId: string,
  places: readonly ProofPlaceView[],
  engine: Remote<EngineApi>,
  framed: (drawn: NonNullable<Awaited<ReturnType<EngineApi['placePicture']>>>) => FramedPage,
  isWanted: () => boolean,
): Promise<PictureFigure[]> {
  const figures: PictureFigure[] = [];
  for (const [index, { element, pseudo, overPicture }] of places.slice(0, MOST_READ).entries()) {
    if (!isWanted()) break;
    const drawn = overPicture !== null && pseudo === '' ? await engine.placePicture(findingId, index) : null;
    if (!drawn || overPicture === null) continue;
    let drawing: PageDrawing | null = null;
    try {
      drawing = await PageDrawing.open(framed(drawn), 'The page', drawn.width, (page) => areaOf(page, element));
      hideText(drawing.page, element);
      drawing.page.force(drawn.forced);
      const raster = await pixelsUnder(drawing, element);
      const [over] = raster ? await engine.overPicture([overPicture], raster) : [null];
      if (over !== null) figures.push({ index, ratio: over.ratio });
    } catch {
      // What cannot be drawn stays to be looked at by eye, as it is said to be.
    } finally {
      drawing?.close();
    }
  }
  return figures;
}
