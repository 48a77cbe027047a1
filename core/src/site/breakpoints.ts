import type { Bound } from '../conditions/media-feature.js';
import { mediaFeaturesIn } from '../conditions/evaluate-media.js';
import type { SiteModel } from './site-model.js';

/** Whole numbers at which an answer to bounds of a feature can change: `>= 767.2` and `<= 767.98` begin to differ at 768, `<= 768` at 769. */
export function startsOf(bounds: readonly Bound[]): number[] {
  return bounds.flatMap(({ sign, value }) =>
    sign === '='
      ? [Math.ceil(value), Math.floor(value) + 1]
      : sign === '>=' || sign === '<'
        ? [Math.ceil(value)]
        : [Math.floor(value) + 1],
  );
}

/** Viewport widths in CSS px at which conditional rules of a site begin to hold or end, ascending. Relative units are taken from 16 px, as media queries do (Media Queries 4 §1.3). */
export function breakpointsOfSite(site: SiteModel): number[] {
  const starts = new Set<number>();
  for (const page of site.pages.values()) {
    for (const { conditions } of page.base.rules) {
      for (const condition of conditions) {
        if (condition.kind !== 'media') continue;
        for (const feature of featuresOf(condition.text))
          if (feature.kind === 'range' && isWidth(feature.name))
            startsOf(feature.bounds).forEach((start) => starts.add(start));
      }
    }
  }
  return [...starts].filter((start) => start > 0 && start < 10_000).sort((a, b) => a - b);
}

/** Whether a media feature asks for the width; that of the device is taken for the viewport's. */
export function isWidth(name: string): boolean {
  return name === 'width' || name === 'device-width';
}

/** One number of each stretch between starts: the first preferred one that lies in it, else its beginning. Ascending. */
export function oneOfEachStretch(starts: readonly number[], least: number, preferred: readonly number[]): number[] {
  const edges = [...new Set([least, ...starts.filter((start) => start > least && Number.isFinite(start))])].sort(
    (a, b) => a - b,
  );
  return edges.map(
    (from, i) => preferred.find((number) => number >= from && number < (edges[i + 1] ?? Infinity)) ?? from,
  );
}

const known = new Map<string, ReturnType<typeof mediaFeaturesIn>>();
const MOST_KNOWN = 2000;

/** Features of a media query list; the same few are asked for again and again. */
export function featuresOf(text: string): ReturnType<typeof mediaFeaturesIn> {
  let features = known.get(text);
  if (!features) {
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(text, (features = mediaFeaturesIn(text)));
  }
  return features;
}
