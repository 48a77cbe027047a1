import { decodePicture, PictureProblem } from './decode-picture';

/** A picture of one colour, as the browser itself writes the format. */
async function filled(type: string, color: string, width = 40, height = 20): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no context');
  context.fillStyle = color;
  context.fillRect(0, 0, width, height);
  return canvas.convertToBlob({ type, quality: 1 });
}

function pixelOf(bitmap: ImageBitmap, x: number, y: number): number[] {
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
  context?.drawImage(bitmap, 0, 0);
  return [...(context?.getImageData(x, y, 1, 1).data ?? [])];
}

describe('decodePicture', () => {
  for (const type of ['image/png', 'image/webp', 'image/jpeg']) {
    it(`reads ${type}`, async () => {
      const bitmap = await decodePicture(await filled(type, '#b4582a'), 'logo');
      expect([bitmap.width, bitmap.height]).toEqual([40, 20]);
      pixelOf(bitmap, 20, 10).forEach((value, i) =>
        expect(Math.abs(value - [180, 88, 42, 255][i]))
          .withContext(String(i))
          .toBeLessThanOrEqual(3),
      );
    });
  }

  it('draws SVG large, whether it has a size, a view box, both or neither', async () => {
    const shape = '<rect width="30" height="15" fill="#0f4a48"/>';
    for (const [attributes, width, height] of [
      ['width="30" height="15"', 1024, 512],
      ['viewBox="0 0 30 15"', 1024, 512],
      ['viewBox="0 0 60 15" width="30"', 1024, 256],
      ['viewBox="0 0 30 15" width="100%" height="100%"', 1024, 512],
      ['', 1024, 512],
    ] as const) {
      const bitmap = await decodePicture(
        new Blob([`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${shape}</svg>`], { type: 'image/svg+xml' }),
        'a.svg',
      );
      expect([bitmap.width, bitmap.height]).withContext(attributes).toEqual([width, height]);
      expect(pixelOf(bitmap, 4, 4))
        .withContext(attributes)
        .toEqual([15, 74, 72, 255]);
    }
  });

  it('runs nothing that an SVG brings', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9" onload="parent.wasHere = true"><script>parent.wasHere = true</script><rect width="9" height="9"/></svg>';
    await decodePicture(new Blob([svg]), 'a.svg');
    expect((window as { wasHere?: boolean }).wasHere).toBeUndefined();
  });

  it('says what cannot be read', async () => {
    for (const [blob, name, reason] of [
      [new Blob([]), 'a.png', 'is empty'],
      [new Blob(['x']), 'a.png', 'no picture'],
      [new Blob(['<svg'], { type: 'image/svg+xml' }), 'a.svg', 'well-formed'],
      [new Blob(['<p xmlns="x"/>']), 'b.svg', 'well-formed'],
    ] as const) {
      await decodePicture(blob, name).then(
        () => fail(name),
        (error: unknown) => {
          expect(error).toBeInstanceOf(PictureProblem);
          expect((error as Error).message).toContain(reason);
        },
      );
    }
  });
});
