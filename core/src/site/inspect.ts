import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { compositeOver } from '../color/contrast.js';
import { brandStandingOf } from '../palette/brand-standing.js';
import { hexOf } from '../color/read-notation.js';
import { surroundingsOf } from '../color/backdrop.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { isLink } from '../selectors/element-states.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { OVERRIDE_STATES, REACHES, type OverrideState, type Reach } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { WHITE, type Color } from '../values/color.js';
import { plainName, shortName } from './describe-element.js';
import type { Standing } from './standing.js';
import { isExcepted } from './exceptions.js';
import { isHidden } from '../parts/propose-openers.js';
import type { Reachability } from '../parts/part.js';
import { reachabilityOf } from '../parts/propose-parts.js';
import { elementOf, pageOf, partOf, placesInReach, viewIn, type SiteModel } from './site-model.js';
import { showsText, wantedRatio } from './text-figures.js';

/** Rows of the states grid. */
export const GRID_ROWS = ['text', 'fill', 'edge'] as const;
export type GridRowName = (typeof GRID_ROWS)[number];

/** Row of the states grid on which a property is changed. */
export function rowOfProperty(property: string): GridRowName {
  return property.startsWith('background') ? 'fill' : property.startsWith('border') || property.startsWith('outline') ? 'edge' : 'text';
}

const EDGE_SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** One step of the lineage. */
export interface LineageStep {
  readonly element: number;
  readonly pseudo: string;
  readonly label: string;
  /** Hex of the fill it paints itself; `null` when it paints none. */
  readonly fill: string | null;
  /** Whether a gradient or picture paints over the fill. */
  readonly hasImage: boolean;
}

/** What one state paints in one row. */
export interface GridCell {
  readonly state: OverrideState;
  /** Longhands the cell stands for. */
  readonly longhands: readonly string[];
  /** As `getComputedStyle` gives it; `null` where nothing paints. */
  readonly css: string | null;
  readonly hex: string | null;
  /** Whether the state declares a value of its own; at rest, whether anything does. */
  readonly isOwn: boolean;
  /** Whether an override of ours decides it. */
  readonly isOverride: boolean;
  /** Whether a gradient or picture lies over the colour. */
  readonly isCovered: boolean;
}

/** Figures for one tile of the state strip. */
export interface StripTile {
  readonly state: OverrideState;
  /** Contrast of the text on its ground; `null` when there is no text. */
  readonly ratio: number | null;
  /** Ratio asked for: 4.5, or 3 for large text. */
  readonly wanted: number;
  readonly standing: Standing;
  /** What is wrong, or how it differs from rest. */
  readonly note: string;
  /** What the figures were computed from. */
  readonly basis: string;
}

export interface ReachCount {
  readonly reach: Reach;
  readonly elements: number;
  readonly pages: number;
  /** The elements, to be outlined: page id and running number. */
  readonly places: readonly { readonly pageId: number; readonly element: number }[];
}

/** All the Bench shows of one target. */
export interface Inspection {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly name: string;
  readonly selector: string;
  readonly partId: number | null;
  readonly lineage: readonly LineageStep[];
  /** Steps down from the target: generated pseudo-elements, then children. */
  readonly below: readonly LineageStep[];
  readonly states: readonly OverrideState[];
  readonly grid: readonly { readonly row: GridRowName; readonly cells: readonly GridCell[] }[];
  readonly strip: readonly StripTile[];
  readonly reach: readonly ReachCount[];
}

/** Inspects an element or pseudo-element at a viewport width in CSS px. */
export function inspect(site: SiteModel, pageId: number, number: number, pseudo: string, width: number): Inspection {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const rest = viewIn(page, element, 'rest', width);
  const states = statesOf(element);
  const views = new Map(states.map((state) => [state, viewIn(page, element, state, width)]));
  const restStyle = rest.style(element, pseudo);
  return {
    pageId,
    element: number,
    pseudo,
    name: plainName(element, pseudo),
    selector: pathName(element, pseudo),
    partId: partOf(site, page, element)?.id ?? null,
    lineage: [...lineageOf(element).map((node) => step(rest, node, '')), ...(pseudo === '' ? [] : [step(rest, element, pseudo)])],
    below: pseudo === '' ? [
      ...['before', 'after'].filter((name) => rest.generates(element, name)).map((name) => step(rest, element, name)),
      ...element.children.map((child) => step(rest, child, '')),
    ] : [],
    states,
    grid: GRID_ROWS.map((row) => ({ row, cells: states.map((state) => cellOf(row, state, views.get(state)?.style(element, pseudo) ?? restStyle, restStyle)) })),
    strip: states.map((state) => tileOf(site, views.get(state) ?? rest, rest, element, pseudo, state)),
    reach: REACHES.map((reach) => {
      const places = placesInReach(site, pageId, element, reach);
      const ids = new Map([...site.pages].map(([id, candidate]) => [candidate, id]));
      return {
        reach,
        elements: places.length,
        pages: new Set(places.map((place) => place.page)).size,
        places: places.map((place) => ({ pageId: ids.get(place.page) ?? 0, element: place.element.number })),
      };
    }),
  };
}

