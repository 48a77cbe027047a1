import { measurePage } from './measure-page';

describe('measurePage', () => {
  let frame: HTMLIFrameElement;
  afterEach(() => frame.remove());

  async function open(body: string): Promise<Document> {
    frame = document.createElement('iframe');
    frame.style.cssText = 'position: fixed; left: 0; top: 0; width: 400px; height: 300px; border: 0;';
    const loaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    frame.srcdoc = `<!doctype html><html data-uv-n="0"><head data-uv-n="1"></head><body data-uv-n="2" style="margin: 0">${body}</body></html>`;
    document.body.append(frame);
    await loaded;
    if (!frame.contentDocument) throw new Error('no document');
    return frame.contentDocument;
  }

  it('gives boxes, and nothing for what has none', async () => {
    const { layout } = await measurePage(
      7,
      await open(
        '<div data-uv-n="3" style="width: 100px; height: 50px"></div><div data-uv-n="4" style="display: none">x</div>',
      ),
      () => undefined,
    );
    expect([...layout.boxes.subarray(12, 20)]).toEqual([0, 0, 100, 50, 0, 0, 0, 0]);
  });

  it('inks text by a part of its lines, more of it when it is bold', async () => {
    const {
      layout: { boxes },
      ink,
    } = await measurePage(
      7,
      await open(
        '<p data-uv-n="3" style="font: 20px serif; width: max-content">A slow river</p><p data-uv-n="4" style="font: bold 20px serif; width: max-content">A slow river</p><p data-uv-n="5" style="visibility: hidden">x</p>',
      ),
      () => undefined,
    );
    const share = (number: number): number => ink[number] / (boxes[number * 4 + 2] * boxes[number * 4 + 3]);
    expect(share(3)).toBeGreaterThan(0.05);
    expect(share(3)).toBeLessThan(0.3);
    expect(share(4)).toBeGreaterThan(share(3));
    expect(ink[5]).toBe(0);
  });

  it('measures generated content, blocks by their box and text by its width', async () => {
    const content = await open(
      '<style>.a::before { content: ""; display: block; width: 30px; height: 20px } .b::after { content: "wide"; font-size: 10px }</style><p data-uv-n="3" class="a">x</p><p data-uv-n="4" class="b">x</p>',
    );
    const { pseudoSizes } = await measurePage(7, content, () => undefined);
    expect(pseudoSizes['3:before']).toEqual([30, 20]);
    expect(pseudoSizes['4:after'][0]).toBeGreaterThan(10);
    expect(Object.keys(pseudoSizes).length).toBe(2);
  });

  it('stops when it is told to', async () => {
    const content = await open(Array.from({ length: 4000 }, (_, i) => `<i data-uv-n="${i + 3}">x</i>`).join(''));
    await expectAsync(
      measurePage(7, content, () => {
        throw new Error('stop');
      }),
    ).toBeRejectedWithError('stop');
  });
});
