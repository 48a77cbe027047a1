const SAMPLE = 'the quick brown heron eats a slow fish';
const SAMPLE_SIZE = 32;

/**
 * Measures which share of its line boxes a text inks, by drawing a sample of it with the fonts of its own document.
 * @returns a function from a font as CSS writes it, without its size, to a share of 0–1.
 */
export function createGlyphInk(
  document: Document,
): (font: { readonly style: string; readonly weight: string; readonly family: string }) => number {
  const canvas = document.createElement('canvas');
  canvas.width = 640;
  canvas.height = Math.ceil(SAMPLE_SIZE * 1.5);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  const shares = new Map<string, number>();
  return ({ style, weight, family }) => {
    const key = `${style} ${weight} ${SAMPLE_SIZE}px ${family}`;
    const known = shares.get(key);
    if (known !== undefined || !context) return known ?? 0;
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.font = key;
    context.textBaseline = 'top';
    context.fillText(SAMPLE, 0, SAMPLE_SIZE * 0.2);
    const width = Math.min(canvas.width, Math.ceil(context.measureText(SAMPLE).width));
    const { data } = context.getImageData(0, 0, width, canvas.height);
    let covered = 0;
    for (let i = 3; i < data.length; i += 4) covered += data[i];
    // A line box of the content area, about 1.15 times the size high (common practice).
    const share = covered / 255 / (width * SAMPLE_SIZE * 1.15);
    shares.set(key, share);
    return share;
  };
}
