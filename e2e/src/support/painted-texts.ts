import { contrastRatio, type Color, type PageLayout, type Rect } from '@upper-veneer/core';
import { PNG } from 'pngjs';
import type { Page as BrowserPage } from 'playwright-core';

/** Device pixels per CSS px of the shots. */
export const SHOT_SCALE = 3;

/**
 * Contrast of texts as a browser paints them, by running number: the text's own colour against the worst of the pixels under its lines.
 * The page must fit its window. With a clip, in whole CSS px, only texts inside that. Texts of which nothing shows are left out, and those that share their place with another's.
 */
export async function paintedRatios(
  page: BrowserPage,
  layout: PageLayout,
  clip: Rect = { left: 0, top: 0, width: Infinity, height: Infinity },
): Promise<Map<number, number>> {
  const isWhole = clip.width === Infinity;
  const shoot = async (css: string, strokes: boolean): Promise<PNG> => {
    await page.evaluate(
      ([text, isStroked]) => {
        const sheet = new CSSStyleSheet();
        sheet.replaceSync(text);
        const roots: (Document | ShadowRoot)[] = [document];
        for (const root of roots) {
          root.adoptedStyleSheets = [sheet];
          for (const element of root.querySelectorAll<HTMLElement>('*')) {
            if (element.shadowRoot) roots.push(element.shadowRoot);
            // The thinnest stem then covers whole pixels; what is sheer would be laid on twice.
            if (!isStroked) element.style.removeProperty('-webkit-text-stroke');
            else
              element.style.setProperty(
                '-webkit-text-stroke',
                /[/,] ?0?\.\d+\)$/.test(getComputedStyle(element).color) ? '0px' : '1px',
                'important',
              );
          }
        }
      },
      [css, strokes] as const,
    );
    return PNG.sync.read(
      await page.screenshot({
        animations: 'disabled',
        caret: 'hide',
        ...(isWhole ? {} : { clip: { x: clip.left, y: clip.top, width: clip.width, height: clip.height } }),
      }),
    );
  };
  const still =
    '*, ::before, ::after { transition: none !important; animation: none !important; text-shadow: none !important; text-decoration: none !important; caret-color: transparent !important }';
  const bare = await shoot(
    `${still} *, ::before, ::after, ::placeholder { -webkit-text-fill-color: transparent !important } ::marker, select { color: transparent !important }`,
    false,
  );
  const full = await shoot(still, true);
  const ratios = new Map<number, number>();
  for (const [number, list] of layout.lines) {
    // A letter or two has too few whole pixels to tell its colour by.
    if (list[2] < NARROWEST) continue;
    if (!isInside(list, clip) || sharesPlace(layout, number, list)) continue;
    const ratio = ratioIn(
      bare,
      full,
      list.map((value, i) => (i % 4 === 0 ? value - clip.left : i % 4 === 1 ? value - clip.top : value)),
    );
    if (ratio !== null) ratios.set(number, ratio);
  }
  return ratios;
}

const NARROWEST = 16;

function isInside(list: readonly number[], { left, top, width, height }: Rect): boolean {
  return list.every((value, i) =>
    i % 4 === 0
      ? value >= left && value + list[i + 2] <= left + width
      : i % 4 === 1
        ? value >= top && value + list[i + 2] <= top + height
        : true,
  );
}

/** Whether lines of another text lie over some of these, so that pixels do not tell whose they are. */
function sharesPlace({ lines }: PageLayout, number: number, list: readonly number[]): boolean {
  for (const [other, rects] of lines) {
    if (other === number) continue;
    for (let k = 0; k + 3 < rects.length; k += 4) {
      for (let i = 0; i + 3 < list.length; i += 4) {
        if (
          list[i] + 1 < rects[k] + rects[k + 2] &&
          rects[k] + 1 < list[i] + list[i + 2] &&
          list[i + 1] + list[i + 3] * 0.12 < rects[k + 1] + rects[k + 3] * 0.88 &&
          rects[k + 1] + rects[k + 3] * 0.12 < list[i + 1] + list[i + 3] * 0.88
        )
          return true;
      }
    }
  }
  return false;
}

/** Pixels of nearly the strongest ink that tell a stem from the blurred edges of glyphs. */
const STEM = 30;

function ratioIn(bare: PNG, full: PNG, list: readonly number[]): number | null {
  const grounds = new Map<
    number,
    { readonly color: Color; readonly inks: { readonly at: number; readonly difference: number }[] }
  >();
  for (let i = 0; i + 3 < list.length; i += 4) {
    // Glyphs stand in the middle of their line; what is at its ends belongs to neighbours.
    const inset = Math.min(1, list[i + 2] * 0.04);
    const [left, top, right, bottom] = [
      list[i] + inset,
      list[i + 1] + list[i + 3] * 0.12,
      list[i] + list[i + 2] - inset,
      list[i + 1] + list[i + 3] * 0.88,
    ].map((value) => Math.round(value * SHOT_SCALE));
    for (let y = Math.max(0, top); y < Math.min(bare.height, bottom); y += 1) {
      for (let x = Math.max(0, left); x < Math.min(bare.width, right); x += 1) {
        const at = (y * bare.width + x) * 4;
        const packed = (bare.data[at] << 16) | (bare.data[at + 1] << 8) | bare.data[at + 2];
        let ground = grounds.get(packed);
        if (!ground) grounds.set(packed, (ground = { color: colorAt(bare, at), inks: [] }));
        const difference =
          Math.abs(bare.data[at] - full.data[at]) +
          Math.abs(bare.data[at + 1] - full.data[at + 1]) +
          Math.abs(bare.data[at + 2] - full.data[at + 2]);
        if (difference > 24) ground.inks.push({ at, difference });
      }
    }
  }
  const strongest = [...grounds.values()]
    .flatMap(({ inks }) => inks)
    .reduce<{ at: number; difference: number } | null>(
      (best, ink) => (best && best.difference >= ink.difference ? best : ink),
      null,
    );
  if (!strongest) return null;
  // Of pixels as good as wholly inked the commonest: where stroke and fill meet, a few come out darker than either.
  const common = colorAt(
    full,
    commonest(
      full,
      [...grounds.values()].flatMap(({ inks }) =>
        inks.filter(({ difference }) => difference > strongest.difference * 0.95),
      ),
    ),
  );
  return Math.min(
    ...[...grounds.values()].map(({ color, inks }) => {
      // What lies over a text in part changes its ink there: a stem on that ground tells it, where there is one.
      const own = inks.reduce((best, ink) => (ink.difference > best.difference ? ink : best), {
        at: strongest.at,
        difference: 0,
      });
      const stem = inks.filter(({ difference }) => difference > own.difference * 0.97);
      return contrastRatio(stem.length >= STEM ? colorAt(full, commonest(full, stem)) : common, color);
    }),
  );
}

/** Place of a pixel of the commonest colour among some. */
function commonest({ data }: PNG, inks: readonly { readonly at: number }[]): number {
  const counts = new Map<number, { readonly at: number; count: number }>();
  for (const { at } of inks) {
    const packed = (data[at] << 16) | (data[at + 1] << 8) | data[at + 2];
    const known = counts.get(packed);
    if (known) known.count += 1;
    else counts.set(packed, { at, count: 1 });
  }
  return [...counts.values()].reduce((best, own) => (own.count > best.count ? own : best)).at;
}

function colorAt({ data }: PNG, at: number): Color {
  return { space: 'legacy', channels: [data[at] / 255, data[at + 1] / 255, data[at + 2] / 255], alpha: 1 };
}
