import { message, type Message } from '../message/message.js';
import { overridesOfCell } from '../plan/plan-override.js';
import { rootedValue } from '../resolve/rooted-value.js';
import { compositeOver, contrastRatio } from '../color/contrast.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import { elementOf, lightSite, pageOf, type SiteModel } from '../site/site-model.js';
import { StyleView } from '../resolve/style-view.js';
import type { Color } from '../values/color.js';
import { overlayStrength, withOverlay } from '../veneer/composite.js';
import { colorOfValue, valueTold, type OverrideValue, type PlainValue } from '../veneer/override-value.js';
import { rolesInOrder } from '../veneer/own-role.js';
import { colorOfCss } from '../veneer/palette.js';
import type { MendIdea, ProofPlace } from './proof-finding.js';

/** Values that may let a text over a picture be read, and the places they are laid on. */
export interface PictureMend {
  readonly label: Message;
  readonly places: readonly ProofPlace[];
  readonly values: Readonly<Record<string, OverrideValue>>;
}

/** Strengths of an overlay that are tried, percent. */
const STRENGTHS = [30, 40, 50, 60, 70, 80, 90];
/** What is asked beyond the threshold: an overlay is reckoned from the darkest and lightest pixels, not from each. */
const MARGIN = 0.2;
/** Most that are tried of either way. */
const MOST_TRIED = 2;

/**
 * An overlay in a colour of the brand over the picture, no stronger than it must be, where the picture is a background; then a ground of
 * its own under the text.
 */
export function pictureMends(
  site: SiteModel,
  { ink, under }: Extract<MendIdea, { kind: 'over-picture' }>,
  places: readonly ProofPlace[],
  needed: number,
): PictureMend[] {
  const text = colorOfCss(ink);
  const pixels = under.flatMap((css) => colorOfCss(css) ?? []);
  if (!text || pixels.length === 0) return [];
  const grounds = groundsFor(site, text, needed);
  return [...overlays(site, places, text, pixels, grounds, needed), ...ownGrounds(site, places, text, grounds)];
}

interface Ground {
  readonly value: PlainValue;
  readonly color: Color;
}

function overlays(
  site: SiteModel,
  places: readonly ProofPlace[],
  text: Color,
  pixels: readonly Color[],
  grounds: readonly Ground[],
  needed: number,
): PictureMend[] {
  const owners = new Map<string, { readonly place: ProofPlace; readonly css: string }>();
  for (const place of places) {
    const owner = pictureOwner(site, place);
    if (!owner) return [];
    const { element, css } = owner;
    owners.set(`${place.pageId}:${element.number}`, {
      place: { ...place, element: element.number, pseudo: '', state: 'rest', property: 'background-image' },
      css,
    });
  }
  const [first] = owners.values();
  // One value is laid on all: pictures that differ are overlaid on the Bench, one by one.
  if (!first || [...owners.values()].some(({ css }) => css !== first.css)) return [];
  const { pageId, element } = first.place;
  const cell = { pageId, element, pseudo: '', state: 'rest', property: 'background-image' } as const;
  // The pixels have the overlay in them that lies there already.
  const lies = Math.max(0, ...overridesOfCell(site, cell).map(({ value }) => overlayStrength(value)));
  const strongEnough = ({ value, color }: Ground): { percent: number; ratio: number; value: PlainValue } | null => {
    for (const percent of STRENGTHS.filter((strength) => strength > lies)) {
      const added = (percent - lies) / (100 - lies);
      const ratio = Math.min(
        ...pixels.map((pixel) => {
          const ground = compositeOver(color, pixel, added);
          return contrastRatio(compositeOver(text, ground), ground);
        }),
      );
      if (ratio >= needed + MARGIN) return { percent, ratio, value };
    }
    return null;
  };
  return grounds
    .flatMap((ground) => strongEnough(ground) ?? [])
    .sort((a, b) => a.percent - b.percent)
    .slice(0, MOST_TRIED)
    .map(({ percent, ratio, value }) => ({
      label: message('proof.overlay', { value: valueTold(site, value), percent, ratio: cut(ratio) }),
      places: [...owners.values()].map(({ place }) => place),
      values: { 'background-image': withOverlay(first.css, value, percent) },
    }));
}

/** Grounds of their own for texts that no colour would let read where they stand. */
export function groundMends(
  site: SiteModel,
  ink: string,
  places: readonly ProofPlace[],
  needed: number,
): PictureMend[] {
  const text = colorOfCss(ink);
  return text ? ownGrounds(site, places, text, groundsFor(site, text, needed)) : [];
}

function groundsFor(site: SiteModel, text: Color, needed: number): Ground[] {
  return brandGrounds(site).filter(({ color }) => contrastRatio(compositeOver(text, color), color) >= needed);
}

function ownGrounds(
  site: SiteModel,
  places: readonly ProofPlace[],
  text: Color,
  grounds: readonly Ground[],
): PictureMend[] {
  return grounds.slice(0, MOST_TRIED).map(({ value, color }) => ({
    label: message('proof.own-ground', {
      value: valueTold(site, value),
      contrastRatio: cut(contrastRatio(compositeOver(text, color), color)),
    }),
    places: places.map((place) => ({ ...place, property: 'background-color' })),
    values: { 'background-color': value },
  }));
}

/** Ratios are cut, not rounded. */
function cut(ratio: number): string {
  return (Math.floor(ratio * 10 + 1e-9) / 10).toFixed(1);
}

/** Nearest element with a picture for its background, the place's own or one around it. */
function pictureOwner(
  site: SiteModel,
  { pageId, element, lighting, setting }: ProofPlace,
): { readonly element: ElementNode; readonly css: string } | null {
  const page = pageOf(lightSite(site, lighting), pageId);
  const view = new StyleView(page, { environment: setting });
  const start = elementOf(page, element);
  for (const node of [start, ...ancestorsOf(start)]) {
    const css = rootedValue(view.style(node), page, 'background-image');
    if (css.includes('url(')) return { element: node, css };
    if ((view.style(node).color('background-color')?.alpha ?? 0) === 1) return null;
  }
  return null;
}

/** Roles that are plain colours, in their order. */
function brandGrounds(site: SiteModel): Ground[] {
  return rolesInOrder(site.palette).flatMap((role) => {
    const value: PlainValue = { kind: 'role', role, shade: 0 };
    const color = colorOfValue(value, site.palette);
    return color ? [{ value, color }] : [];
  });
}
