import type { ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { isInTopLayer } from '../selectors/element-states.js';
import { boxOf, type PageLayout, type Rect } from '../resolve/page-layout.js';

/** What paints: an element, or a positioned pseudo-element of one. */
export interface Painter {
  readonly element: ElementNode;
  readonly pseudo: string;
  /** Boxes it paints, several where it is broken over lines; empty for the canvas, which is everywhere. */
  readonly boxes: readonly Rect[];
  /** What of it is cut off by boxes that clip; `null` for nothing. */
  readonly clip: Rect | null;
}

/** The boxes of a page in the order they are painted, back to front. */
export interface PaintingOrder {
  readonly painters: readonly Painter[];
  /** How many painters come before the text of an element, by running number. */
  readonly textAt: ReadonlyMap<number, number>;
  /** Place of an element's own box among the painters. */
  readonly boxAt: ReadonlyMap<number, number>;
}

interface Layered {
  readonly element: ElementNode;
  readonly pseudo: string;
  readonly z: number;
  readonly isContext: boolean;
}

/** Those of a stacking context that come under and over its flow. */
interface Layers {
  readonly layered: Layered[];
}

/** In-flow descendants by the phase they are painted in. */
interface Flow {
  readonly blocks: ElementNode[];
  readonly floats: ElementNode[];
  readonly inlines: { readonly element: ElementNode; readonly isAtomic: boolean; readonly hasBox: boolean }[];
}

/**
 * Puts the boxes of a page in painting order, as stacking contexts make it.
 * Source: CSS 2.2 Appendix E; Flexbox 1 §5.4 and Grid 2 §6.4 for items, CSS Color 4 §3.2, CSS Positioned Layout 4 §5 for the top layer, Transforms 1 §2, Filter Effects 1 §5 and Compositing 1 §3 for what makes a context.
 */
export function paintingOrderOf(view: StyleView, layout: PageLayout): PaintingOrder {
  const { document } = view.page;
  const painters: Painter[] = [];
  const textAt = new Map<number, number>();
  const boxAt = new Map<number, number>();
  const children = childrenOf(document.elements);
  const clips = clipsOf(view, layout, document.elements);
  const topLayer: ElementNode[] = [];
  const paintBox = (element: ElementNode): void => {
    const list = layout.fragments.get(element.number);
    const box = boxOf(layout, element.number);
    boxAt.set(element.number, painters.length);
    if (list) painters.push({ element, pseudo: '', boxes: toRects(list), clip: clips.get(element) ?? null });
    else if (box)
      painters.push({
        element,
        pseudo: '',
        boxes: [withoutCaption(view, layout, element, children.get(element) ?? [], box)],
        clip: clips.get(element) ?? null,
      });
    // The text follows its own box, unless a later phase says where it stands.
    textAt.set(element.number, painters.length);
  };
  const paintPseudo = (element: ElementNode, pseudo: string): void => {
    const list = layout.pseudoBoxes.get(`${element.number}:${pseudo}`);
    if (list) painters.push({ element, pseudo, boxes: toRects(list), clip: insideClip(view, layout, element, clips) });
  };
  const collect = (element: ElementNode, flow: Flow, layers: Layers): void => {
    const style = view.style(element);
    const isItemParent = /(?:^|-)(?:flex|grid|box)$/.test(text(style, 'display'));
    for (const pseudo of ['before', 'after'])
      if (layout.pseudoBoxes.has(`${element.number}:${pseudo}`))
        layers.layered.push(layeredOf(view.style(element, pseudo), element, pseudo, false));
    for (const child of children.get(element) ?? []) {
      const own = view.style(child);
      const display = text(own, 'display');
      if (display === 'none') continue;
      if (isInTopLayer(child)) {
        topLayer.push(child);
        continue;
      }
      const layered = layeredOf(own, child, '', isItemParent);
      if (text(own, 'position') !== 'static' || layered.isContext) {
        layers.layered.push(layered);
      } else if (!isItemParent && text(own, 'float') !== 'none') {
        flow.floats.push(child);
      } else if (isItemParent || /^inline-|^-webkit-inline/.test(display)) {
        flow.inlines.push({ element: child, isAtomic: true, hasBox: true });
      } else if (display === 'inline' || display === 'contents' || display.startsWith('ruby')) {
        flow.inlines.push({ element: child, isAtomic: false, hasBox: display !== 'contents' });
        collect(child, flow, layers);
      } else {
        flow.blocks.push(child);
        flow.inlines.push({ element: child, isAtomic: false, hasBox: false });
        collect(child, flow, layers);
      }
    }
  };
  /** A box with its flow, in one piece; what is layered goes to the context around it. */
  const paintAtomic = (element: ElementNode, layers: Layers, beforeFlow: () => void = () => undefined): void => {
    paintBox(element);
    const flow: Flow = { blocks: [], floats: [], inlines: [] };
    collect(element, flow, layers);
    beforeFlow();
    flow.blocks.forEach(paintBox);
    for (const float of flow.floats) paintAtomic(float, layers);
    textAt.set(element.number, painters.length);
    for (const { element: inline, isAtomic, hasBox } of flow.inlines) {
      if (isAtomic) paintAtomic(inline, layers);
      else if (hasBox) paintBox(inline);
      else textAt.set(inline.number, painters.length);
    }
  };
  const paintContext = (element: ElementNode): void => {
    const layers: Layers = { layered: [] };
    const paintLayer = ({ element: layer, pseudo, isContext }: Layered): void => {
      if (pseudo !== '') paintPseudo(layer, pseudo);
      else if (isContext) paintContext(layer);
      else paintAtomic(layer, layers);
    };
    paintAtomic(element, layers, () => {
      const under = layers.layered.filter(({ z }) => z < 0).sort((a, b) => a.z - b.z);
      layers.layered.splice(0, layers.layered.length, ...layers.layered.filter(({ z }) => z >= 0));
      under.forEach(paintLayer);
    });
    // What is layered inside a layered box without a context of its own is found while that is painted.
    const over: Layered[] = [];
    for (const layer of layers.layered) {
      if (layer.z > 0) over.push(layer);
      else paintLayer(layer);
    }
    for (const layer of over.sort((a, b) => a.z - b.z)) paintLayer(layer);
  };
  paintContext(document.rootElement);
  // Those inside of one come after it, as they are found.
  for (const element of topLayer) {
    painters.push({
      element,
      pseudo: 'backdrop',
      boxes: [{ left: 0, top: 0, width: layout.width, height: layout.height }],
      clip: null,
    });
    paintContext(element);
  }
  return { painters, textAt, boxAt };
}

/** A table paints its grid, not its caption, which stands in the same box. Source: CSS 2.2 §17.4. */
function withoutCaption(
  view: StyleView,
  layout: PageLayout,
  element: ElementNode,
  children: readonly ElementNode[],
  box: Rect,
): Rect {
  if (!text(view.style(element), 'display').endsWith('table')) return box;
  const caption = children.find((child) => text(view.style(child), 'display') === 'table-caption');
  const own = caption && boxOf(layout, caption.number);
  if (!own) return box;
  return own.top > box.top + box.height / 2
    ? { ...box, height: own.top - box.top }
    : { ...box, top: own.top + own.height, height: box.top + box.height - own.top - own.height };
}

function layeredOf(style: ElementStyle, element: ElementNode, pseudo: string, isItem: boolean): Layered {
  const position = text(style, 'position');
  const index = text(style, 'z-index');
  const takesIndex = position !== 'static' || isItem;
  const z = takesIndex && index !== 'auto' ? Number.parseInt(index, 10) || 0 : 0;
  const isContext =
    (takesIndex && index !== 'auto') ||
    position === 'fixed' ||
    position === 'sticky' ||
    Number(text(style, 'opacity')) < 1 ||
    [
      'transform',
      'filter',
      'backdrop-filter',
      'clip-path',
      'mask-image',
      'rotate',
      'scale',
      'translate',
      'perspective',
    ].some((property) => !/^(none|)$/.test(text(style, property))) ||
    !/^(normal|)$/.test(text(style, 'mix-blend-mode')) ||
    text(style, 'isolation') === 'isolate' ||
    /\b(?:transform|opacity|filter|position|perspective)\b/.test(text(style, 'will-change'));
  return { element, pseudo, z, isContext };
}

/** Children in the flat tree, in order. */
function childrenOf(elements: readonly ElementNode[]): Map<ElementNode, ElementNode[]> {
  const children = new Map<ElementNode, ElementNode[]>();
  for (const element of elements) {
    const parent = element.flatParent;
    if (!parent) continue;
    const list = children.get(parent);
    if (list) list.push(element);
    else children.set(parent, [element]);
  }
  return children;
}

/** What of each element is cut off, by the boxes around it that clip. Source: CSS Overflow 3 §3; a box positioned past a clipping one is not cut by it. */
function clipsOf(view: StyleView, layout: PageLayout, elements: readonly ElementNode[]): Map<ElementNode, Rect | null> {
  const clips = new Map<ElementNode, Rect | null>();
  const clipOf = (element: ElementNode): Rect | null => {
    const known = clips.get(element);
    if (known !== undefined) return known;
    const position = text(view.style(element), 'position');
    let holder = element.flatParent;
    if (position === 'fixed') holder = null;
    else if (position === 'absolute')
      while (holder && text(view.style(holder), 'position') === 'static') holder = holder.flatParent;
    const clip = holder ? insideOf(holder) : null;
    clips.set(element, clip);
    return clip;
  };
  const insideOf = (element: ElementNode): Rect | null => {
    const outer = clipOf(element);
    const style = view.style(element);
    const isClipping =
      element.flatParent !== null &&
      element.localName !== 'body' &&
      [text(style, 'overflow-x'), text(style, 'overflow-y')].some(
        (overflow) => overflow !== 'visible' && overflow !== '',
      );
    const box = isClipping ? boxOf(layout, element.number) : null;
    return box ? (outer ? common(outer, box) : box) : outer;
  };
  for (const element of elements) clipOf(element);
  return clips;
}

function insideClip(
  view: StyleView,
  layout: PageLayout,
  element: ElementNode,
  clips: ReadonlyMap<ElementNode, Rect | null>,
): Rect | null {
  const outer = clips.get(element) ?? null;
  const style = view.style(element);
  const box = [text(style, 'overflow-x'), text(style, 'overflow-y')].some(
    (overflow) => overflow !== 'visible' && overflow !== '',
  )
    ? boxOf(layout, element.number)
    : null;
  return box ? (outer ? common(outer, box) : box) : outer;
}

export function common(a: Rect, b: Rect): Rect {
  const left = Math.max(a.left, b.left);
  const top = Math.max(a.top, b.top);
  return {
    left,
    top,
    width: Math.max(0, Math.min(a.left + a.width, b.left + b.width) - left),
    height: Math.max(0, Math.min(a.top + a.height, b.top + b.height) - top),
  };
}

function toRects(list: readonly number[]): Rect[] {
  return Array.from({ length: Math.floor(list.length / 4) }, (_, i) => ({
    left: list[i * 4],
    top: list[i * 4 + 1],
    width: list[i * 4 + 2],
    height: list[i * 4 + 3],
  }));
}

function text(style: ElementStyle, property: string): string {
  const value = style.computed(property);
  return value.kind === 'text' ? value.text : '';
}
