import { FrameDocument } from './frame-document';

describe('FrameDocument', () => {
  let frame: HTMLIFrameElement;
  afterEach(() => frame.remove());

  async function open(body: string, head = ''): Promise<Document> {
    frame = document.createElement('iframe');
    const loaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    frame.srcdoc = `<!doctype html><html data-uv-n="0"><head data-uv-n="1">${head}</head><body data-uv-n="2">${body}</body></html>`;
    document.body.append(frame);
    await loaded;
    if (!frame.contentDocument) throw new Error('no document');
    return frame.contentDocument;
  }

  it('opens hidden parts as asked and closes them to what they were', async () => {
    const page = new FrameDocument(await open('<div data-uv-n="3" class="a b" hidden>x</div>'), 'head-end');
    const element = page.element(3);
    page.amend(new Map([[3, [{ act: 'drop-attribute', name: 'hidden', value: '' }, { act: 'add-class', name: 'open', value: '' }]]]));
    expect([element?.hasAttribute('hidden'), element?.className]).toEqual([false, 'a b open']);
    expect(page.boxOf(3)).not.toBeNull();
    page.amend(new Map());
    expect([element?.hasAttribute('hidden'), element?.className, page.boxOf(3)]).toEqual([true, 'a b', null]);
  });

  it('closes parts without leaving states behind', async () => {
    const page = new FrameDocument(await open('<a data-uv-n="3">x</a>'), 'head-end');
    page.amend(new Map([[3, [{ act: 'add-class', name: 'open', value: '' }]]]));
    page.force([{ element: 3, names: ['hover'] }]);
    page.amend(new Map());
    expect([...(page.element(3)?.attributes ?? [])].map(({ name }) => name)).toEqual(['data-uv-n']);
  });

  it('reaches elements in shadow trees by their numbers', async () => {
    const content = await open('<x-a data-uv-n="3"></x-a>');
    const root = content.querySelector('x-a')?.attachShadow({ mode: 'open' });
    if (root) root.innerHTML = '<p data-uv-n="4">in</p>';
    expect(new FrameDocument(content, 'head-end').element(4)?.localName).toBe('p');
  });

  it('lays the veneer where the site says', async () => {
    const links = '<link rel=stylesheet href="/frame/sites/1/files/css/a.css"><link rel=stylesheet href="/frame/sites/1/files/css/b%20c.css"><link rel=icon href="/frame/sites/1/files/css/b%20c.css">';
    const placeOf = (content: Document): string => {
      const style = content.querySelector('style[data-uv-veneer]');
      return `${style?.parentElement?.localName} after ${style?.previousElementSibling?.getAttribute('href') ?? style?.previousElementSibling?.localName ?? 'nothing'}`;
    };
    for (const [place, expected] of [['head-end', 'head after /frame/sites/1/files/css/b%20c.css'], ['body-end', 'body after p'], ['after:css/a.css', 'head after /frame/sites/1/files/css/a.css'], ['after:css/b c.css', 'head after /frame/sites/1/files/css/b%20c.css'], ['after:gone.css', 'head after /frame/sites/1/files/css/b%20c.css']] as const) {
      const content = await open('<p>x', links);
      new FrameDocument(content, place);
      expect(placeOf(content)).withContext(place).toBe(expected);
      frame.remove();
    }
  });
});
