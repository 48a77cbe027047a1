import { RATIOS } from '../color/contrast.js';
import type { StandardRole } from '../veneer/palette.js';

/** A pair of roles that is meant to meet on a page, and the contrast WCAG 2.2 asks of it. */
export interface MeantPair {
  readonly above: StandardRole;
  readonly below: StandardRole;
  readonly wanted: number;
}

const READ_ON_GROUND: readonly StandardRole[] = ['ink', 'soft-ink', 'link', 'visited', 'signal'];
const DRAWN_ON_GROUND: readonly StandardRole[] = ['line', 'accent', 'second', 'ring'];

/** Every pair the roles are there for: what is read, 4.5 : 1; what is only seen, 3 : 1. */
export const MEANT_PAIRS: readonly MeantPair[] = [
  ...(['ground', 'panel'] as const).flatMap((below) => [
    ...READ_ON_GROUND.map((above) => ({ above, below, wanted: RATIOS.text })),
    ...DRAWN_ON_GROUND.map((above) => ({ above, below, wanted: RATIOS.nonText })),
  ]),
  ...(['accent', 'second', 'signal'] as const).map((below) => ({
    above: `on-${below}` as const,
    below,
    wanted: RATIOS.text,
  })),
];
