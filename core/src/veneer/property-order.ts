/** Order of declarations in a rule: what is seen first, colours before measures, groups before their sides. */
const PROPERTY_ORDER = [
  'display',
  'visibility',
  'opacity',
  'color',
  'background-color',
  'background-image',
  'fill',
  'stroke',
  'accent-color',
  'caret-color',
  'scrollbar-color',
  'scrollbar-width',
  'border-color',
  'border-width',
  'border-style',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'border-top-width',
  'border-right-width',
  'border-bottom-width',
  'border-left-width',
  'border-top-style',
  'border-right-style',
  'border-bottom-style',
  'border-left-style',
  'border-radius',
  'outline-color',
  'outline-width',
  'outline-style',
  'outline-offset',
  'box-shadow',
  'text-shadow',
  'text-decoration-line',
  'text-decoration-color',
  'text-decoration-style',
  'text-decoration-thickness',
  'text-underline-offset',
  'font-family',
  'font-size',
  'font-weight',
  'line-height',
  'letter-spacing',
  'text-transform',
  'padding',
  'width',
  'max-width',
];

/** Place of a property in a rule: custom properties come first, unknown ones last. */
function propertyRank(property: string): number {
  if (property.startsWith('--')) return -1;
  const rank = PROPERTY_ORDER.indexOf(property);
  return rank === -1 ? PROPERTY_ORDER.length : rank;
}

/** Sides and corners, which stand after the group they belong to: before it, it would set them again. */
const SIDE = /^border-(?:(?:top|right|bottom|left)-(color|width|style)|(?:top|bottom)-(?:left|right)-(radius))$/;

/** What a property is ordered by where letters decide. */
function letterKey(property: string): string {
  const side = SIDE.exec(property);
  return side ? `border-${side[1] ?? side[2]} ${property}` : property;
}

/** Order of two properties in a rule: what is seen first, or by the letters of their names. */
export function compareProperties(a: string, b: string, isByLetters: boolean): number {
  const rank = isByLetters ? 0 : propertyRank(a) - propertyRank(b);
  const [one, other] = isByLetters ? [letterKey(a), letterKey(b)] : [a, b];
  return rank || (one < other ? -1 : one > other ? 1 : 0);
}
