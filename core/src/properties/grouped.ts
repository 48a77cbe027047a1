const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;

/** Shorthands that set like longhands only, so that writing one resets nothing nobody meant. */
const GROUPED: ReadonlyMap<string, readonly string[]> = new Map([
  ['border-color', SIDES.map((side) => `border-${side}-color`)],
  ['border-width', SIDES.map((side) => `border-${side}-width`)],
  ['border-style', SIDES.map((side) => `border-${side}-style`)],
  ['border-radius', CORNERS.map((corner) => `border-${corner}-radius`)],
  ['padding', SIDES.map((side) => `padding-${side}`)],
]);

/** Longhands that a property an override may set stands for: itself, or those of its sides or corners. */
export function longhandsOfProperty(property: string): readonly string[] {
  return GROUPED.get(property) ?? [property];
}
