import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Inspection } from '@upper-veneer/core';
import { FrameDocument } from '../../shared/frame/frame-document';
import type { FramedPage } from '../../shared/frame/framed-page';
import { BenchAnswers } from '../store/bench-answers';
import { PictureContrast } from '../verdict/picture-contrast';
import { StateStrip } from './state-strip';

const CARDS = (count: number): string =>
  Array.from({ length: count }, (_, i) => `<section><h2>Tide ${i}</h2><button class="go">Row</button></section>`).join(
    '',
  );
const PAGE: FramedPage = {
  url: 'data:text/html,whole',
  veneerPlace: 'head-end',
  frameCss: '',
  amendments: new Map(),
  scheme: 'light',
};

describe('StateStrip', () => {
  let fixture: ComponentFixture<StateStrip>;
  const frames: HTMLIFrameElement[] = [];
  afterEach(() => frames.splice(0).forEach((frame) => frame.remove()));

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: BenchAnswers, useValue: { forcedStates: () => Promise.resolve([]) } },
      ],
    });
    TestBed.overrideProvider(PictureContrast, {
      useValue: { found: Object.assign(() => ({}), { set: () => undefined }), read: () => Promise.resolve({}) },
    });
    fixture = TestBed.createComponent(StateStrip);
    for (const [name, value] of Object.entries({
      inspection: null,
      target: null,
      page: PAGE,
      width: 1280,
      state: 'rest',
    }))
      fixture.componentRef.setInput(name, value);
  });

  async function load(body: string): Promise<FrameDocument> {
    const frame = document.createElement('iframe');
    frame.style.cssText = 'position: fixed; left: 0; top: 0; width: 900px; height: 600px; border: 0;';
    frames.push(frame);
    const loaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    frame.srcdoc = `<!doctype html><html><body><main>${body}</main></body></html>`;
    document.body.append(frame);
    await loaded;
    const content = frame.contentDocument as Document;
    content.querySelectorAll('*').forEach((element, i) => element.setAttribute('data-uv-n', String(i)));
    return new FrameDocument(content, 'head-end');
  }

  const numberOf = (element: Element): number => Number(element.getAttribute('data-uv-n'));
  const inspectionOf = (element: Element): Spoken<Inspection> =>
    ({
      pageId: 1,
      element: numberOf(element),
      pseudo: '',
      carrier: null,
      states: ['rest'],
      strip: [{ state: 'rest', ratio: null, wanted: 4.5, standing: 'holds', note: '', basis: '' }],
    }) as unknown as Spoken<Inspection>;
  /** Chooses an element, and gives what is known of it. */
  const inspect = (inspection: Spoken<Inspection>): void => {
    fixture.componentRef.setInput('target', inspection);
    fixture.componentRef.setInput('inspection', inspection);
  };
  const tileFrame = (): HTMLIFrameElement | null => (fixture.nativeElement as HTMLElement).querySelector('iframe');

  /** What the tile's frame draws, once it draws what is wanted of it. */
  async function drawn(isWanted: (html: string) => boolean): Promise<string> {
    for (let waited = 0; waited < 5_000; waited += 20) {
      await fixture.whenStable();
      const frame = tileFrame();
      const html = frame?.srcdoc || frame?.getAttribute('src') || '';
      if (html !== '' && isWanted(html)) return html;
      await new Promise((done) => setTimeout(done, 20));
    }
    return 'never drawn';
  }

  /** Waits until the tile's picture is to be seen. */
  async function seen(): Promise<void> {
    for (let waited = 0; waited < 5_000 && tileFrame()?.style.visibility !== ''; waited += 20) {
      await new Promise((done) => setTimeout(done, 20));
      await fixture.whenStable();
    }
    expect(tileFrame()?.style.visibility).toBe('');
  }

  it('draws a small page whole', async () => {
    const page = await load(CARDS(3));
    fixture.componentRef.setInput('drawn', page);
    inspect(inspectionOf(page.document.querySelectorAll('.go')[1]));
    expect(await drawn(() => true)).toBe(PAGE.url);
  });

  it('waits for the cut of a large page, and draws the one around the target chosen last', async () => {
    const page = await load(CARDS(1_200));
    const targets = page.document.querySelectorAll('.go');
    fixture.componentRef.setInput('drawn', page);
    inspect(inspectionOf(targets[3]));
    await fixture.whenStable();
    // Drawn whole it would stand here at once, to be taken away again.
    expect(tileFrame()).toBeNull();
    inspect(inspectionOf(targets[900]));
    const html = await drawn(() => true);
    expect(html).toContain('Tide 900');
    expect(html).not.toContain('Tide 3<');
    inspect(inspectionOf(targets[3]));
    await fixture.whenStable();
    expect(tileFrame()?.srcdoc).withContext('what stood there stands until the next is cut').toContain('Tide 900');
    expect(tileFrame()?.style.visibility).withContext('and is not seen as the picture of another').toBe('hidden');
    expect(await drawn((next) => next.includes('Tide 3<'))).not.toContain('Tide 900<');
    await seen();
    // One cut for another width is behind as well.
    fixture.componentRef.setInput('width', 390);
    await fixture.whenStable();
    expect(tileFrame()?.style.visibility).toBe('hidden');
    await seen();
  });

  it('cuts for what is chosen before it is known how it stands, and shows it then', async () => {
    const page = await load(CARDS(1_200));
    const [first, second] = [3, 900].map((i) => inspectionOf(page.document.querySelectorAll('.go')[i]));
    fixture.componentRef.setInput('drawn', page);
    inspect(first);
    await seen();
    fixture.componentRef.setInput('target', second);
    expect(await drawn((html) => html.includes('Tide 900<'))).not.toContain('Tide 3<');
    await new Promise((done) => setTimeout(done, 100));
    await fixture.whenStable();
    expect(tileFrame()?.style.visibility).withContext('the figures are of the target before').toBe('hidden');
    fixture.componentRef.setInput('inspection', second);
    await seen();
  });

  it('loads nothing for the target before into a tile that is new', async () => {
    const page = await load(CARDS(1_200));
    const targets = page.document.querySelectorAll('.go');
    fixture.componentRef.setInput('drawn', page);
    inspect(inspectionOf(targets[3]));
    await drawn(() => true);
    await seen();
    const next = inspectionOf(targets[900]);
    const hover = { ...next.strip[0], state: 'hover' as const };
    inspect({ ...next, states: ['rest', 'hover'], strip: [next.strip[0], hover] });
    const loaded = new Set<string>();
    for (let waited = 0; waited < 5_000 && ![...loaded].some((html) => html.includes('Tide 900')); waited += 5) {
      const frames = (fixture.nativeElement as HTMLElement).querySelectorAll('iframe');
      if (frames.length > 1) loaded.add(frames[1].srcdoc);
      await new Promise((done) => setTimeout(done, 5));
    }
    expect([...loaded].map((html) => /Tide (?:900|3)</.exec(html)?.[0])).toEqual(['Tide 900<']);
  });

  it('draws the page whole where a cut does not come out as the page is', async () => {
    const page = await load(
      `<style>main:has(.far b) .go { background: rgb(9, 9, 9) }</style>${CARDS(1_200)}<div style="height: 4000px"></div><div class="far"><b>far</b></div>`,
    );
    fixture.componentRef.setInput('drawn', page);
    inspect(inspectionOf(page.document.querySelectorAll('.go')[3]));
    expect(await drawn((html) => html === PAGE.url)).toBe(PAGE.url);
  });
});
