import { type Area, hasColumns, type Sibling, sized, UNDRAWN, undrawnLines } from './far-lines';
import { outerMargins } from './outer-margins';

/** Elements a cut may hold; what needs more is drawn whole. */
const MOST_ELEMENTS = 2_500;

export interface Surroundings {
  readonly document: Document;
  readonly view: Window;
  readonly target: Element;
  readonly area: Area;
}

export interface Kept {
  /** Elements written with their content. */
  readonly whole: ReadonlySet<Element>;
  /** Declarations by which the others, and what stands for several of them, are as large as they were. */
  readonly sizes: ReadonlyMap<Element, string>;
}

/** What stands side by side in one element, by how it lays them. */
type Laid = 'flow' | 'flex' | 'grid';

/** An element far from the target or near, as measured; its style is read as far as it is asked for. */
interface Seen {
  readonly element: Element;
  readonly box: Area;
  readonly style: CSSStyleDeclaration;
  readonly display: string;
  readonly isInFlow: boolean;
  readonly isFar: boolean;
  /** Whether it can be held at its size without its content. */
  readonly isHeld: boolean;
}

/**
 * Parts what a page shows around a target from what can be left out.
 * @param pause asked between two elements.
 * @returns `null` where it cannot be parted truly: shadow trees are near, or too much is.
 */
export async function keptAround(
  { document, view, target, area }: Surroundings,
  pause: () => Promise<void>,
): Promise<Kept | null> {
  const way = new Set<Element>([document.head]);
  for (let node: Element | null = target; node; node = node.parentElement) way.add(node);
  const whole = new Set<Element>();
  const sizes = new Map<Element, string>();
  /** What is kept with all that is in it; broken over columns, a box has no one size to be held at. */
  const entire = new Set<Element>([document.head]);
  const waiting: Element[] = [document.documentElement];
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    if (element.shadowRoot) return null;
    whole.add(element);
    if (whole.size > MOST_ELEMENTS) return null;
    const style = view.getComputedStyle(element);
    if (entire.has(element) || hasColumns(style)) {
      for (const child of element.children) entire.add(child);
      waiting.push(...element.children);
      continue;
    }
    const laid = laidBy(style.display);
    const stay: Element[] = [];
    const siblings: Sibling[] = [];
    for (const child of element.children) {
      await pause();
      const seen = see(child, view, (box) => !way.has(child) && !touches(box, area));
      const sibling = seen.isInFlow ? siblingOf(seen, laid, view) : null;
      if (sibling) siblings.push(sibling);
      if (!seen.isHeld) stay.push(child);
      const size = seen.isHeld ? heldSize(seen, sibling) : seen.display === 'table-cell' ? cellWidth(seen) : '';
      if (size !== '') sizes.set(child, size);
    }
    const undrawn = undrawnLines(style, siblings);
    for (const [child, declarations] of undrawn) sizes.set(child, declarations);
    if (undrawn.size > 0 && laid === 'grid')
      sizes.set(element, `${sizes.get(element) ?? ''}; grid-template-columns: ${style.gridTemplateColumns} !important`);
    waiting.push(...stay.filter((child) => undrawn.get(child) !== UNDRAWN));
  }
  return { whole, sizes };
}

const laidBy = (display: string): Laid =>
  display.endsWith('flex') ? 'flex' : display.endsWith('grid') ? 'grid' : 'flow';

function see(element: Element, view: Window, isFar: (box: Area) => boolean): Seen {
  const { left, top, right, bottom } = element.getBoundingClientRect();
  const { scrollX: x, scrollY: y } = view;
  const box = { left: left + x, top: top + y, right: right + x, bottom: bottom + y };
  const style = view.getComputedStyle(element);
  const { display, position } = style;
  const far = isFar(box);
  return {
    element,
    box,
    style,
    display,
    isInFlow: display !== 'none' && position !== 'absolute' && position !== 'fixed',
    isFar: far,
    isHeld: far && !mustStay(element, box, display),
  };
}

/**
 * Whether an element cannot be held at a size without its content: inline boxes, parts of tables, and what has no box but
 * content that may.
 */
function mustStay(element: Element, box: Area, display: string): boolean {
  if (display === 'none') return element.children.length === 0;
  return (
    display === 'inline' ||
    display === 'contents' ||
    (display.startsWith('table-') && display !== 'table-cell') ||
    box.left === box.right ||
    box.top === box.bottom
  );
}

const touches = (box: Area, area: Area): boolean =>
  box.left < area.right && box.right > area.left && box.top < area.bottom && box.bottom > area.top;

function siblingOf({ element, box, style, display, isFar, isHeld }: Seen, laid: Laid, view: Window): Sibling {
  const isFloating = laid === 'flow' && style.float !== 'none';
  const isRow = display === 'table-row';
  const isBlock = laid === 'flow' && !isFloating && !display.startsWith('inline') && !display.startsWith('table-');
  const { top, bottom } = isBlock
    ? outerMargins(element, view)
    : { top: parseFloat(style.marginTop), bottom: parseFloat(style.marginBottom) };
  return {
    element,
    box,
    marginTop: top,
    marginBottom: bottom,
    display,
    isBlock,
    isPlaced:
      isFloating ||
      (laid !== 'flow' && style.order !== '0') ||
      (laid === 'grid' && style.gridArea !== 'auto') ||
      (isRow && [...(element as HTMLTableRowElement).cells].some(({ rowSpan }) => rowSpan !== 1)),
    isFar: (isHeld || (isFar && isRow)) && !counts(style, display) && style.position !== 'sticky' && isApart(element),
  };
}

const UNNUMBERED: ReadonlySet<string> = new Set(['none', 'disc', 'circle', 'square']);

/** Whether those after an element are numbered by it; without a box it counts no more. */
const counts = (style: CSSStyleDeclaration, display: string): boolean =>
  style.counterIncrement !== 'none' || (display === 'list-item' && !UNNUMBERED.has(style.listStyleType));

/** Whether no text stands between an element and the next ones. */
const isApart = (element: Element): boolean => isBlank(element, 'previousSibling') && isBlank(element, 'nextSibling');

function isBlank(element: Element, side: 'previousSibling' | 'nextSibling'): boolean {
  for (let node = element[side]; node && !(node.nodeType === Node.ELEMENT_NODE); node = node[side])
    if (node.nodeType === Node.TEXT_NODE && node.nodeValue?.trim() !== '') return false;
  return true;
}

const cellWidth = ({ box }: Seen): string =>
  `width: ${box.right - box.left}px !important; box-sizing: border-box !important`;

function heldSize({ box, display, isInFlow }: Seen, sibling: Sibling | null): string {
  if (display === 'none') return '';
  if (!isInFlow) return UNDRAWN;
  const held = sized(`${box.right - box.left}px`, `${box.bottom - box.top}px`);
  if (display === 'table-cell') return held;
  // Without its content an inline box has no baseline to stand by.
  if (display.startsWith('inline-')) return `${held}; vertical-align: top !important`;
  const margins = sibling?.isBlock
    ? `; margin-top: ${sibling.marginTop}px !important; margin-bottom: ${sibling.marginBottom}px !important`
    : '';
  return `${held}; flex: none !important${margins}`;
}
