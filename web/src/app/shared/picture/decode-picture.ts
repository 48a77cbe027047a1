import { wordsOf } from '@upper-veneer/words';
/** A picture that cannot be read, with why. */
export class PictureProblem extends Error {
  override readonly name = 'PictureProblem';
}

/** Longest side that an SVG picture is drawn at, px: large enough that its edges are few. */
const SVG_SIDE = 1024;
/** More pixels than this are made fewer before they are read. */
const MOST_PIXELS = 40_000_000;
const MOST_BYTES = 50 * 1024 * 1024;

/**
 * Reads a PNG, JPEG, WebP, GIF or SVG file off the interface's thread where the browser can.
 * @throws {PictureProblem}
 */
export async function decodePicture(file: Blob, name: string): Promise<ImageBitmap> {
  if (file.size === 0) throw new PictureProblem(wordsOf('screen.empty', { name }));
  if (file.size > MOST_BYTES) throw new PictureProblem(wordsOf('screen.larger-than-50-mb', { name }));
  if (file.type === 'image/svg+xml' || /\.svg$/i.test(name)) return decodeSvg(await file.text(), name);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { colorSpaceConversion: 'default', premultiplyAlpha: 'none' });
  } catch {
    throw new PictureProblem(wordsOf('screen.no-picture-browser-can', { name }));
  }
  const pixels = bitmap.width * bitmap.height;
  if (pixels <= MOST_PIXELS) return bitmap;
  const scale = Math.sqrt(MOST_PIXELS / pixels);
  return createImageBitmap(bitmap, {
    resizeWidth: Math.round(bitmap.width * scale),
    resizeHeight: Math.round(bitmap.height * scale),
    resizeQuality: 'pixelated',
  });
}

/** Drawn as an image, an SVG runs no script and loads nothing. */
async function decodeSvg(text: string, name: string): Promise<ImageBitmap> {
  const document = new DOMParser().parseFromString(text, 'image/svg+xml');
  const root = document.documentElement;
  if (root.localName !== 'svg' || document.querySelector('parsererror'))
    throw new PictureProblem(wordsOf('screen.no-well-formed-svg', { name }));
  const [, , boxWidth, boxHeight] = (root.getAttribute('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [ownWidth, ownHeight] = ['width', 'height'].map((name) =>
    /%/.test(root.getAttribute(name) ?? '') ? 0 : Number.parseFloat(root.getAttribute(name) ?? '') || 0,
  );
  const ratio = boxWidth > 0 && boxHeight > 0 ? boxWidth / boxHeight : 2;
  const width = ownWidth || (ownHeight ? ownHeight * ratio : boxWidth || 300);
  const height = ownHeight || width / ratio;
  if (!root.hasAttribute('viewBox')) root.setAttribute('viewBox', `0 0 ${width} ${height}`);
  const scale = SVG_SIDE / Math.max(width, height);
  const drawn = {
    left: 0,
    top: 0,
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  };
  root.setAttribute('width', String(drawn.width));
  root.setAttribute('height', String(drawn.height));
  return drawSvg(new XMLSerializer().serializeToString(document), drawn, name);
}

/** A rectangle, CSS px from the top left corner. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Draws an area of an SVG at its own size. @throws {PictureProblem} when the browser does not draw it. */
export async function drawSvg(svg: string, { left, top, width, height }: Area, name: string): Promise<ImageBitmap> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  try {
    await image.decode();
  } catch {
    throw new PictureProblem(wordsOf('screen.cannot-be-drawn', { name }));
  }
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new PictureProblem(wordsOf('screen.too-large-for-this', { name }));
  context.drawImage(image, left, top, width, height, 0, 0, width, height);
  return canvas.transferToImageBitmap();
}