/** States that apply to an element: visited for links only. */
export function statesOf(element: ElementNode): OverrideState[] {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (isLink(node)) return [...OVERRIDE_STATES];
  return OVERRIDE_STATES.filter((state) => state !== 'visited');
}

/** Longhands of a row: for the edge, the sides that show, or all when none does. */
export function longhandsOf(row: GridRowName, style: ElementStyle): string[] {
  if (row === 'text') return ['color'];
  if (row === 'fill') return ['background-color'];
  const shown = EDGE_SIDES.filter((side) => style.resolved(`border-${side}-width`) !== '0px');
  return (shown.length > 0 ? shown : [...EDGE_SIDES]).map((side) => `border-${side}-color`);
}

function cellOf(row: GridRowName, state: OverrideState, style: ElementStyle, restStyle: ElementStyle): GridCell {
  const longhands = longhandsOf(row, style);
  const [first] = longhands;
  const color = style.color(first);
  const image = style.computed('background-image');
  const isCovered = row === 'fill' && image.kind === 'text' && image.text !== 'none';
  const paints = color !== null && (color.alpha ?? 0) > 0 && (row !== 'edge' || EDGE_SIDES.some((side) => style.resolved(`border-${side}-width`) !== '0px'));
  const winner = winnerOf(style, first);
  const restWinner = winnerOf(restStyle, first);
  return {
    state,
    longhands,
    css: paints || isCovered ? style.resolved(first) : null,
    hex: paints && color ? hexOf(color) : null,
    isOwn: state === 'rest' ? winner !== null : winner !== restWinner || style.resolved(first) !== restStyle.resolved(first),
    isOverride: winner !== null && winner.sheet.name === VENEER_SHEET_NAME && (state === 'rest' || winner !== restWinner),
    isCovered,
  };
}

/** Rule or browser default that decides a longhand, told apart by visited links too. */
function winnerOf(style: ElementStyle, property: string): { readonly sheet: { readonly name: string } } | null {
  return style.seen(property).ranked(property)[0]?.block.rule ?? null;
}

function step(view: StyleView, element: ElementNode, pseudo: string): LineageStep {
  const style = view.style(element, pseudo);
  const fill = style.color('background-color');
  const image = style.computed('background-image');
  return {
    element: element.number,
    pseudo,
    label: pseudo === '' ? shortName(element) : `::${pseudo}`,
    fill: fill && (fill.alpha ?? 0) > 0 ? hexOf(fill) : null,
    hasImage: image.kind === 'text' && image.text !== 'none',
  };
}

/** The target within its nearest named ancestors, for people. */
function pathName(element: ElementNode, pseudo: string): string {
  const names = [shortName(element, pseudo)];
  for (let node = element.parent; node && names.length < 3; node = node.parent) {
    if (node.id || node.classes.length > 0) names.unshift(shortName(node));
    if (node.id) break;
  }
  return names.join(' ');
}

