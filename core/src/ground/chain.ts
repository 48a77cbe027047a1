import type { Message } from '../message/message.js';
import { PICTURE_UNDER } from './doubts.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';
import { WHITE, rgb8, type Color } from '../values/color.js';
import { colorsInImages } from '../values/serialize-paint.js';
import { compositeOver, contrastRatio } from '../color/contrast.js';

/** What stands behind and around one element's text, as painted. */
export interface Surroundings {
  /** Opaque colour under the text: the worst point, where a gradient lies under it. */
  readonly ground: Color;
  /** Opaque colour behind the element itself, next to its edge and ring; that of most of its sides. */
  readonly outside: Color;
  /** The same of each side where they differ. */
  readonly outsides: readonly Color[];
  /** The text's colour as painted, opacity and alpha worked in. */
  readonly text: Color;
  /** Contrast of text on ground, 1–21. */
  readonly ratio: number;
  /** What makes the figure uncertain; empty when nothing does. */
  readonly doubts: readonly Message[];
  /** What makes `outside` uncertain. */
  readonly outsideDoubts: readonly Message[];
  /** What it was found by: the boxes under the lines of the text, or the chain of ancestors where none were measured. */
  readonly by: 'boxes' | 'chain';
  /** Whether something opaque lies over all of the text. */
  readonly isHidden: boolean;
}

/**
 * Composites the fills of an element and its ancestors down to the canvas, opacity groups included.
 * Boxes are taken to lie inside their ancestors; pictures are not looked at, which is said in `doubts`.
 * Source: CSS Compositing 1 §5, CSS Color 4 §3.2 opacity.
 */
export function surroundingsByChain(view: StyleView, element: ElementNode, pseudo = ''): Surroundings {
  const chain = lineageOf(element).map((node) => view.style(node));
  if (pseudo !== '') chain.push(view.style(element, pseudo));
  const layers = chain.map((style) => {
    const image = style.computed('background-image');
    // A highlight has colours alone; what its style says of pictures and opacity is its element's. Source: CSS Pseudo 4 §3.4.
    const isHighlight = style.pseudo === 'selection';
    const imageText = image.kind === 'text' && !isHighlight ? image.text : 'none';
    const plain = style.color('background-color') ?? rgb8(0, 0, 0, 0);
    const stops = colorsInImages(imageText, {
      scheme: style.colorScheme(),
      currentColor: style.currentColor(),
      lengths: { em: () => style.fontSize(), rem: () => 16, viewport: view.environment },
    });
    const opacity = style.computed('opacity');
    return {
      fills: stops.length > 0 ? stops.map((stop) => compositeOver(stop, plain)) : [plain],
      opacity: opacity.kind === 'text' && !isHighlight ? Number(opacity.text) : 1,
      hasPicture: /url\(|image-set\(/i.test(imageText),
    };
  });
  const doubtsOver = (own: typeof layers): Message[] =>
    own.some((layer, i) => layer.hasPicture && !isCovered(own.slice(i + 1))) ? [PICTURE_UNDER] : [];
  const doubts = doubtsOver(layers);
  const outsideDoubts = doubtsOver(layers.slice(0, -1));
  const last = chain[chain.length - 1];
  const textColor = last.color('color') ?? rgb8(0, 0, 0);
  const gradientAt = layers.map(({ fills }) => fills.length > 1).lastIndexOf(true);
  const choices = gradientAt === -1 ? [0] : layers[gradientAt].fills.map((_, i) => i);
  let worst: Surroundings | null = null;
  for (const choice of choices) {
    const fillAt = (i: number): Color => layers[i].fills[i === gradientAt ? choice : 0];
    let outside: Color = WHITE;
    const paint = (i: number, behind: Color): { ground: Color; text: Color } => {
      if (i === layers.length) return { ground: behind, text: compositeOver(textColor, behind) };
      if (i === layers.length - 1) outside = behind;
      const inner = paint(i + 1, compositeOver(fillAt(i), behind));
      const { opacity } = layers[i];
      if (opacity >= 1) return inner;
      return { ground: compositeOver(inner.ground, behind, opacity), text: compositeOver(inner.text, behind, opacity) };
    };
    const { ground, text } = paint(0, WHITE);
    const ratio = contrastRatio(text, ground);
    if (!worst || ratio < worst.ratio)
      worst = {
        ground,
        outside,
        outsides: [outside],
        text,
        ratio,
        doubts,
        outsideDoubts,
        by: 'chain',
        isHidden: false,
      };
  }
  return worst as Surroundings;
}

/** Whether what lies under some layers is hidden by an opaque fill of one of them; an opacity group lets it through. */
function isCovered(
  above: readonly { readonly fills: readonly Color[]; readonly opacity: number; readonly hasPicture: boolean }[],
): boolean {
  for (const { fills, opacity, hasPicture } of above) {
    if (opacity < 1) return false;
    if (!hasPicture && fills.every(({ alpha }) => (alpha ?? 0) >= 1)) return true;
  }
  return false;
}
