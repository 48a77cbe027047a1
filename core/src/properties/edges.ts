/** One side of an edge by its longhands. Source: CSS Backgrounds 3 §3. */
export interface EdgeSide {
  readonly side: 'top' | 'right' | 'bottom' | 'left';
  readonly color: string;
  readonly style: string;
  readonly width: string;
}

/** The sides of an edge, in the order CSS writes them. Their names stand ready: what is put together has to be hashed at each question. */
export const EDGE_SIDES: readonly EdgeSide[] = (['top', 'right', 'bottom', 'left'] as const).map((side) => ({
  side,
  color: `border-${side}-color`,
  style: `border-${side}-style`,
  width: `border-${side}-width`,
}));
