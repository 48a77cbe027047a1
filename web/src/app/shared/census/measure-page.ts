import { NUMBER_ATTRIBUTE, type PageMeasure } from '@upper-veneer/core';
import { numberedElements } from '../frame/frame-document';
import { createGlyphInk } from '../frame/glyph-ink';
import { createSlices } from '../frame/slices';

/** Least distance between sampled points, CSS px. */
const LEAST_STEP = 14;
/** Points sampled on a page at most; asking for one takes the longer the more elements there are. */
const MOST_POINTS = 10_000;
/** Height to which a page is sampled, CSS px. */
const LONGEST = 30_000;

/**
 * Measures a framed page where it stands: boxes, inked text, and what lies under what.
 * @param check throws to stop; asked between slices.
 */
export async function measurePage(pageId: number, frame: Document, check: () => void): Promise<PageMeasure> {
  const view = frame.defaultView;
  if (!view) throw new Error('The frame is gone');
  const pause = createSlices(check);
  // What lets the pointer through is painted all the same.
  const seeThrough = frame.createElement('style');
  seeThrough.textContent = '*, ::before, ::after { pointer-events: auto !important; }';
  frame.head.append(seeThrough);
  const elements = numberedElements(frame);
  const boxes = new Float32Array(3 * (Math.max(-1, ...elements.keys()) + 1));
  const pseudoBoxes: Record<string, readonly [number, number]> = {};
  const glyphInk = createGlyphInk(frame);
  const canvas = frame.createElement('canvas').getContext('2d');
  const pinned = new Set<number>();
  for (const [number, element] of elements) {
    const box = element.getBoundingClientRect();
    if (box.width > 0 || box.height > 0) {
      const style = view.getComputedStyle(element);
      boxes.set([box.width, box.height, inkOf(element, style, glyphInk)], number * 3);
      if (style.position === 'fixed') for (const inside of [element, ...element.querySelectorAll(`[${NUMBER_ATTRIBUTE}]`)]) pinned.add(Number(inside.getAttribute(NUMBER_ATTRIBUTE)));
      for (const name of ['before', 'after'] as const) {
        const size = canvas ? pseudoSize(view.getComputedStyle(element, `::${name}`), canvas) : null;
        if (size) pseudoBoxes[`${number}:${name}`] = size;
      }
    }
    await pause();
  }
  const step = Math.max(LEAST_STEP, Math.round(Math.sqrt((view.innerWidth * Math.min(LONGEST, frame.documentElement.scrollHeight)) / MOST_POINTS)));
  return { pageId, boxes, pseudoBoxes, stacks: await sampleStacks(frame, view, step, pinned, pause), cell: step * step };
}

/** Area that an element's own text inks. */
function inkOf(element: Element, style: CSSStyleDeclaration, glyphInk: ReturnType<typeof createGlyphInk>): number {
  if (style.visibility !== 'visible') return 0;
  if (element instanceof (element.ownerDocument.defaultView ?? window).HTMLInputElement) {
    return element.value === '' || /^(?:checkbox|radio|range|color|hidden|file|image)$/.test(element.type) ? 0 : element.value.length * 0.5 * Number.parseFloat(style.fontSize) ** 2 * glyphInk({ style: style.fontStyle, weight: style.fontWeight, family: style.fontFamily });
  }
  let area = 0;
  for (const node of element.childNodes) {
    if (node.nodeType !== Node.TEXT_NODE || (node.nodeValue ?? '').trim() === '') continue;
    const range = element.ownerDocument.createRange();
    range.selectNodeContents(node);
    for (const { width, height } of range.getClientRects()) area += width * height;
  }
  return area === 0 ? 0 : area * glyphInk({ style: style.fontStyle, weight: style.fontWeight, family: style.fontFamily });
}

function pseudoSize(style: CSSStyleDeclaration, canvas: CanvasRenderingContext2D): readonly [number, number] | null {
  if (style.content === 'none' || style.content === 'normal' || style.display === 'none') return null;
  const width = Number.parseFloat(style.width);
  const height = Number.parseFloat(style.height);
  if (Number.isFinite(width) && Number.isFinite(height)) return [width, height];
  // Inline content has no used width: its text is measured.
  canvas.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
  const text = /^"(.*)"$/s.exec(style.content)?.[1] ?? '';
  return [canvas.measureText(text).width, Number.parseFloat(style.fontSize)];
}

/** What lies under each point of a grid, screen by screen, so that lengths in `vh` stay as they are. */
async function sampleStacks(frame: Document, view: Window, step: number, pinned: ReadonlySet<number>, pause: () => Promise<void>): Promise<Int32Array> {
  const stacks: number[] = [];
  const { innerWidth: width, innerHeight: height } = view;
  const end = Math.min(LONGEST, frame.documentElement.scrollHeight);
  const root = frame.scrollingElement ?? frame.documentElement;
  for (let top = 0; top < end; top += height) {
    root.scrollTop = top;
    // The last screen ends at the page's end, so it repeats a piece of the one before.
    const skipped = top - root.scrollTop;
    for (let y = skipped + step / 2; y < height; y += step) {
      for (let x = step / 2; x < width; x += step) {
        const from = stacks.length;
        pushStack(frame, x, y, stacks, top > 0 ? pinned : NOTHING);
        if (stacks.length > from) stacks.push(-1);
      }
      await pause();
    }
  }
  root.scrollTop = 0;
  return Int32Array.from(stacks);
}

const NOTHING: ReadonlySet<number> = new Set();

function pushStack(root: Document | ShadowRoot, x: number, y: number, into: number[], left: ReadonlySet<number>): void {
  for (const element of root.elementsFromPoint(x, y)) {
    // A shadow root answers with what lies outside it too.
    if (element.getRootNode() !== root) continue;
    if (element.shadowRoot) pushStack(element.shadowRoot, x, y, into, left);
    const number = element.getAttribute(NUMBER_ATTRIBUTE);
    if (number !== null && !left.has(Number(number))) into.push(Number(number));
  }
}
