/** Order of declarations in a rule: what is seen first, colours before measures, groups before their sides. */
const PROPERTY_ORDER = [
  'display', 'visibility', 'opacity', 'color', 'background-color', 'background-image', 'fill', 'stroke', 'accent-color', 'caret-color', 'scrollbar-color', 'scrollbar-width',
  'border-color', 'border-width', 'border-style', 'border-top-color', 'border-right-color', 'border-bottom-color', 'border-left-color',
  'border-top-width', 'border-right-width', 'border-bottom-width', 'border-left-width', 'border-top-style', 'border-right-style', 'border-bottom-style', 'border-left-style',
  'border-radius', 'outline-color', 'outline-width', 'outline-style', 'outline-offset', 'box-shadow', 'text-shadow',
  'text-decoration-line', 'text-decoration-color', 'text-decoration-style', 'text-decoration-thickness', 'text-underline-offset',
  'font-family', 'font-size', 'font-weight', 'line-height', 'letter-spacing', 'text-transform', 'padding', 'width', 'max-width',
];

/** Place of a property in a rule; unknown ones come last. */
export function propertyRank(property: string): number {
  const rank = PROPERTY_ORDER.indexOf(property);
  return rank === -1 ? PROPERTY_ORDER.length : rank;
}
