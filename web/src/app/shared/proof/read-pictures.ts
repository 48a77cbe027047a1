import { wordsOf } from '@upper-veneer/words';
import type { PictureReading } from '@upper-veneer/core';
import type { Remote } from 'comlink';
import type { InWords } from '../engine/in-words';
import type { EngineApi } from '../engine/engine-api';
import type { PlacePicture } from '../engine/place-picture';
import type { PictureAsk } from '../engine/proof-api';
import type { FramedPage } from '../frame/framed-page';
import { PageDrawing } from '../picture/page-drawing';
import { areaOf, hideText, pixelsUnder, type TextArea } from '../picture/under-text';

/** Drawings of pages that are made for one look, at most; what is beyond stays to be looked at, which is said. */
const MOST_DRAWN = 24;
/** Texts read from them, at most. */
const MOST_READ = 120;
/** Nothing at all: what comes out over a picture is the picture. */
const CLEAR = '#00000000';

/**
 * Reads the pixels under texts that stand over pictures, and holds each text against them: texts of one page, width and lighting from
 * one drawing.
 * @param tell told how many of the texts are read; `false` stops.
 */
export async function readPictures(
  asks: readonly PictureAsk[],
  engine: Remote<InWords<EngineApi>>,
  framed: (drawn: PlacePicture) => FramedPage,
  tell: (done: number, of: number) => boolean,
): Promise<PictureReading[] | null> {
  const readings: PictureReading[] = [];
  const together = byDrawing(asks.slice(0, MOST_READ)).slice(0, MOST_DRAWN);
  const of = together.reduce((sum, { length }) => sum + length, 0);
  for (const own of together) {
    if (!tell(readings.length, of)) return null;
    readings.push(...(await readDrawing(own, engine, framed)));
  }
  return tell(of, of) ? readings : null;
}

function byDrawing(asks: readonly PictureAsk[]): PictureAsk[][] {
  const drawings = new Map<string, PictureAsk[]>();
  for (const ask of asks) {
    const { pageId, width, lighting, amendments } = ask.picture;
    const key = JSON.stringify([pageId, width, lighting, amendments]);
    const own = drawings.get(key);
    if (own) own.push(ask);
    else drawings.set(key, [ask]);
  }
  return [...drawings.values()];
}

async function readDrawing(
  asks: readonly PictureAsk[],
  engine: Remote<InWords<EngineApi>>,
  framed: (drawn: PlacePicture) => FramedPage,
): Promise<PictureReading[]> {
  let drawing: PageDrawing | null = null;
  try {
    const [{ picture }] = asks;
    drawing = await PageDrawing.open(framed(picture), wordsOf('screen.page'), picture.width, (page) =>
      around(asks.flatMap((ask) => areaOf(page, textOf(ask)) ?? [])),
    );
    const readings: PictureReading[] = [];
    for (const ask of asks) readings.push(await readText(drawing, ask, engine));
    return readings;
  } catch {
    // What cannot be drawn stays to be looked at by eye, as it is said to be.
    return asks.map((ask) => unread(ask));
  } finally {
    drawing?.close();
  }
}

async function readText(
  drawing: PageDrawing,
  ask: PictureAsk,
  engine: Remote<InWords<EngineApi>>,
): Promise<PictureReading> {
  const { picture, ink, cover } = ask;
  drawing.page.force(picture.forced);
  const shown = hideText(drawing.page, picture.element);
  try {
    const raster = await pixelsUnder(drawing, textOf(ask));
    const [over, under] = raster ? await engine.overPicture([ink, CLEAR], raster, cover) : [null, null];
    return over && under ? { ...unread(ask), ratio: over.ratio, under: under.range } : unread(ask);
  } finally {
    shown();
    drawing.page.force([]);
  }
}

function unread({ findingId, index, ink, picture: { width } }: PictureAsk): PictureReading {
  return { findingId, index, ratio: null, ink, under: [], width };
}

/** Where a text stands; generated text lies somewhere in the box of its element. */
function textOf({ pseudo, picture: { element } }: PictureAsk): TextArea {
  return { element, isWhole: pseudo === 'before' || pseudo === 'after' };
}

/** The least area that holds all. */
function around(areas: readonly NonNullable<ReturnType<typeof areaOf>>[]): ReturnType<typeof areaOf> {
  if (areas.length === 0) return null;
  const left = Math.min(...areas.map((area) => area.left));
  const top = Math.min(...areas.map((area) => area.top));
  return {
    left,
    top,
    width: Math.max(...areas.map((area) => area.left + area.width)) - left,
    height: Math.max(...areas.map((area) => area.top + area.height)) - top,
  };
}
