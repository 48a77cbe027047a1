import { inner, message, sentences, type Message } from '../message/message.js';
import { rowTold, type GridRowName } from '../grid/rows.js';
import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import type { Standing } from '../color/standing.js';
import type { ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { EDGE_SIDES } from '../properties/edges.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';
import { kindOf } from '../selectors/alike.js';
import type { SiteModel } from '../site/site-model.js';
import { WHITE } from '../values/color.js';
import type { OverrideState } from '../veneer/override.js';
import { ringOf } from '../verdict/legibility.js';
import { straysOf } from './strays.js';

type Surroundings = ReturnType<typeof surroundingsOf>;

/** ΔE2000 under which a state is as rest. */
const NO_CHANGE = 0.05;

/** Figures for one tile of the state strip. */
export interface StripTile {
  readonly state: OverrideState;
  /** Contrast of the text on its ground; `null` when there is no text. */
  readonly ratio: number | null;
  /** Ratio asked for: 4.5, or 3 for large text. */
  readonly wanted: number;
  /** Contrast of a control's edge with what lies around it, 3 is asked; `null` without an edge to judge. */
  readonly edgeRatio: number | null;
  /** Contrast of the focus ring with what lies around, 3 is asked; `null` without a ring. */
  readonly ringRatio: number | null;
  /** CSS of the text as painted, to be held against a picture under it; `null` where none lies there. */
  readonly overPicture: string | null;
  readonly standing: Standing;
  /** What is wrong, or how it differs from rest. */
  readonly note: Message;
  /** What the figures were computed from. */
  readonly basis: Message;
}

/** What a tile is made of. */
export interface TileQuestion {
  readonly site: SiteModel;
  readonly view: StyleView;
  readonly rest: StyleView;
  readonly element: ElementNode;
  readonly pseudo: string;
  readonly state: OverrideState;
}

/** All that a tile's standing and words are told from. */
interface TileFigures {
  readonly state: OverrideState;
  readonly surroundings: Surroundings;
  readonly wanted: number;
  readonly hasText: boolean;
  readonly strays: readonly GridRowName[];
  /** Largest ΔE2000 of text, ground and edge from rest. */
  readonly change: number;
  readonly edgeRatio: number | null;
  readonly ringRatio: number | null;
  readonly isField: boolean;
  /** Whether a state that should answer looks as at rest. */
  readonly isIndistinct: boolean;
}

/** One tile of the state strip: its figures, what is wrong with it, and what that was computed from. */
export function stripTile(question: TileQuestion): StripTile {
  const style = question.view.style(question.element, question.pseudo);
  const figures = tileFigures(question, style);
  const { state, surroundings, wanted, hasText, edgeRatio, ringRatio } = figures;
  return {
    state,
    ratio: hasText ? surroundings.ratio : null,
    wanted,
    edgeRatio,
    ringRatio,
    overPicture: hasText && surroundings.doubts.length > 0 ? hexOf(surroundings.text) : null,
    standing: standingOf(figures),
    note: noteOf(figures),
    basis: basisOf(figures, style),
  };
}

function tileFigures({ site, view, rest, element, pseudo, state }: TileQuestion, style: ElementStyle): TileFigures {
  const restStyle = rest.style(element, pseudo);
  const surroundings = surroundingsOf(view, element, pseudo);
  const atRest = surroundingsOf(rest, element, pseudo);
  const change = Math.max(
    deltaE2000(surroundings.text, atRest.text),
    deltaE2000(surroundings.ground, atRest.ground),
    edgeChange(style, restStyle),
  );
  const isControl = kindOf(element) !== 'other' && kindOf(element) !== 'heading' && pseudo === '';
  const hasEdge = EDGE_SIDES.some(({ width }) => style.resolved(width) !== '0px');
  const ringRatio = state === 'focus' || state === 'focused' ? (ringOf(style, surroundings)?.ratio ?? null) : null;
  return {
    state,
    surroundings,
    wanted: wantedRatio(style),
    hasText: showsText(style),
    strays: straysOf(site, view, style),
    change,
    edgeRatio: isControl ? lineRatio(style, surroundings, 'border-top-color', hasEdge) : null,
    ringRatio,
    isField: isControl && kindOf(element) === 'field',
    isIndistinct:
      (state === 'hover' || state === 'focus' || state === 'active') &&
      isControl &&
      change < NO_CHANGE &&
      ringRatio === null &&
      looksAlike(style, restStyle),
  };
}

function isUnderRatio({ hasText, surroundings, wanted }: TileFigures): boolean {
  return hasText && surroundings.ratio < wanted;
}

/** WCAG 2.2, 1.4.3: text of an inactive control has no contrast requirement. */
function fails(figures: TileFigures): boolean {
  return isUnderRatio(figures) && figures.state !== 'disabled';
}

/** What is too weak of a tile whose text can be read; `null` for nothing. */
function weakLine(figures: TileFigures): Message | null {
  const { strays, ringRatio, edgeRatio, isField, isIndistinct } = figures;
  if (fails(figures) || strays.length > 0) return null;
  if (ringRatio !== null && ringRatio < RATIOS.largeText)
    return message('look.ring-1-needs-3', { ringRatio: short(ringRatio) });
  if (edgeRatio !== null && isField && edgeRatio < RATIOS.largeText)
    return message('look.edge-1-needs-3', { edgeRatio: short(edgeRatio) });
  return isIndistinct ? message('look.indistinct-from-rest') : null;
}

function standingOf(figures: TileFigures): Standing {
  const { state, strays, surroundings, change } = figures;
  if (fails(figures)) return 'fails';
  const isHardlyTold = state !== 'rest' && change >= NO_CHANGE && change < SAME_TO_THE_EYE;
  return weakLine(figures) !== null || strays.length > 0 || surroundings.doubts.length > 0 || isHardlyTold
    ? 'look'
    : 'holds';
}

function noteOf(figures: TileFigures): Message {
  const { strays, surroundings, wanted, hasText } = figures;
  if (fails(figures)) return message('look.needs-1', { wanted });
  if (isUnderRatio(figures) && strays.length === 0) return message('look.no-contrast-asked-while');
  const weak = weakLine(figures);
  if (weak !== null) return weak;
  if (strays.length > 0) return message('look.stray', { strays: strays.map((row) => inner(rowTold(row))) });
  const [doubt] = surroundings.doubts;
  if (doubt) return inner(doubt);
  return fromRest(figures) ?? message(hasText ? 'look.text-on-fill' : 'look.no-text');
}

function fromRest({ state, change }: TileFigures): Message | null {
  if (state === 'rest') return null;
  return change < NO_CHANGE
    ? message('look.as-at-rest')
    : message('look.from-rest', { change: change.toFixed(change < 10 ? 1 : 0) });
}

function basisOf(
  { state, surroundings, wanted, change, edgeRatio, ringRatio }: TileFigures,
  style: ElementStyle,
): Message {
  const under = message(surroundings.by === 'boxes' ? 'look.worst-under-lines' : 'look.composited');
  return [
    message('look.text-wcag-2-2', {
      text: hexOf(surroundings.text),
      ground: hexOf(surroundings.ground),
      under,
      wanted,
      size: style.resolved('font-size'),
      weight: style.resolved('font-weight'),
    }),
    ...(state === 'rest' ? [] : [message('look.largest-e2000-text-fill', { change: change.toFixed(2) })]),
    ...(edgeRatio === null ? [] : [message('look.edge-1-with-what', { edgeRatio: edgeRatio.toFixed(2) })]),
    ...(ringRatio === null ? [] : [message('look.ring-1-worse-what', { ringRatio: ringRatio.toFixed(2) })]),
  ].reduce(sentences);
}

/** Contrast of an edge or ring with what lies around the element; `null` where there is none. Source: WCAG 2.2, 1.4.11. */
function lineRatio(style: ElementStyle, { outside }: Surroundings, property: string, isDrawn: boolean): number | null {
  const color = isDrawn ? style.color(property) : null;
  return color && (color.alpha ?? 0) > 0 ? contrastRatio(compositeOver(color, outside), outside) : null;
}

/** Whether nothing but colours could tell a state from rest, and they do not. */
function looksAlike(style: ElementStyle, restStyle: ElementStyle): boolean {
  return [
    'outline-style',
    'box-shadow',
    'text-decoration-line',
    'opacity',
    'background-image',
    'border-top-width',
  ].every((property) => style.resolved(property) === restStyle.resolved(property));
}

function short(ratio: number): string {
  return (Math.floor(ratio * 10) / 10).toFixed(1);
}

function edgeChange(style: ElementStyle, restStyle: ElementStyle): number {
  let change = 0;
  for (const { color, width } of EDGE_SIDES) {
    if (style.resolved(width) === '0px') continue;
    const now = style.color(color);
    const before = restStyle.color(color);
    if (now && before && ((now.alpha ?? 0) > 0 || (before.alpha ?? 0) > 0))
      change = Math.max(change, deltaE2000(compositeOver(now, WHITE), compositeOver(before, WHITE)));
  }
  return change;
}
