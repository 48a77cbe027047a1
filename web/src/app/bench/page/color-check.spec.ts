import { FrameDocument } from '../../shared/frame/frame-document';
import { compareColors, sameColor } from './color-check';

describe('sameColor', () => {
  const rows: readonly (readonly [a: string, b: string, same: boolean])[] = [
    ['rgb(1, 2, 3)', 'rgb(1, 2, 3)', true],
    ['rgb(1, 2, 3)', 'rgb(1, 2, 4)', false],
    ['oklch(0.5 0.1 20)', 'oklch(0.500001 0.1 20)', true],
    ['rgb(1, 2, 3)', 'rgba(1, 2, 3, 0.5)', false],
    ['color(srgb 1 0 0)', 'rgb(255, 0, 0)', false],
  ];
  for (const [a, b, same] of rows)
    it(`${a} and ${b} are ${same ? 'the same' : 'different'}`, () => expect(sameColor(a, b)).toBe(same));
});

describe('compareColors', () => {
  let frame: HTMLIFrameElement;
  beforeEach(async () => {
    frame = document.createElement('iframe');
    frame.setAttribute('sandbox', 'allow-same-origin');
    frame.srcdoc =
      '<html data-uv-n="0"><head data-uv-n="1"><style>p { color: rgb(1, 2, 3) } p:is(:hover, [data-uv-hover]) { color: red }</style></head><body data-uv-n="2"><p data-uv-n="3">x</p></body></html>';
    document.body.append(frame);
    await new Promise((done) => frame.addEventListener('load', done));
  });
  afterEach(() => frame.remove());
  const page = (): FrameDocument => new FrameDocument(frame.contentDocument as Document, 'head-end');

  it('finds what the frame paints otherwise, by real computed values', async () => {
    const values = [['rgb(0, 0, 0)'], ['rgb(0, 0, 0)'], ['rgb(0, 0, 0)'], ['rgb(9, 9, 9)']];
    expect(await compareColors(page(), { properties: ['color'], values }, () => false)).toEqual([
      { element: 3, property: 'color', core: 'rgb(9, 9, 9)', frame: 'rgb(1, 2, 3)' },
    ]);
    values[3] = ['rgb(1, 2, 3)'];
    expect(await compareColors(page(), { properties: ['color'], values }, () => false)).toEqual([]);
  });

  it('forces and lets go of states, and lays a veneer on, without loading again', () => {
    const shown = page();
    const root = frame.contentDocument;
    shown.force([{ element: 3, names: ['hover'] }]);
    expect(shown.colorsOf(3, ['color'])).toEqual(['rgb(255, 0, 0)']);
    shown.force([]);
    expect(shown.colorsOf(3, ['color'])).toEqual(['rgb(1, 2, 3)']);
    shown.dress('p { color: rgb(7, 7, 7) }');
    expect(shown.colorsOf(3, ['color'])).toEqual(['rgb(7, 7, 7)']);
    expect(frame.contentDocument).toBe(root);
    expect(shown.element(99)).toBeNull();
    expect(shown.boxOf(1)).toBeNull();
  });
});
