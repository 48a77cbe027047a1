/** A rectangle from the page's own corner, CSS px. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A box in flow among those of its parent, as measured on the page; lengths in CSS px. */
export interface Sibling {
  readonly element: Element;
  readonly box: Area;
  readonly marginTop: number;
  readonly marginBottom: number;
  /** Its computed `display`. */
  readonly display: string;
  /** Whether it is a block in the flow of blocks, whose margins may be shared. */
  readonly isBlock: boolean;
  /** Whether it lies where it does by order or place, not by what comes before it. */
  readonly isPlaced: boolean;
  /** Whether it may go undrawn: it lies far off, and nothing but its own box is known to depend on it. */
  readonly isFar: boolean;
}

/** What stands side by side: one block, or a line of several. */
interface Line {
  readonly siblings: readonly Sibling[];
  /** With the margins of what stands in it; so is the bottom. */
  readonly top: number;
  readonly bottom: number;
  /** Where its lowest box ends, without margins, which blocks may share with others. */
  readonly lowest: number;
}

/** Fewer would spare nothing, since one of them stays to hold the place of all. */
const LEAST = 3;
const INLINE = /^inline/;
const BLOCKS: ReadonlySet<string> = new Set(['block', 'flow-root', 'list-item', 'flex', 'grid']);
const FROM_START: ReadonlySet<string> = new Set(['normal', 'start', 'flex-start', 'stretch']);

/** How the first of several lines stands for all of them, as declarations; `next` is the line after them. */
type Stand = (lines: readonly Line[], next: Line | undefined) => string;

/**
 * Leaves whole lines of far boxes undrawn, one of them as high as all, so that what follows lies where it lay and
 * selectors count the same elements.
 * @param siblings boxes in flow in the order of the document, with no text beside those that are `isFar`.
 * @returns declarations by element; empty where the parent's layout leaves no way to do it truly.
 */
export function undrawnLines(parent: CSSStyleDeclaration, siblings: readonly Sibling[]): ReadonlyMap<Element, string> {
  const found = new Map<Element, string>();
  const stand = standIn(parent);
  if (!stand || siblings.some(({ isPlaced }) => isPlaced)) return found;
  const lines = linesOf(siblings);
  for (let from = 0; from < lines.length;) {
    const isInline = isOfText(lines[from]);
    let to = from;
    while (to < lines.length && lines[to].siblings.every(({ isFar }) => isFar) && isOfText(lines[to]) === isInline)
      to += 1;
    const run = lines.slice(from, to);
    const all = run.flatMap((line) => line.siblings);
    if (run.length > 1 && all.length >= LEAST) {
      all.slice(1).forEach(({ element }) => found.set(element, UNDRAWN));
      found.set(all[0].element, stand(run, lines.at(to)));
    }
    from = Math.max(to, from + 1);
  }
  return found;
}

/** What takes no part in the flow of others can go without a box. */
export const UNDRAWN = 'display: none !important';

const important = (declarations: Readonly<Record<string, string>>): string =>
  Object.entries(declarations)
    .map(([property, value]) => `${property}: ${value} !important`)
    .join('; ');

const HELD = important({
  'min-width': '0',
  'max-width': 'none',
  'min-height': '0',
  'max-height': 'none',
  'box-sizing': 'border-box',
  overflow: 'hidden',
});

/** Declarations that hold a box at a size, whatever its content was. */
export const sized = (width: string, height: string): string => `${important({ width, height })}; ${HELD}`;

/** Whether content is broken over columns of text. */
export const hasColumns = ({ columnCount, columnWidth }: CSSStyleDeclaration): boolean =>
  columnCount !== 'auto' || columnWidth !== 'auto';

function linesOf(siblings: readonly Sibling[]): readonly Line[] {
  const lines: { siblings: Sibling[]; top: number; bottom: number; lowest: number }[] = [];
  for (const sibling of siblings) {
    const last = lines.at(-1);
    const top = sibling.box.top - sibling.marginTop;
    const bottom = sibling.box.bottom + sibling.marginBottom;
    if (!last || isOfText(last) !== INLINE.test(sibling.display) || sibling.box.top >= last.lowest)
      lines.push({ siblings: [sibling], top, bottom, lowest: sibling.box.bottom });
    else {
      last.siblings.push(sibling);
      last.top = Math.min(last.top, top);
      last.bottom = Math.max(last.bottom, bottom);
      last.lowest = Math.max(last.lowest, sibling.box.bottom);
    }
  }
  return lines;
}

const isOfText = ({ siblings }: Line): boolean => INLINE.test(siblings[0].display);

function standIn(parent: CSSStyleDeclaration): Stand | null {
  const { display } = parent;
  if (parent.writingMode !== 'horizontal-tb') return null;
  if (display === 'table-row-group') return inTable;
  if (display === 'grid') return parent.gridAutoFlow === 'row' && FROM_START.has(parent.alignContent) ? inGrid : null;
  if (display === 'flex') {
    if (parent.flexDirection === 'column' && parent.flexWrap === 'nowrap')
      return FROM_START.has(parent.justifyContent) ? inColumn : null;
    return parent.flexDirection === 'row' && parent.flexWrap === 'wrap' && FROM_START.has(parent.alignContent)
      ? inWrappedRows
      : null;
  }
  const isFlow = BLOCKS.has(display) || display === 'inline-block' || display === 'table-cell';
  return isFlow && !hasColumns(parent) && !parent.whiteSpace.startsWith('pre') ? inFlow : null;
}

const px = (length: number): string => `${length}px`;
const spanOf = (lines: readonly Line[]): number => lines[lines.length - 1].bottom - lines[0].top;
/** As wide as all, for a parent that is only as wide as what stands in it. */
const breadthOf = (lines: readonly Line[]): number => {
  let [left, right] = [Infinity, -Infinity];
  for (const { siblings } of lines)
    for (const { box } of siblings) [left, right] = [Math.min(left, box.left), Math.max(right, box.right)];
  return right - left;
};
/** From the first box to the last, without their margins. */
const bodyOf = (lines: readonly Line[]): number => lines[lines.length - 1].lowest - lines[0].siblings[0].box.top;

const inFlow: Stand = (lines, next) => {
  if (!isOfText(lines[0])) return inColumn(lines, next);
  // A line is higher than its boxes: where one follows, its top says how far down it begins.
  const height = next && isOfText(next) ? next.top - lines[0].top : spanOf(lines);
  return `${important({ display: 'block', margin: '0' })}; ${sized(px(breadthOf(lines)), px(height))}`;
};

/** With the margin of the first above and of the last below. */
const inColumn: Stand = (lines) => {
  const margins = {
    'margin-top': px(lines[0].siblings[0].marginTop),
    'margin-bottom': px(lines[lines.length - 1].siblings[0].marginBottom),
  };
  return `${sized(px(breadthOf(lines)), px(bodyOf(lines)))}; ${important({ flex: 'none', ...margins })}`;
};

const inWrappedRows: Stand = (lines) =>
  `${sized('100%', px(spanOf(lines)))}; ${important({ flex: 'none', margin: '0', 'align-self': 'flex-start' })}`;

const inGrid: Stand = (lines) => {
  const place = { 'grid-column': '1 / -1', 'grid-row': `span ${lines.length}`, 'align-self': 'start' };
  return `${sized('auto', px(spanOf(lines)))}; ${important({ margin: '0', ...place })}`;
};

/** A row keeps its cells, by which its columns are as wide as they were. */
const inTable: Stand = (lines) => `height: ${px(bodyOf(lines))} !important`;