function tileOf(site: SiteModel, view: StyleView, rest: StyleView, element: ElementNode, pseudo: string, state: OverrideState): StripTile {
  const style = view.style(element, pseudo);
  const surroundings = surroundingsOf(view, element, pseudo);
  const restSurroundings = surroundingsOf(rest, element, pseudo);
  const wanted = wantedRatio(style);
  const hasText = showsText(style);
  const { ratio } = surroundings;
  const strays = straysOf(site, view, style);
  const change = Math.max(deltaE2000(surroundings.text, restSurroundings.text), deltaE2000(surroundings.ground, restSurroundings.ground), edgeChange(style, rest.style(element, pseudo)));
  const fails = hasText && ratio < wanted;
  const fromRest = state === 'rest' ? '' : change < 0.05 ? 'as at rest' : `ΔE ${change.toFixed(change < 10 ? 1 : 0)} from rest`;
  const note = fails ? `needs ${wanted} : 1` : strays.length > 0 ? `stray ${strays.join(', ')}` : surroundings.doubts[0] ?? (fromRest || (hasText ? 'text on fill' : 'no text of its own'));
  return {
    state,
    ratio: hasText ? ratio : null,
    wanted,
    standing: fails ? 'fails' : strays.length > 0 || surroundings.doubts.length > 0 || (fromRest !== '' && change >= 0.05 && change < SAME_TO_THE_EYE) ? 'look' : 'holds',
    note,
    basis: `Text ${hexOf(surroundings.text)} on ${hexOf(surroundings.ground)}, composited over every ancestor's fill; WCAG 2.2 asks ${wanted} : 1 at ${style.resolved('font-size')}, weight ${style.resolved('font-weight')}.${fromRest ? ` Largest ΔE2000 of text, fill and edge from rest: ${change.toFixed(2)}.` : ''}`,
  };
}

function edgeChange(style: ElementStyle, restStyle: ElementStyle): number {
  let change = 0;
  for (const side of EDGE_SIDES) {
    if (style.resolved(`border-${side}-width`) === '0px') continue;
    const now = style.color(`border-${side}-color`);
    const before = restStyle.color(`border-${side}-color`);
    if (now && before && ((now.alpha ?? 0) > 0 || (before.alpha ?? 0) > 0)) change = Math.max(change, deltaE2000(compositeOver(now, WHITE), compositeOver(before, WHITE)));
  }
  return change;
}

/** Rows in which an element itself paints a colour that is no brand colour and no exception. */
function straysOf({ palette, exceptions }: SiteModel, view: StyleView, style: ElementStyle): GridRowName[] {
  if (palette.swatches.length === 0) return [];
  return GRID_ROWS.filter((row) => {
    if (row === 'text' && !showsText(style)) return false;
    const [first] = longhandsOf(row, style);
    const color = style.color(first);
    if (!color || (color.alpha ?? 0) === 0 || (row === 'edge' && style.resolved(first.replace(/color$/, 'width')) === '0px')) return false;
    return !isBrandColor(color, palette) && winnerOf(style, first)?.sheet.name !== VENEER_SHEET_NAME && !isExcepted(exceptions, view.page.document, style.element, color);
  });
}

/** Whether a colour is a swatch or a role's shade, to the eye; alpha does not matter. */
export function isBrandColor(color: Color, palette: Palette): boolean {
  return brandStandingOf(color, palette).kind === 'brand';
}

/** How much of a part on one page is matched to the brand. */
export interface PartProgress {
  readonly partId: number;
  /** Kinds of places painted: alike elements count once a property. */
  readonly places: number;
  readonly matched: number;
  /** Outermost elements of the part on this page. */
  readonly elements: readonly number[];
  /** How far CSS gets into its first element. */
  readonly reachability: Reachability;
  /** Whether its first element is hidden as the page stands. */
  readonly isHidden: boolean;
}

/** Progress of every part that a page holds, at rest. */
export function partProgress(site: SiteModel, pageId: number, width: number): PartProgress[] {
  const page: Page = pageOf(site, pageId);
  const view = viewIn(page, page.document.rootElement, 'rest', width);
  const byPart = new Map<number, { seen: Map<string, boolean>; elements: number[] }>();
  for (const element of page.document.elements) {
    const part = partOf(site, page, element);
    if (!part) continue;
    let entry = byPart.get(part.id);
    if (!entry) byPart.set(part.id, (entry = { seen: new Map(), elements: [] }));
    const parent = element.flatParent;
    if (!parent || partOf(site, page, parent)?.id !== part.id) entry.elements.push(element.number);
    const style = view.style(element);
    const strays = new Set(straysOf(site, view, style));
    for (const row of GRID_ROWS) {
      const cell = cellOf(row, 'rest', style, style);
      if (cell.hex === null || (row === 'text' && element.ownText.trim() === '')) continue;
      const key = `${shortName(element)}|${row}|${cell.hex}`;
      entry.seen.set(key, !strays.has(row));
    }
  }
  return [...byPart].map(([partId, { seen, elements }]) => ({ partId, places: seen.size, matched: [...seen.values()].filter(Boolean).length, elements, reachability: reachabilityOf(elementOf(page, elements[0])), isHidden: isHidden(view, elementOf(page, elements[0])) }));
}
