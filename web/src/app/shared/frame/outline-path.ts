/** Where an element is drawn on the screen, px. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Rectangles around boxes as data of one SVG path, so that hundreds of outlines are one element.
 * @param out how far outside of each, px.
 */
export function outlinePath(boxes: readonly Box[], out: number): string {
  return boxes
    .map(({ left, top, width, height }) => {
      const [across, down] = [width + 2 * out, height + 2 * out].map(places);
      return `M${places(left - out)} ${places(top - out)}h${across}v${down}h${-across}z`;
    })
    .join('');
}

const places = (length: number): number => Math.round(length * 100) / 100;
