import { longhandsOfProperty } from '../properties/grouped.js';

/** How a value is chosen. */
export type ValueKind = 'color' | 'length' | 'number' | 'keyword' | 'image' | 'shadow' | 'font' | 'text';

/** A property of a row that can be overridden. */
export interface RowProperty {
  readonly property: string;
  /** Pseudo-element it is set on instead of the target; for parts of the scrollbar. */
  readonly pseudo?: string;
  /** State of that pseudo-element. */
  readonly pseudoState?: 'hover';
  readonly words: string;
  readonly kind: ValueKind;
  /** For keywords: what can be chosen. */
  readonly keywords?: readonly string[];
}

/** Rows of the states grid, in their order. */
export const GRID_ROWS = [
  'text',
  'fill',
  'image',
  'edge',
  'radius',
  'underline',
  'ring',
  'shadow',
  'text-shadow',
  'icon',
  'caret',
  'accent',
  'opacity',
  'type',
  'box',
  'shown',
  'thumb',
  'thumb-over',
  'track',
  'bar',
  'scrollbar',
] as const;
export type GridRowName = (typeof GRID_ROWS)[number];

const LINE_STYLES = ['none', 'solid', 'dashed', 'dotted', 'double'] as const;
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = [
  ['top-left', 'top left'],
  ['top-right', 'top right'],
  ['bottom-right', 'bottom right'],
  ['bottom-left', 'bottom left'],
] as const;

/**
 * What each row lets a designer override; the first is what its cells show.
 * The names are those of CSS Color 4, Backgrounds 3, Text Decoration 4, UI 4, Fonts 4, Text 4, Box 4 and Scrollbars 1.
 */
export const ROW_PROPERTIES: Readonly<Record<GridRowName, readonly RowProperty[]>> = {
  text: [
    { property: 'color', words: 'colour', kind: 'color' },
    { property: '-webkit-text-fill-color', words: 'fill of the letters', kind: 'color' },
  ],
  fill: [{ property: 'background-color', words: 'colour', kind: 'color' }],
  image: [{ property: 'background-image', words: 'gradient or picture', kind: 'image' }],
  edge: [
    { property: 'border-color', words: 'colour', kind: 'color' },
    { property: 'border-width', words: 'width', kind: 'length' },
    { property: 'border-style', words: 'style', kind: 'keyword', keywords: LINE_STYLES },
    ...SIDES.flatMap((side): RowProperty[] => [
      { property: `border-${side}-color`, words: `${side} colour`, kind: 'color' },
      { property: `border-${side}-width`, words: `${side} width`, kind: 'length' },
      { property: `border-${side}-style`, words: `${side} style`, kind: 'keyword', keywords: LINE_STYLES },
    ]),
  ],
  radius: [
    { property: 'border-radius', words: 'all corners', kind: 'length' },
    ...CORNERS.map(([corner, words]): RowProperty => ({ property: `border-${corner}-radius`, words, kind: 'length' })),
  ],
  underline: [
    { property: 'text-decoration-color', words: 'colour', kind: 'color' },
    {
      property: 'text-decoration-line',
      words: 'line',
      kind: 'keyword',
      keywords: ['none', 'underline', 'line-through', 'overline'],
    },
    {
      property: 'text-decoration-style',
      words: 'style',
      kind: 'keyword',
      keywords: ['solid', 'dashed', 'dotted', 'double', 'wavy'],
    },
    { property: 'text-decoration-thickness', words: 'thickness', kind: 'length' },
    { property: 'text-underline-offset', words: 'offset', kind: 'length' },
  ],
  ring: [
    { property: 'outline-color', words: 'colour', kind: 'color' },
    { property: 'outline-width', words: 'width', kind: 'length' },
    { property: 'outline-style', words: 'style', kind: 'keyword', keywords: LINE_STYLES },
    { property: 'outline-offset', words: 'offset', kind: 'length' },
  ],
  shadow: [{ property: 'box-shadow', words: 'box shadow', kind: 'shadow' }],
  'text-shadow': [{ property: 'text-shadow', words: 'text shadow', kind: 'shadow' }],
  icon: [
    { property: 'fill', words: 'fill', kind: 'color' },
    { property: 'stroke', words: 'stroke', kind: 'color' },
  ],
  caret: [{ property: 'caret-color', words: 'caret', kind: 'color' }],
  accent: [{ property: 'accent-color', words: 'accent', kind: 'color' }],
  opacity: [{ property: 'opacity', words: 'opacity', kind: 'number' }],
  type: [
    { property: 'font-family', words: 'family', kind: 'font' },
    { property: 'font-size', words: 'size', kind: 'length' },
    { property: 'font-weight', words: 'weight', kind: 'keyword', keywords: ['400', '500', '600', '700', '800'] },
    { property: 'line-height', words: 'line height', kind: 'text' },
    { property: 'letter-spacing', words: 'letter spacing', kind: 'length' },
    {
      property: 'text-transform',
      words: 'case',
      kind: 'keyword',
      keywords: ['none', 'uppercase', 'lowercase', 'capitalize'],
    },
  ],
  box: [
    { property: 'padding', words: 'padding', kind: 'length' },
    ...SIDES.map((side): RowProperty => ({ property: `padding-${side}`, words: `${side} padding`, kind: 'length' })),
    { property: 'width', words: 'width', kind: 'length' },
    { property: 'max-width', words: 'greatest width', kind: 'length' },
  ],
  shown: [
    { property: 'display', words: 'shown or hidden', kind: 'keyword', keywords: ['none', 'revert'] },
    { property: 'visibility', words: 'visibility', kind: 'keyword', keywords: ['visible', 'hidden'] },
  ],
  thumb: [
    { property: 'background-color', pseudo: '-webkit-scrollbar-thumb', words: 'colour', kind: 'color' },
    { property: 'border-radius', pseudo: '-webkit-scrollbar-thumb', words: 'corners', kind: 'length' },
  ],
  'thumb-over': [
    {
      property: 'background-color',
      pseudo: '-webkit-scrollbar-thumb',
      pseudoState: 'hover',
      words: 'colour',
      kind: 'color',
    },
  ],
  track: [{ property: 'background-color', pseudo: '-webkit-scrollbar-track', words: 'colour', kind: 'color' }],
  bar: [
    { property: 'width', pseudo: '-webkit-scrollbar', words: 'width, standing', kind: 'length' },
    { property: 'height', pseudo: '-webkit-scrollbar', words: 'height, lying', kind: 'length' },
  ],
  scrollbar: [
    { property: 'scrollbar-color', words: 'thumb and track, by the standard', kind: 'text' },
    {
      property: 'scrollbar-width',
      words: 'width, by the standard',
      kind: 'keyword',
      keywords: ['auto', 'thin', 'none'],
    },
  ],
};

