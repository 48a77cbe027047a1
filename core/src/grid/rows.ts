import { inner, message, type Message } from '../message/message.js';
import type { OverrideState } from '../veneer/override.js';
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
  readonly words: Message;
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
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;

/**
 * What each row lets a designer override; the first is what its cells show.
 * The names are those of CSS Color 4, Backgrounds 3, Text Decoration 4, UI 4, Fonts 4, Text 4, Box 4 and Scrollbars 1.
 */
export const ROW_PROPERTIES: Readonly<Record<GridRowName, readonly RowProperty[]>> = {
  text: [
    { property: 'color', words: message('property.colour'), kind: 'color' },
    { property: '-webkit-text-fill-color', words: message('property.fill-of-the-letters'), kind: 'color' },
  ],
  fill: [{ property: 'background-color', words: message('property.colour'), kind: 'color' }],
  image: [{ property: 'background-image', words: message('property.gradient-or-picture'), kind: 'image' }],
  edge: [
    { property: 'border-color', words: message('property.colour'), kind: 'color' },
    { property: 'border-width', words: message('property.width'), kind: 'length' },
    { property: 'border-style', words: message('property.style'), kind: 'keyword', keywords: LINE_STYLES },
    ...SIDES.flatMap((side): RowProperty[] => [
      { property: `border-${side}-color`, words: message(`property.${side}-colour`), kind: 'color' },
      { property: `border-${side}-width`, words: message(`property.${side}-width`), kind: 'length' },
      {
        property: `border-${side}-style`,
        words: message(`property.${side}-style`),
        kind: 'keyword',
        keywords: LINE_STYLES,
      },
    ]),
  ],
  radius: [
    { property: 'border-radius', words: message('property.all-corners'), kind: 'length' },
    ...CORNERS.map((corner): RowProperty => ({
      property: `border-${corner}-radius`,
      words: message(`property.corner.${corner}`),
      kind: 'length',
    })),
  ],
  underline: [
    { property: 'text-decoration-color', words: message('property.colour'), kind: 'color' },
    {
      property: 'text-decoration-line',
      words: message('property.line'),
      kind: 'keyword',
      keywords: ['none', 'underline', 'line-through', 'overline'],
    },
    {
      property: 'text-decoration-style',
      words: message('property.style'),
      kind: 'keyword',
      keywords: ['solid', 'dashed', 'dotted', 'double', 'wavy'],
    },
    { property: 'text-decoration-thickness', words: message('property.thickness'), kind: 'length' },
    { property: 'text-underline-offset', words: message('property.offset'), kind: 'length' },
  ],
  ring: [
    { property: 'outline-color', words: message('property.colour'), kind: 'color' },
    { property: 'outline-width', words: message('property.width'), kind: 'length' },
    { property: 'outline-style', words: message('property.style'), kind: 'keyword', keywords: LINE_STYLES },
    { property: 'outline-offset', words: message('property.offset'), kind: 'length' },
  ],
  shadow: [{ property: 'box-shadow', words: message('property.box-shadow'), kind: 'shadow' }],
  'text-shadow': [{ property: 'text-shadow', words: message('property.text-shadow'), kind: 'shadow' }],
  icon: [
    { property: 'fill', words: message('property.fill'), kind: 'color' },
    { property: 'stroke', words: message('property.stroke'), kind: 'color' },
  ],
  caret: [{ property: 'caret-color', words: message('property.caret'), kind: 'color' }],
  accent: [{ property: 'accent-color', words: message('property.accent'), kind: 'color' }],
  opacity: [{ property: 'opacity', words: message('property.opacity'), kind: 'number' }],
  type: [
    { property: 'font-family', words: message('property.family'), kind: 'font' },
    { property: 'font-size', words: message('property.size'), kind: 'length' },
    {
      property: 'font-weight',
      words: message('property.weight'),
      kind: 'keyword',
      keywords: ['400', '500', '600', '700', '800'],
    },
    { property: 'line-height', words: message('property.line-height'), kind: 'text' },
    { property: 'letter-spacing', words: message('property.letter-spacing'), kind: 'length' },
    {
      property: 'text-transform',
      words: message('property.case'),
      kind: 'keyword',
      keywords: ['none', 'uppercase', 'lowercase', 'capitalize'],
    },
  ],
  box: [
    { property: 'padding', words: message('property.padding'), kind: 'length' },
    ...SIDES.map((side): RowProperty => ({
      property: `padding-${side}`,
      words: message(`property.${side}-padding`),
      kind: 'length',
    })),
    { property: 'width', words: message('property.width'), kind: 'length' },
    { property: 'max-width', words: message('property.greatest-width'), kind: 'length' },
  ],
  shown: [
    { property: 'display', words: message('property.shown-or-hidden'), kind: 'keyword', keywords: ['none', 'revert'] },
    { property: 'visibility', words: message('property.visibility'), kind: 'keyword', keywords: ['visible', 'hidden'] },
  ],
  thumb: [
    {
      property: 'background-color',
      pseudo: '-webkit-scrollbar-thumb',
      words: message('property.colour'),
      kind: 'color',
    },
    {
      property: 'border-radius',
      pseudo: '-webkit-scrollbar-thumb',
      words: message('property.corners'),
      kind: 'length',
    },
  ],
  'thumb-over': [
    {
      property: 'background-color',
      pseudo: '-webkit-scrollbar-thumb',
      pseudoState: 'hover',
      words: message('property.colour'),
      kind: 'color',
    },
  ],
  track: [
    {
      property: 'background-color',
      pseudo: '-webkit-scrollbar-track',
      words: message('property.colour'),
      kind: 'color',
    },
  ],
  bar: [
    { property: 'width', pseudo: '-webkit-scrollbar', words: message('property.width-standing'), kind: 'length' },
    { property: 'height', pseudo: '-webkit-scrollbar', words: message('property.height-lying'), kind: 'length' },
  ],
  scrollbar: [
    { property: 'scrollbar-color', words: message('property.thumb-and-track-by-the-standard'), kind: 'text' },
    {
      property: 'scrollbar-width',
      words: message('property.width-by-the-standard'),
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
export function propertyTold(property: string): Message {
  const row = rowOfProperty(property);
  const entry = ROW_PROPERTIES[row].find((candidate) => candidate.property === property);
  const isLead = ROW_PROPERTIES[row][0].property === property;
  const told = inner(rowTold(row));
  return isLead || !entry ? told : message('property.of-row', { row: told, what: entry.words });
}

/** What a row is called. */
export function rowTold(row: GridRowName): Message {
  return message(`row.${row}`);
}

/** What a state is called: "active" is pressed in CSS and the current page elsewhere, so it is always said. */
export function stateTold(state: OverrideState): Message {
  return message(`state.${state}`);
}
