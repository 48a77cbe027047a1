/** How a longhand's value is computed. */
export type ValueKind =
  | 'color'
  | 'length'
  | 'line-width'
  | 'font-size'
  | 'line-height'
  | 'font-weight'
  | 'number'
  | 'keyword'
  | 'image'
  | 'shadow'
  | 'radius'
  | 'text';

/** A longhand that the product resolves. */
export interface Longhand {
  readonly inherited: boolean;
  readonly initial: string;
  readonly kind: ValueKind;
}

const color = (initial: string, inherited = false): Longhand => ({ inherited, initial, kind: 'color' });
const of = (kind: ValueKind, initial: string, inherited = false): Longhand => ({ inherited, initial, kind });
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
const perSide = (make: (side: string) => readonly [string, Longhand][]): [string, Longhand][] =>
  SIDES.flatMap((side) => [...make(side)]);

/**
 * The longhands, with inheritance and initial value from their definition tables.
 * Source: CSS Color 4, Backgrounds 3, UI 4, Text Decoration 4, Fonts 4, Fill and Stroke 3, SVG 2, Text 4, Scrollbars 1, Lists 3, Box 4.
 */
export const LONGHANDS: ReadonlyMap<string, Longhand> = new Map<string, Longhand>([
  ['color', color('canvastext', true)],
  ['background-color', color('transparent')],
  ...perSide((side) => [
    [`border-${side}-color`, color('currentcolor')],
    [`border-${side}-style`, of('keyword', 'none')],
    [`border-${side}-width`, of('line-width', 'medium')],
    [`padding-${side}`, of('length', '0px')],
    [`margin-${side}`, of('length', '0px')],
    [side, of('length', 'auto')],
  ]),
  ...CORNERS.map((corner): [string, Longhand] => [`border-${corner}-radius`, of('radius', '0px')]),
  ['outline-color', color('auto')],
  ['outline-style', of('keyword', 'none')],
  ['outline-width', of('line-width', 'medium')],
  ['outline-offset', of('length', '0px')],
  ['text-decoration-color', color('currentcolor')],
  ['text-decoration-line', of('keyword', 'none')],
  ['text-decoration-style', of('keyword', 'solid')],
  ['text-decoration-thickness', of('length', 'auto')],
  ['text-underline-offset', of('length', 'auto', true)],
  ['text-emphasis-color', color('currentcolor', true)],
  ['text-emphasis-style', of('text', 'none', true)],
  ['-webkit-text-fill-color', color('currentcolor', true)],
  ['-webkit-text-stroke-color', color('currentcolor', true)],
  ['-webkit-text-stroke-width', of('line-width', '0px', true)],
  ['-webkit-tap-highlight-color', color('rgba(0, 0, 0, 0.18)', true)],
  ['column-rule-color', color('currentcolor')],
  ['column-rule-style', of('keyword', 'none')],
  ['column-rule-width', of('line-width', 'medium')],
  ['column-width', of('length', 'auto')],
  ['column-count', of('text', 'auto')],
  ['fill', color('black', true)],
  ['stroke', color('none', true)],
  ['fill-opacity', of('number', '1', true)],
  ['stroke-opacity', of('number', '1', true)],
  ['stroke-width', of('length', '1px', true)],
  ['stop-color', color('black')],
  ['flood-color', color('black')],
  ['lighting-color', color('white')],
  ['caret-color', color('auto', true)],
  ['accent-color', color('auto', true)],
  ['scrollbar-color', of('text', 'auto', true)],
  ['scrollbar-width', of('keyword', 'auto')],
  ['color-scheme', of('keyword', 'normal', true)],
  ['forced-color-adjust', of('keyword', 'auto', true)],
  ['opacity', of('number', '1')],
  ['visibility', of('keyword', 'visible', true)],
  ['display', of('keyword', 'inline')],
  ['position', of('keyword', 'static')],
  ['float', of('keyword', 'none')],
  ['content', of('text', 'normal')],
  ['font-family', of('text', 'Times New Roman', true)],
  ['font-size', of('font-size', 'medium', true)],
  ['font-weight', of('font-weight', '400', true)],
  ['font-style', of('keyword', 'normal', true)],
  ['font-stretch', of('keyword', 'normal', true)],
  ['font-variant', of('text', 'normal', true)],
  ['line-height', of('line-height', 'normal', true)],
  ['letter-spacing', of('length', 'normal', true)],
  ['word-spacing', of('length', '0px', true)],
  ['text-transform', of('keyword', 'none', true)],
  ['text-align', of('keyword', 'start', true)],
  ['text-indent', of('length', '0px', true)],
  ['text-shadow', of('shadow', 'none', true)],
  ['white-space', of('keyword', 'normal', true)],
  ['vertical-align', of('length', 'baseline')],
  ['list-style-type', of('text', 'disc', true)],
  ['list-style-position', of('keyword', 'outside', true)],
  ['list-style-image', of('image', 'none', true)],
  ['background-image', of('image', 'none')],
  ['background-position', of('text', '0% 0%')],
  ['background-size', of('text', 'auto')],
  ['background-repeat', of('text', 'repeat')],
  ['background-attachment', of('text', 'scroll')],
  ['background-origin', of('text', 'padding-box')],
  ['background-clip', of('text', 'border-box')],
  ['background-blend-mode', of('text', 'normal')],
  ['border-image-source', of('image', 'none')],
  ['border-collapse', of('keyword', 'separate', true)],
  ['border-spacing', of('text', '0px', true)],
  ['mask-image', of('image', 'none')],
  ['box-shadow', of('shadow', 'none')],
  ['filter', of('text', 'none')],
  ['backdrop-filter', of('text', 'none')],
  ['mix-blend-mode', of('keyword', 'normal')],
  ['width', of('length', 'auto')],
  ['height', of('length', 'auto')],
  ['min-width', of('length', 'auto')],
  ['min-height', of('length', 'auto')],
  ['max-width', of('length', 'none')],
  ['max-height', of('length', 'none')],
  ['box-sizing', of('keyword', 'content-box')],
  ['cursor', of('text', 'auto', true)],
  ['direction', of('keyword', 'ltr', true)],
  ['writing-mode', of('keyword', 'horizontal-tb', true)],
  ['overflow-x', of('keyword', 'visible')],
  ['overflow-y', of('keyword', 'visible')],
  ['appearance', of('keyword', 'none')],
  ['transform', of('text', 'none')],
  ['rotate', of('text', 'none')],
  ['scale', of('text', 'none')],
  ['translate', of('text', 'none')],
  ['perspective', of('text', 'none')],
  ['z-index', of('text', 'auto')],
  ['isolation', of('keyword', 'auto')],
  ['will-change', of('text', 'auto')],
  ['clip-path', of('text', 'none')],
  ['quotes', of('text', 'auto', true)],
]);

