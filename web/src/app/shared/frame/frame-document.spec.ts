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
    page.amend(
      new Map([
        [
          3,
          [
            { act: 'drop-attribute', name: 'hidden', value: '' },
            { act: 'add-class', name: 'open', value: '' },
          ],
        ],
      ]),
    );
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

  // Held against what Chromium shows of an element that has the focus.
  it('shows the ring of the browser where the page has none of its own', async () => {
    const content = await open(
      '<a data-uv-n="3" href="#x">x</a><button data-uv-n="4">y</button><input data-uv-n="5"><a data-uv-n="6" class="own" href="#y">z</a><p data-uv-n="7" tabindex="0">p</p>',
      '<style>@layer site { .own:is(:focus-visible, [data-uv-focus-visible]) { outline: 3px dotted rgb(1, 2, 3) } } button { outline-color: rgb(9, 9, 9) }</style>',
    );
    const page = new FrameDocument(content, 'head-end');
    const ringOf = (element: HTMLElement): string => {
      const style = content.defaultView?.getComputedStyle(element);
      return `${style?.outlineStyle} ${style?.outlineWidth} ${style?.outlineColor} ${style?.outlineOffset}`;
    };
    const rings: string[] = [];
    for (const number of [3, 4, 5, 6, 7]) {
      const element = page.element(number) as HTMLElement;
      const rest = ringOf(element);
      element.focus({ focusVisible: true } as FocusOptions);
      const focused = ringOf(element);
      element.blur();
      page.force([{ element: number, names: ['focus', 'focus-visible'] }]);
      expect(ringOf(element)).withContext(element.outerHTML).toBe(focused);
      rings.push(focused);
      page.force([]);
      expect(ringOf(element)).toBe(rest);
    }
    expect(rings[0]).toMatch(/^auto 1px .* 1px$/);
    expect(rings[3]).toBe('dotted 3px rgb(1, 2, 3) 1px');
  });

  it('reaches elements in shadow trees by their numbers', async () => {
    const content = await open('<x-a data-uv-n="3"></x-a>');
    const root = content.querySelector('x-a')?.attachShadow({ mode: 'open' });
    if (root) root.innerHTML = '<p data-uv-n="4">in</p>';
    expect(new FrameDocument(content, 'head-end').element(4)?.localName).toBe('p');
  });

  it('lays the veneer where the site says', async () => {
    const links =
      '<link rel=stylesheet href="/frame/sites/1/files/css/a.css"><link rel=stylesheet href="/frame/sites/1/files/css/b%20c.css"><link rel=icon href="/frame/sites/1/files/css/b%20c.css">';
    const placeOf = (content: Document): string => {
      const style = content.querySelector('style[data-uv-veneer]');
      return `${style?.parentElement?.localName} after ${style?.previousElementSibling?.getAttribute('href') ?? style?.previousElementSibling?.localName ?? 'nothing'}`;
    };
    for (const [place, expected] of [
      ['head-end', 'head after /frame/sites/1/files/css/b%20c.css'],
      ['body-end', 'body after p'],
      ['after:css/a.css', 'head after /frame/sites/1/files/css/a.css'],
      ['after:css/b c.css', 'head after /frame/sites/1/files/css/b%20c.css'],
      ['after:gone.css', 'head after /frame/sites/1/files/css/b%20c.css'],
    ] as const) {
      const content = await open('<p>x', links);
      new FrameDocument(content, place);
      expect(placeOf(content)).withContext(place).toBe(expected);
      frame.remove();
    }
  });

  it('names what shows at a point, through unseen inputs, bare layers and what lets the pointer by', async () => {
    const at = 'position: absolute; left: 0; top: 0; width: 60px; height: 30px;';
    const rows: readonly (readonly [what: string, body: string, expected: number])[] = [
      [
        'an unseen input over a drawn switch',
        `<label data-uv-n="3"><span data-uv-n="4" style="${at} background: #ccc"></span><input data-uv-n="5" type=checkbox style="${at} opacity: 0"></label>`,
        4,
      ],
      [
        'a bare layer over a button',
        `<button data-uv-n="3" style="${at}">x</button><div data-uv-n="4" style="${at}"></div>`,
        3,
      ],
      [
        'a tinted layer that lets the pointer by',
        `<button data-uv-n="3" style="${at}">x</button><div data-uv-n="4" style="${at} background: rgba(0, 0, 0, .3); pointer-events: none"></div>`,
        4,
      ],
      [
        'a button that is off',
        `<form data-uv-n="3" style="background: #eee"><button data-uv-n="4" disabled style="${at} pointer-events: none">x</button></form>`,
        4,
      ],
      [
        'a bare box inside a card',
        `<div data-uv-n="3" style="${at} background: #eee"><div data-uv-n="4" style="height: 30px"></div></div>`,
        4,
      ],
      [
        'a hidden box over a text',
        `<p data-uv-n="3" style="${at} margin: 0">text text text</p><div data-uv-n="4" style="${at} background: red; visibility: hidden"></div>`,
        3,
      ],
    ];
    for (const [what, body, expected] of rows) {
      expect(new FrameDocument(await open(body), 'head-end').numberAt(10, 8))
        .withContext(what)
        .toBe(expected);
      frame.remove();
    }
  });
});
