import { sameColor } from '../color/same-color.js';
import { nameKey } from '../veneer/name-key.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';

/** A swatch that two palettes share by its name, where its colour differs. */
export interface SwatchChange {
  readonly name: string;
  readonly before: string;
  readonly after: string;
}

/** A palette with the colours of another, wherever a swatch of it has the same name; roles and the rest stay. */
export interface Rebranded {
  readonly palette: Palette;
  /** Swatches that both have by name. */
  readonly shared: number;
  readonly changes: readonly SwatchChange[];
}

/** Carries the colours of one palette over to another that shares swatches with it. */
export function rebranded(palette: Palette, by: Palette): Rebranded {
  const colors = new Map(by.swatches.map(({ name, css }) => [nameKey(name), css]));
  const changes: SwatchChange[] = [];
  let shared = 0;
  const swatches = palette.swatches.map((swatch) => {
    const after = colors.get(nameKey(swatch.name));
    if (after === undefined) return swatch;
    shared += 1;
    const [old, now] = [colorOfCss(swatch.css), colorOfCss(after)];
    if (old && now && sameColor(old, now)) return swatch;
    changes.push({ name: swatch.name, before: swatch.css, after });
    return { ...swatch, css: after };
  });
  return { palette: { ...palette, swatches }, shared, changes };
}