/**
 * Longhands a `:visited` rule may set.
 * Source: CSS Color 4 §"privacy" and HTML §"visited"; the list that Chromium keeps is common practice among browsers.
 */
export const VISITED_LONGHANDS: ReadonlySet<string> = new Set([
  'color',
  'background-color',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'outline-color',
  'column-rule-color',
  'text-decoration-color',
  'text-emphasis-color',
  'caret-color',
  'fill',
  'stroke',
  '-webkit-text-fill-color',
  '-webkit-text-stroke-color',
]);

/** Older and vendor names of longhands. Source: Compatibility Standard §3.1. */
const ALIASES: ReadonlyMap<string, string> = new Map([
  ['-webkit-box-shadow', 'box-shadow'],
  ['-webkit-opacity', 'opacity'],
  ['-webkit-background-clip', 'background-clip'],
  ['-webkit-background-size', 'background-size'],
  ['-webkit-background-origin', 'background-origin'],
  ['-webkit-border-top-left-radius', 'border-top-left-radius'],
  ['-webkit-border-top-right-radius', 'border-top-right-radius'],
  ['-webkit-border-bottom-left-radius', 'border-bottom-left-radius'],
  ['-webkit-border-bottom-right-radius', 'border-bottom-right-radius'],
  ['-webkit-border-radius', 'border-radius'],
  ['-webkit-appearance', 'appearance'],
  ['-webkit-filter', 'filter'],
  ['-webkit-box-sizing', 'box-sizing'],
  ['-webkit-transform', 'transform'],
  ['-webkit-mask-image', 'mask-image'],
  ['-webkit-text-emphasis-color', 'text-emphasis-color'],
  ['-webkit-column-rule-color', 'column-rule-color'],
  ['-webkit-column-rule', 'column-rule'],
  ['-webkit-columns', 'columns'],
  ['-webkit-column-count', 'column-count'],
  ['-webkit-column-width', 'column-width'],
  ['-webkit-clip-path', 'clip-path'],
  ['word-wrap', 'overflow-wrap'],
  ['-webkit-column-rule-style', 'column-rule-style'],
  ['-webkit-column-rule-width', 'column-rule-width'],
]);

/** Flow-relative names, in a horizontal left-to-right text. Source: CSS Logical 1 §2. */
const LOGICAL_SIDES: ReadonlyMap<string, string> = new Map([
  ['block-start', 'top'],
  ['block-end', 'bottom'],
  ['inline-start', 'left'],
  ['inline-end', 'right'],
]);
const LOGICAL_CORNERS: ReadonlyMap<string, string> = new Map([
  ['start-start', 'top-left'],
  ['start-end', 'top-right'],
  ['end-start', 'bottom-left'],
  ['end-end', 'bottom-right'],
]);
const LOGICAL_SIZES: ReadonlyMap<string, string> = new Map([
  ['inline-size', 'width'],
  ['block-size', 'height'],
]);

/** The name a declaration is filed under: aliases and flow-relative names resolved (horizontal, left to right). */
export function canonicalName(property: string): string {
  if (LONGHANDS.has(property)) return property;
  const alias = ALIASES.get(property);
  if (alias) return alias;
  const side = /^(border|padding|margin|inset)-(block-start|block-end|inline-start|inline-end)(-.+)?$/.exec(property);
  if (side) {
    const physical = LOGICAL_SIDES.get(side[2]) as string;
    return side[1] === 'inset' ? physical : `${side[1]}-${physical}${side[3] ?? ''}`;
  }
  const corner = /^border-(start-start|start-end|end-start|end-end)-radius$/.exec(property);
  if (corner) return `border-${LOGICAL_CORNERS.get(corner[1])}-radius`;
  const size = /^((?:min|max)-)?(inline-size|block-size)$/.exec(property);
  return size ? `${size[1] ?? ''}${LOGICAL_SIZES.get(size[2])}` : property;
}
