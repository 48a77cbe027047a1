import { FrameDocument } from '../../shared/frame/frame-document';
import { cutAround as cutInPauses, lookOf, type PageCut } from './page-cut';

const CARD = (i: number): string =>
  `<section class="card k${i % 3}"><h2>Trip ${i}</h2><p>Down the <a href="#">river</a></p><ul><li>one</li><li>two</li></ul><button class="go">Book</button></section>`;
const CSS =
  '.card { display: inline-block; width: 200px; margin: 8px; padding: 8px; background: #eee } .card:nth-child(3n) .go { background: rgb(1, 2, 3) } .list { display: flex } .card:has(a) h2 { color: rgb(4, 5, 6) } td { padding: 4px }';
const ROWS = `<table>${Array.from({ length: 200 }, (_, i) => `<tr><td>${'tide '.repeat(i % 9)}</td><td class="c">${i}</td></tr>`).join('')}</table>`;

/** Whole pages are laid out several times over. */
const SLOW_MS = 30_000;

describe('cutAround', () => {
  const frames: HTMLIFrameElement[] = [];
  afterEach(() => frames.splice(0).forEach((frame) => frame.remove()));

  async function load(html: string): Promise<Document> {
    const frame = document.createElement('iframe');
    frame.style.cssText = 'position: fixed; left: 0; top: 0; width: 900px; height: 600px; border: 0;';
    frames.push(frame);
    const loaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    frame.srcdoc = html;
    document.body.append(frame);
    await loaded;
    return frame.contentDocument as Document;
  }

  async function open(body: string): Promise<FrameDocument> {
    const content = await load(`<!doctype html><html><head><style>${CSS}</style></head><body>${body}</body></html>`);
    content.querySelectorAll('*').forEach((element, i) => element.setAttribute('data-uv-n', String(i)));
    const page = new FrameDocument(content, 'head-end');
    page.dress('.go { color: red }');
    return page;
  }

  const cutAround = (page: FrameDocument, number: number): Promise<PageCut | null> =>
    cutInPauses(page, number, () => Promise.resolve());
  const numberOf = (element: Element): number => Number(element.getAttribute('data-uv-n'));

  it('keeps a target where it lies and how it looks, with the least of the rest', async () => {
    const page = await open(`<main>${Array.from({ length: 400 }, (_, i) => CARD(i)).join('')}</main>`);
    const targets = [...page.document.querySelectorAll('.go')];
    for (const target of [targets[2], targets[200], targets[399]]) {
      const cut = await cutAround(page, numberOf(target));
      expect(cut?.elements).toBeLessThan(600);
      const drawn = await load(cut?.html ?? '');
      const copy = drawn.querySelector(`[data-uv-n="${numberOf(target)}"]`) as Element;
      const [own, other] = [target.getBoundingClientRect(), copy.getBoundingClientRect()];
      expect([other.left, other.top, other.width, other.height].map(Math.round)).toEqual(
        [own.left, own.top, own.width, own.height].map(Math.round),
      );
      const [style, copied] = [
        page.document.defaultView?.getComputedStyle(target),
        drawn.defaultView?.getComputedStyle(copy),
      ];
      expect(copied?.backgroundColor).toBe(style?.backgroundColor ?? '');
      expect(drawn.querySelectorAll('main > *').length).toBe(400);
      // The veneer is laid on by whoever draws it.
      expect(drawn.querySelector('style[data-uv-veneer]')).toBeNull();
    }
  });

  it('holds the columns of a long table', async () => {
    const page = await open(ROWS);
    const target = page.document.querySelectorAll('td.c')[3];
    const drawn = await load((await cutAround(page, numberOf(target)))?.html ?? '');
    const copy = drawn.querySelector(`[data-uv-n="${numberOf(target)}"]`) as Element;
    expect(Math.round(copy.getBoundingClientRect().left)).toBe(Math.round(target.getBoundingClientRect().left));
    expect(Math.round(copy.getBoundingClientRect().width)).toBe(Math.round(target.getBoundingClientRect().width));
  });

  /** Long pages by how their boxes are laid; what the cut is held against is Chromium's layout of the whole. */
  const LAYOUTS: Readonly<Record<string, (box: string) => string>> = {
    'blocks with shared margins': (boxes) =>
      `<style>.box { margin: 12px 0 20px }</style><main>${boxes}</main><footer>end</footer>`,
    'boxes in lines of text': (boxes) =>
      `<style>.box { display: inline-block; width: 190px; margin: 4px }</style><main>${boxes}</main>`,
    'a list without numbers': (boxes) => `<ul style="list-style: none">${boxes.replaceAll('section', 'li')}</ul>`,
    'a numbered list': (boxes) => `<ol>${boxes.replaceAll('section', 'li')}</ol>`,
    'lines that wrap': (boxes) =>
      `<style>.box { flex: 0 1 200px; margin: 3px } main { display: flex; flex-wrap: wrap; gap: 10px; align-items: center }</style><main>${boxes}</main>`,
    'a column': (boxes) =>
      `<style>main { display: flex; flex-direction: column; gap: 7px }</style><main>${boxes}</main>`,
    'a grid with columns by content': (boxes) =>
      `<style>main { display: grid; grid-template-columns: repeat(3, auto); gap: 6px 9px }</style><main>${boxes}</main>`,
    'a grid with one box placed': (boxes) =>
      `<style>main { display: grid; grid-template-columns: repeat(3, auto) } .box:nth-child(70) { grid-column: 2 }</style><main>${boxes}</main>`,
    'rows of one height': (boxes) =>
      `<style>main { display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); grid-auto-rows: 140px }</style><main>${boxes}</main>`,
    'columns of text': (boxes) => `<style>main { columns: 3 }</style><main>${boxes}</main>`,
    floats: (boxes) => `<style>.box { float: left; width: 180px }</style><main>${boxes}</main>`,
    'rows of a table': (boxes) =>
      `<table>${boxes.replaceAll('<section', '<tr><td>1</td><td').replaceAll('</section>', '</td></tr>')}</table>`,
    'text between': (boxes) => `<main>${boxes.replaceAll('</section>', '</section> and then ')}</main>`,
  };
  const box = (i: number): string =>
    `<section class="box"><h3>Trip ${i}</h3><p>${'tide and weir '.repeat(1 + ((i * 7) % 11))}</p><button class="go">Book ${i}</button></section>`;

  for (const [name, layout] of Object.entries(LAYOUTS))
    it(
      `keeps a target where it lies among ${name}, and counts the same elements`,
      async () => {
        const page = await open(layout(Array.from({ length: 150 }, (_, i) => box(i)).join('\n')));
        const targets = [...page.document.querySelectorAll('.go')];
        for (const target of [targets[1], targets[74], targets[149]]) {
          const cut = await cutAround(page, numberOf(target));
          const drawn = await load(cut?.html ?? '');
          const copy = drawn.querySelector(`[data-uv-n="${numberOf(target)}"]`) as Element;
          const [own, other] = [target.getBoundingClientRect(), copy.getBoundingClientRect()];
          for (const side of ['left', 'top', 'width', 'height'] as const)
            expect(Math.abs(other[side] - own[side]))
              .withContext(`${target.textContent} ${side}: ${other[side]} for ${own[side]}`)
              .toBeLessThan(1);
          const many = (document: Document): number => document.querySelectorAll('main > *, ul > *, ol > *, tr').length;
          expect(many(drawn)).toBe(many(page.document));
        }
      },
      SLOW_MS,
    );

  it(
    'draws few boxes of a long page, whether the target is its first or its last',
    async () => {
      for (const name of [
        'boxes in lines of text',
        'blocks with shared margins',
        'lines that wrap',
        'rows of a table',
      ]) {
        const page = await open(LAYOUTS[name](Array.from({ length: 300 }, (_, i) => box(i)).join('')));
        const targets = [...page.document.querySelectorAll('.go')];
        for (const target of [targets[0], targets[150], targets[299]]) {
          const drawn = await load((await cutAround(page, numberOf(target)))?.html ?? '');
          const boxes = [...drawn.body.querySelectorAll('*')].filter((element) => element.getClientRects().length > 0);
          expect(boxes.length).withContext(name).toBeGreaterThan(5);
          expect(boxes.length).withContext(name).toBeLessThan(250);
        }
      }
    },
    SLOW_MS,
  );

  it('writes the page as it is at rest, and leaves its forced states as they were', async () => {
    const page = await open(`<main>${CARD(0)}</main>`);
    const target = page.document.querySelector('.go') as Element;
    page.force([{ element: numberOf(target), names: ['.is-open', '[aria-expanded=true'] }]);
    const cut = await cutAround(page, numberOf(target));
    expect(cut?.html).not.toContain('is-open');
    expect(cut?.html).not.toContain('aria-expanded');
    expect([target.className, target.getAttribute('aria-expanded')]).toEqual(['go is-open', 'true']);
  });

  it('is told from the page where what is left out has a say', async () => {
    const page = await open(
      `<style>main:has(.far b) .go { background: rgb(9, 9, 9) }</style><main>${CARD(0)}<div style="height: 4000px"></div><div class="far"><b>far</b></div></main>`,
    );
    const number = numberOf(page.document.querySelector('.go') as Element);
    const cut = await cutAround(page, number);
    const drawn = new FrameDocument(await load(cut?.html ?? ''), 'head-end');
    drawn.dress('.go { color: red }');
    expect(lookOf(drawn, number)).not.toBe(cut?.look ?? 'none');
    page.document.querySelector('.far')?.remove();
    const without = await cutAround(page, number);
    const same = new FrameDocument(await load(without?.html ?? ''), 'head-end');
    same.dress('.go { color: red }');
    expect(lookOf(same, number)).toBe(without?.look ?? 'none');
  });

  it('leaves whole what would be too much, or in a shadow tree, inside of columns', async () => {
    const columns = (inside: string): string => `<style>main { columns: 3 }</style><main>${inside}</main>`;
    const many = await open(columns(`<button class="go">Go</button>${'<b>x</b> '.repeat(2_600)}`));
    expect(await cutAround(many, numberOf(many.document.querySelector('.go') as Element))).toBeNull();
    const page = await open(columns(`<div>${box(0)}<span class="host"></span></div>`));
    page.document.querySelector('.host')?.attachShadow({ mode: 'open' }).append('x');
    expect(await cutAround(page, numberOf(page.document.querySelector('.go') as Element))).toBeNull();
  });

  it('leaves whole what it cannot cut truly', async () => {
    const page = await open('<p hidden>gone</p><div class="host"></div>');
    expect(await cutAround(page, numberOf(page.document.querySelector('p') as Element))).toBeNull();
    page.document.querySelector('.host')?.attachShadow({ mode: 'open' }).append('x');
    expect(await cutAround(page, numberOf(page.document.body))).toBeNull();
  });
});
