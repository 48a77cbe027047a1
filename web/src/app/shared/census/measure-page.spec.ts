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

  /** How many sampled points have an element on top. */
  const onTop = (stacks: Int32Array, number: number): number => [...stacks].filter((value, i) => value === number && (i === 0 || stacks[i - 1] === -1)).length;

  it('gives boxes, and nothing for what has none', async () => {
    const { boxes } = await measurePage(7, await open('<div data-uv-n="3" style="width: 100px; height: 50px"></div><div data-uv-n="4" style="display: none">x</div>'), () => undefined);
    expect([...boxes.subarray(9, 15)]).toEqual([100, 50, 0, 0, 0, 0]);
  });

  it('inks text by a part of its lines, more of it when it is bold', async () => {
    const { boxes } = await measurePage(7, await open('<p data-uv-n="3" style="font: 20px serif; width: max-content">A slow river</p><p data-uv-n="4" style="font: bold 20px serif; width: max-content">A slow river</p><p data-uv-n="5" style="visibility: hidden">x</p>'), () => undefined);
    const share = (number: number): number => boxes[number * 3 + 2] / (boxes[number * 3] * boxes[number * 3 + 1]);
    expect(share(3)).toBeGreaterThan(0.05);
    expect(share(3)).toBeLessThan(0.3);
    expect(share(4)).toBeGreaterThan(share(3));
    expect(boxes[17]).toBe(0);
  });

  it('samples what lies under what, over the whole length, fixed things once', async () => {
    const content = await open('<div data-uv-n="3" style="height: 900px; background: red"></div><div data-uv-n="4" style="position: fixed; right: 0; bottom: 0; width: 100px; height: 100px; pointer-events: none"></div>');
    const { stacks, cell } = await measurePage(7, content, () => undefined);
    const width = content.documentElement.clientWidth;
    expect(Math.abs(onTop(stacks, 4) * cell - 100 * 100)).toBeLessThan(2500);
    expect((onTop(stacks, 3) + onTop(stacks, 4)) * cell / (width * 900)).toBeGreaterThan(0.95);
    expect(content.documentElement.scrollTop).toBe(0);
  });

  it('measures generated content, blocks by their box and text by its width', async () => {
    const content = await open('<style>.a::before { content: ""; display: block; width: 30px; height: 20px } .b::after { content: "wide"; font-size: 10px }</style><p data-uv-n="3" class="a">x</p><p data-uv-n="4" class="b">x</p>');
    const { pseudoBoxes } = await measurePage(7, content, () => undefined);
    expect(pseudoBoxes['3:before']).toEqual([30, 20]);
    expect(pseudoBoxes['4:after'][0]).toBeGreaterThan(10);
    expect(Object.keys(pseudoBoxes).length).toBe(2);
  });

  it('stops when it is told to', async () => {
    const content = await open(Array.from({ length: 4000 }, (_, i) => `<i data-uv-n="${i + 3}">x</i>`).join(''));
    await expectAsync(measurePage(7, content, () => { throw new Error('stop'); })).toBeRejectedWithError('stop');
  });
});