/** Every property an override may set. */
export const OVERRIDABLE: ReadonlySet<string> = new Set(
  GRID_ROWS.flatMap((row) => ROW_PROPERTIES[row].map(({ property }) => property)),
);

/** Whether a row is of a scrollbar, which looks the same in every state of its box. */
export function isScrollbarRow(row: GridRowName): boolean {
  return ['thumb', 'thumb-over', 'track', 'bar', 'scrollbar'].includes(row);
}

/** Row of the states grid on which a property is changed. */
export function rowOfProperty(property: string): GridRowName {
  const found = GRID_ROWS.find(
    (row) =>
      !isScrollbarRow(row) &&
      ROW_PROPERTIES[row].some(
        (entry) => entry.property === property || longhandsOfProperty(entry.property).includes(property),
      ),
  );
  return found ?? (property.startsWith('scrollbar') ? 'scrollbar' : 'text');
}

/** What a row's property is called: `edge`, `edge width`. */
export function propertyWords(property: string): string {
  const row = rowOfProperty(property);
  const entry = ROW_PROPERTIES[row].find((candidate) => candidate.property === property);
  const isLead = ROW_PROPERTIES[row][0].property === property;
  return isLead || !entry ? ROW_WORDS[row].toLowerCase() : `${ROW_WORDS[row].toLowerCase()} ${entry.words}`;
}

/** Words for rows. */
export const ROW_WORDS: Readonly<Record<GridRowName, string>> = {
  text: 'Text',
  fill: 'Fill',
  image: 'Gradient',
  edge: 'Edge',
  radius: 'Corners',
  underline: 'Decoration',
  ring: 'Ring',
  shadow: 'Shadow',
  'text-shadow': 'Text shadow',
  icon: 'Icon',
  caret: 'Caret',
  accent: 'Accent',
  opacity: 'Opacity',
  type: 'Type',
  box: 'Box',
  shown: 'Shown',
  thumb: 'Thumb',
  'thumb-over': 'Thumb, over',
  track: 'Track',
  bar: 'Bar width',
  scrollbar: 'Standard',
};

/** Words for states: "active" is pressed in CSS and the current page elsewhere, so it is always said. */
export const STATE_WORDS = {
  rest: 'Rest',
  filled: 'Filled',
  autofilled: 'Autofilled',
  checked: 'Checked',
  indeterminate: 'Indeterminate',
  open: 'Open',
  valid: 'Valid',
  invalid: 'Invalid',
  'read-only': 'Read-only',
  switched: 'Switched',
  locked: 'Locked',
  'switched-locked': 'Switched, locked',
  focused: 'Focused',
  current: 'Current page',
  'parent-invalid': 'Form invalid',
  visited: 'Visited',
  'parent-hover': 'Parent hovered',
  hover: 'Hover',
  focus: 'Focus',
  active: 'Pressed',
  disabled: 'Disabled',
} as const;
