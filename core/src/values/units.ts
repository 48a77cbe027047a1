/** CSS px per absolute unit. Source: CSS Values 4 §6.2, https://www.w3.org/TR/css-values-4/#absolute-lengths */
const PX_PER_UNIT: ReadonlyMap<string, number> = new Map([
  ['px', 1],
  ['in', 96],
  ['pc', 16],
  ['pt', 96 / 72],
  ['cm', 96 / 2.54],
  ['mm', 96 / 25.4],
  ['q', 96 / 101.6],
]);

/**
 * Length in CSS px of an absolute dimension.
 * @param unit lower case.
 * @returns `null` for a relative or unknown unit.
 */
export function absoluteLengthInPx(value: number, unit: string): number | null {
  const factor = PX_PER_UNIT.get(unit);
  return factor === undefined ? null : value * factor;
}

/** Degrees per angle unit. Source: CSS Values 4 §7.1. */
const DEGREES_PER_UNIT: ReadonlyMap<string, number> = new Map([
  ['deg', 1],
  ['grad', 0.9],
  ['rad', 180 / Math.PI],
  ['turn', 360],
]);

/** Angle in degrees; `null` for an unknown unit. */
export function angleInDegrees(value: number, unit: string): number | null {
  const factor = DEGREES_PER_UNIT.get(unit);
  return factor === undefined ? null : value * factor;
}
