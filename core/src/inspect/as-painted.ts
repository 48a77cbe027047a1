import { message, type Message } from '../message/message.js';
import { compositeOver } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { edgeOver, reachesUnderEdge } from '../ground/edge-over.js';
import { surroundingsOf } from '../ground/surroundings.js';
import type { StyleView } from '../resolve/style-view.js';

/** A colour as it reaches the eye: alpha and opacity worked in over what lies behind. */
export interface AsPainted {
  readonly hex: string;
  /** Opaque colour it was laid over; that of the worst point under a text. */
  readonly on: string;
  /** What makes it uncertain; empty when nothing does. */
  readonly doubts: readonly Message[];
}

/** What is painted beside the element's own fill rather than over it. */
const AROUND: ReadonlySet<string> = new Set(['background-color', 'outline-color']);

/**
 * One colour of an element as painted: text and what is drawn with it over its ground, an edge over its own fill, fill and ring over
 * what lies around.
 * Source: CSS Compositing 1 §5, CSS Color 4 §3.2.
 * @returns `null` for what is no colour, or wholly clear.
 */
export function asPainted(view: StyleView, element: ElementNode, pseudo: string, property: string): AsPainted | null {
  const style = view.style(element, pseudo);
  const color = style.color(property);
  if (!color || (color.alpha ?? 0) === 0) return null;
  const { text, ground, outside, doubts, outsideDoubts } = surroundingsOf(view, element, pseudo);
  if (property === 'color') return { hex: hexOf(text), on: hexOf(ground), doubts };
  const isEdge = property.startsWith('border-');
  const isOver = !isEdge && !AROUND.has(property);
  const behind = isOver ? ground : outside;
  const chain = [...lineageOf(element).map((node) => view.style(node)), ...(pseudo === '' ? [] : [style])];
  const opacities = chain.map((own) => Number(own.resolved('opacity')));
  const laid = isEdge ? edgeOver(style, color, behind) : compositeOver(color, behind);
  const shown = compositeOver(
    laid,
    behind,
    opacities.reduce((product, own) => product * own, 1),
  );
  const found = [...(isOver ? doubts : outsideDoubts)];
  if (isEdge && (color.alpha ?? 1) < 1 && reachesUnderEdge(style) && style.resolved('background-image') !== 'none')
    found.push(message('look.picture-or-gradient-lies'));
  // Exact where only the element itself is laid on in one piece: `behind` has the groups further out worked in already.
  if ((isOver ? opacities : opacities.slice(0, -1)).some((own) => own < 1))
    found.push(message('look.opacity-around-taken-as'));
  return { hex: hexOf(shown), on: hexOf(behind), doubts: found };
}
