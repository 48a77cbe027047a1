/** Colour spaces of CSS Color 4. `legacy` is sRGB as `rgb()`, hex, names, `hsl()` and `hwb()` give it. */
export type ColorSpace =
  | 'legacy'
  | 'srgb'
  | 'srgb-linear'
  | 'display-p3'
  | 'a98-rgb'
  | 'prophoto-rgb'
  | 'rec2020'
  | 'xyz-d50'
  | 'xyz-d65'
  | 'lab'
  | 'lch'
  | 'oklab'
  | 'oklch';

/** Spaces that `color-mix()` can also interpolate in. */
export type MixSpace = ColorSpace | 'hsl' | 'hwb';

/**
 * A colour. Channels in the ranges of CSS Color 4: sRGB-like 0–1, `lab` L 0–100, `oklab` L 0–1, hue in degrees.
 * A missing channel (`none`) is `null`.
 */
export interface Color {
  readonly space: ColorSpace;
  readonly channels: readonly [number | null, number | null, number | null];
  /** 0–1, `null` when missing. */
  readonly alpha: number | null;
}

/** A specified colour; all but `color` need a context to become one. */
export type ColorValue =
  | { readonly kind: 'color'; readonly color: Color }
  | { readonly kind: 'currentcolor' }
  | { readonly kind: 'keyword'; readonly name: 'auto' | 'none' }
  | { readonly kind: 'system'; readonly name: string }
  | { readonly kind: 'light-dark'; readonly light: ColorValue; readonly dark: ColorValue }
  | {
      readonly kind: 'mix';
      readonly space: MixSpace;
      readonly hue: HueMethod;
      readonly parts: readonly { readonly color: ColorValue; readonly share: number | null }[];
    }
  | {
      readonly kind: 'relative';
      readonly to: RelativeFunction;
      readonly origin: ColorValue;
      readonly channels: readonly [string, string, string];
      readonly alpha: string | null;
    }
  | { readonly kind: 'contrast'; readonly of: ColorValue };

export type HueMethod = 'shorter' | 'longer' | 'increasing' | 'decreasing';
export type RelativeFunction =
  | 'rgb'
  | 'hsl'
  | 'hwb'
  | 'lab'
  | 'lch'
  | 'oklab'
  | 'oklch'
  | Exclude<ColorSpace, 'legacy' | 'lab' | 'lch' | 'oklab' | 'oklch'>;

/** A colour in sRGB, 8 bits a channel. */
export function rgb8(red: number, green: number, blue: number, alpha = 1): Color {
  return { space: 'legacy', channels: [red / 255, green / 255, blue / 255], alpha };
}

export const BLACK: Color = rgb8(0, 0, 0);
export const WHITE: Color = rgb8(255, 255, 255);
