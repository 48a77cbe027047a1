import { message } from '../message/message.js';
import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { surroundingsByChain } from '../ground/chain.js';
import type { Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { placesOf } from '../site/places.js';
import { settingsThatMatter } from '../site/environments.js';
import type { Setting } from '../conditions/environment.js';
import type { SiteModel } from '../site/site-model.js';
import type { Color } from '../values/color.js';
import type { Override, Spot } from '../veneer/override.js';
import { isScrollbarPart } from '../veneer/scrollbars.js';
import { MOST_SPOTS, type Finding } from './finding.js';

/** A thumb on its track, at its worst of the two states it has. */
interface ThumbReading {
  readonly ratio: number;
  readonly thumb: string;
  readonly track: string;
  readonly isOver: boolean;
}

/** What is said of the thumbs that an override tells on: the worst of all its places, at every width that matters. Source: WCAG 2.2, 1.4.11. */
export function thumbFindings(site: SiteModel, override: Override): Finding[] {
  if (!isScrollbarPart(override.pseudo)) return [];
  const ids = new Map([...site.pages].map(([id, page]) => [page, id]));
  const found: (ThumbReading & { readonly spot: Spot; readonly width: number })[] = [];
  const { settings } = settingsThatMatter(site, ['background-color', 'color'], override.widths);
  for (const setting of settings) {
    for (const { page, element } of placesOf(site, override)) {
      const reading = thumbOn(page, element, setting);
      if (reading)
        found.push({ ...reading, spot: { pageId: ids.get(page) ?? 0, element: element.number }, width: setting.width });
    }
  }
  if (found.length === 0) return [];
  const worst = found.reduce((a, b) => (b.ratio < a.ratio ? b : a));
  const failing = new Map(
    found.filter(({ ratio }) => ratio < RATIOS.nonText).map(({ spot }) => [`${spot.pageId}/${spot.element}`, spot]),
  );
  const shown = (Math.floor(worst.ratio * 10) / 10).toFixed(1);
  return [
    {
      standing: failing.size > 0 ? 'fails' : 'holds',
      text: message('verdict.thumb', { ratio: shown, failing: failing.size }),
      basis: message('verdict.thumb-basis', {
        count: found.length,
        thumb: worst.thumb,
        track: worst.track,
        pointer: worst.isOver ? 'over' : 'away',
        width: worst.width,
      }),
      spots: [...failing.values()].slice(0, MOST_SPOTS),
    },
  ];
}

/** `null` where the page leaves the scrollbar to the browser. */
function thumbOn(page: Page, element: ElementNode, environment: Setting): ThumbReading | null {
  const rest = new StyleView(page, { environment });
  const over = new StyleView(page, { environment, pseudoStates: new Set(['hover']) });
  if (!rest.style(element, '-webkit-scrollbar').blocks.some(({ origin }) => origin === 'author')) return null;
  const fill = (view: StyleView, part: string): Color | null =>
    view.style(element, `-webkit-scrollbar${part}`).color('background-color');
  const { ground } = surroundingsByChain(rest, element);
  const under = [fill(rest, ''), fill(rest, '-track')].reduce<Color>(
    (below, color) => (color ? compositeOver(color, below) : below),
    ground,
  );
  const readings = [rest, over].flatMap((view): ThumbReading[] => {
    const thumb = fill(view, '-thumb');
    if (!thumb || (thumb.alpha ?? 0) === 0) return [];
    const painted = compositeOver(thumb, under);
    return [
      { ratio: contrastRatio(painted, under), thumb: hexOf(painted), track: hexOf(under), isOver: view === over },
    ];
  });
  return readings.length > 0 ? readings.reduce((a, b) => (b.ratio < a.ratio ? b : a)) : null;
}
