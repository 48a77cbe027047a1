import type { FramedPage } from '../frame/framed-page';
import { PageDrawing } from './page-drawing';
import type { Area } from './decode-picture';

/** A picture of one colour, as a page would carry it. */
function dot(color: string): string {
  return `data:image/svg+xml,${encodeURIComponent(`<svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><rect width="20" height="20" fill="${color}"/></svg>`)}`;
}

// What each pixel shows is worked out by hand from where the boxes stand: CSS 2.2 §10 and Appendix E.
describe('PageDrawing', () => {
  const urls: string[] = [];
  afterEach(() => urls.splice(0).forEach((url) => URL.revokeObjectURL(url)));

  function pageOf(body: string, frameCss = ''): FramedPage {
    const url = URL.createObjectURL(
      new Blob(
        [
          `<!doctype html><html data-uv-n="0"><head data-uv-n="1"><style>body { margin: 0 } div { position: absolute }</style></head><body data-uv-n="2">${body}</body></html>`,
        ],
        { type: 'text/html' },
      ),
    );
    urls.push(url);
    return { url, veneerPlace: 'head-end', frameCss, amendments: new Map(), scheme: 'light' as const };
  }

  async function pixels(
    drawing: PageDrawing,
    area: Area | null,
    ...at: readonly (readonly [x: number, y: number])[]
  ): Promise<string[]> {
    const bitmap = await drawing.draw(area);
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
    context?.drawImage(bitmap, 0, 0);
    return at.map(([x, y]) => [...(context?.getImageData(x, y, 1, 1).data ?? [])].slice(0, 3).join());
  }

  it('draws an area as it stands on the whole page, what is positioned above the rest', async () => {
    const drawing = await PageDrawing.open(
      pageOf(
        '<div style="left: 0; top: 0; width: 400px; height: 300px; background: rgb(0, 0, 255)"></div><div data-uv-n="3" style="left: 100px; top: 80px; width: 60px; height: 40px; background: rgb(255, 0, 0); z-index: 1"></div>',
      ),
      'Page',
      400,
    );
    expect(await pixels(drawing, null, [10, 10], [130, 100])).toEqual(['0,0,255', '255,0,0']);
    expect(await pixels(drawing, { left: 90, top: 70, width: 50, height: 40 }, [2, 2], [30, 20])).toEqual([
      '0,0,255',
      '255,0,0',
    ]);
    drawing.close();
  });

  it('draws the veneer, and an element in the state it is put into', async () => {
    const drawing = await PageDrawing.open(
      pageOf(
        '<div data-uv-n="3" style="left: 0; top: 0; width: 100px; height: 50px"></div>',
        '[data-uv-n="3"] { background: rgb(0, 128, 0) } [data-uv-n="3"][data-uv-hover] { background: rgb(200, 0, 100) }',
      ),
      'Page',
      200,
    );
    expect(await pixels(drawing, null, [10, 10])).toEqual(['0,128,0']);
    drawing.page.force([{ element: 3, names: ['hover'] }]);
    expect(await pixels(drawing, null, [10, 10])).toEqual(['200,0,100']);
    drawing.close();
  });

  it('leaves pictures out that do not touch the area, and keeps their place', async () => {
    const body = `<img src="${dot('rgb(255, 0, 0)')}" style="position: absolute; left: 0; top: 0"><img src="${dot('rgb(0, 0, 255)')}" data-uv-n="4" style="display: block; margin-top: 100px"><p data-uv-n="5" style="margin: 0">x</p>`;
    const drawing = await PageDrawing.open(pageOf(body), 'Page', 200, () => ({
      left: 0,
      top: 0,
      width: 20,
      height: 20,
    }));
    expect((await pixels(drawing, null, [10, 10], [10, 110]))[0]).toBe('255,0,0');
    expect((await pixels(drawing, null, [10, 110]))[0]).not.toBe('0,0,255');
    expect(drawing.page.boxOf(5)?.top).toBe(120);
    drawing.close();
    expect(document.querySelectorAll('iframe[aria-hidden="true"]').length).toBe(0);
  });

  it('says that a page does not load, and leaves no frame behind', async () => {
    const empty = URL.createObjectURL(new Blob(['<p>no numbers'], { type: 'text/html' }));
    urls.push(empty);
    await expectAsync(PageDrawing.open({ ...pageOf(''), url: empty }, 'The page', 200)).toBeRejectedWithError(
      /The page does not load/,
    );
    expect(document.querySelectorAll('iframe[aria-hidden="true"]').length).toBe(0);
  });
});
