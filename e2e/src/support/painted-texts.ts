import { contrastRatio, type Color, type PageLayout } from '@upper-veneer/core';
import { PNG } from 'pngjs';
import type { Page as BrowserPage } from 'playwright-core';

/** Device pixels per CSS px of the shots. */
export const SHOT_SCALE = 3;

/**
 * Contrast of texts as a browser paints them, by running number: the text's own colour against the worst of the pixels under its lines.
 * The page must fit its window. Texts of which nothing shows are left out, and those that share their place with another's.
 */
export async function paintedRatios(page: BrowserPage, layout: PageLayout): Promise<Map<number, number>> {
  const shoot = async (css: string, strokes: boolean): Promise<PNG> => {
    await page.evaluate(([text, isStroked]) => {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
      const roots: (Document | ShadowRoot)[] = [document];
      for (const root of roots) {
        root.adoptedStyleSheets = [sheet];
        for (const element of root.querySelectorAll<HTMLElement>('*')) {
          if (element.shadowRoot) roots.push(element.shadowRoot);
          // The thinnest stem then covers whole pixels; what is sheer would be laid on twice.
          if (isStroked) element.style.setProperty('-webkit-text-stroke', /[/,] ?0?\.\d+\)$/.test(getComputedStyle(element).color) ? '0px' : '1px', 'important');
        }
      }
    }, [css, strokes] as const);
    return PNG.sync.read(await page.screenshot({ animations: 'disabled', caret: 'hide' }));
  };
  const still = '*, ::before, ::after { transition: none !important; animation: none !important; text-shadow: none !important; text-decoration: none !important; caret-color: transparent !important }';
  const bare = await shoot(`${still} *, ::before, ::after, ::placeholder { -webkit-text-fill-color: transparent !important } ::marker, select { color: transparent !important }`, false);
  const full = await shoot(still, true);
  const ratios = new Map<number, number>();
  for (const [number, list] of layout.lines) {
    // A letter or two has too few whole pixels to tell its colour by.
    if (list[2] < NARROWEST) continue;
    const ratio = sharesPlace(layout, number, list) ? null : ratioIn(bare, full, list);
    if (ratio !== null) ratios.set(number, ratio);
  }
  return ratios;
}

const NARROWEST = 16;

/** Whether lines of another text lie over some of these, so that pixels do not tell whose they are. */
function sharesPlace({ lines }: PageLayout, number: number, list: readonly number[]): boolean {
  for (const [other, rects] of lines) {
    if (other === number) continue;
    for (let k = 0; k + 3 < rects.length; k += 4) {
      for (let i = 0; i + 3 < list.length; i += 4) {
        if (list[i] + 1 < rects[k] + rects[k + 2] && rects[k] + 1 < list[i] + list[i + 2] && list[i + 1] + list[i + 3] * 0.12 < rects[k + 1] + rects[k + 3] * 0.88 && rects[k + 1] + rects[k + 3] * 0.12 < list[i + 1] + list[i + 3] * 0.88) return true;
      }
    }
  }
  return false;
}

function ratioIn(bare: PNG, full: PNG, list: readonly number[]): number | null {
  let most = 24;
  let ink: Color | null = null;
  const grounds: Color[] = [];
  const seen = new Set<number>();
  for (let i = 0; i + 3 < list.length; i += 4) {
    // Glyphs stand in the middle of their line; what is at its ends belongs to neighbours.
    const inset = Math.min(1, list[i + 2] * 0.04);
    const [left, top, right, bottom] = [list[i] + inset, list[i + 1] + list[i + 3] * 0.12, list[i] + list[i + 2] - inset, list[i + 1] + list[i + 3] * 0.88].map((value) => Math.round(value * SHOT_SCALE));
    for (let y = Math.max(0, top); y < Math.min(bare.height, bottom); y += 1) {
      for (let x = Math.max(0, left); x < Math.min(bare.width, right); x += 1) {
        const at = (y * bare.width + x) * 4;
        const difference = Math.abs(bare.data[at] - full.data[at]) + Math.abs(bare.data[at + 1] - full.data[at + 1]) + Math.abs(bare.data[at + 2] - full.data[at + 2]);
        if (difference > most) {
          most = difference;
          ink = colorAt(full, at);
        }
        const packed = (bare.data[at] << 16) | (bare.data[at + 1] << 8) | bare.data[at + 2];
        if (!seen.has(packed)) {
          seen.add(packed);
          grounds.push(colorAt(bare, at));
        }
      }
    }
  }
  return ink && grounds.length > 0 ? Math.min(...grounds.map((ground) => contrastRatio(ink as Color, ground))) : null;
}

function colorAt({ data }: PNG, at: number): Color {
  return { space: 'legacy', channels: [data[at] / 255, data[at + 1] / 255, data[at + 2] / 255], alpha: 1 };
}
