import type { PixelBox } from '@upper-veneer/core';

/** A colour read off a picture. */
export interface PickedColor {
  readonly hex: string;
  /** How it was read, in plain words. */
  readonly basis: string;
}

export interface PictureInk {
  readonly hex: string;
  /** Share of the pixels that count, 0–1. */
  readonly share: number;
  readonly isGround: boolean;
}

export interface PictureInks {
  readonly inks: readonly PictureInk[];
  readonly edgePixels: number;
  readonly clearPixels: number;
}

/** How a logo shows on one ground. */
export interface LogoFigure {
  readonly ground: string;
  /** Share of its ink under 3 : 1, 0–1. */
  readonly lost: number;
  readonly worst: number;
}

/** What the worker that holds a picture's pixels answers. Coordinates are the picture's own pixels. */
export interface PictureApi {
  /** Takes a picture over; the one before is let go. Answers with a copy to show, its longest side no longer than `shownSide`. */
  load(
    bitmap: ImageBitmap,
    shownSide: number,
  ): { readonly width: number; readonly height: number; readonly shown: ImageBitmap };
  /** Its inks; `null` when another picture came or it was stopped. */
  inks(onProgress: (share: number) => void): Promise<PictureInks | null>;
  stop(): void;
  /** Pixels around a point for the loupe, `2 × reach + 1` a side; clear where there is no picture. */
  around(x: number, y: number, reach: number): { readonly data: Uint8ClampedArray; readonly hex: string };
  average(box: PixelBox): PickedColor;
  /** The true colour of the text in a box; `null` when it holds one colour only. */
  inkOfText(box: PixelBox): PickedColor | null;
  logoOn(grounds: readonly string[]): readonly LogoFigure[];
}
