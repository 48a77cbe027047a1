import { paintingOrderOf } from '../ground/painting-order.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';

// What stands in the top layer, of which backdrops: HTML §4.11.4 and §6.12, Positioned Layout 4 §5; `e2e/` holds the values against Chromium.
describe('what stood in the top layer when a page was captured', () => {
  const html =
    '<!doctype html><style>dialog:modal { color: rgb(1 2 3) } dialog::backdrop { background-color: rgb(9 9 9 / .5) } [popover]:popover-open { color: rgb(4 5 6) }</style><body>' +
    '<dialog id=a open data-top-layer=modal>x</dialog><dialog id=b open>x</dialog><div id=c popover data-top-layer=popover>x</div><div id=d popover>x</div><p id=e data-top-layer=modal>x</p>';
  const page = parsePage(html);
  const view = new StyleView(page);
  const named = (id: string) => page.document.elements.find(({ attributes }) => attributes.get('id') === id)!;

  it('matches what the dialog and the popover matched there, and nothing that only says so', () => {
    const colors = ['a', 'b', 'c', 'd', 'e'].map((id) => view.style(named(id)).resolved('color'));
    expect(colors).toEqual(['rgb(1, 2, 3)', 'rgb(0, 0, 0)', 'rgb(4, 5, 6)', 'rgb(0, 0, 0)', 'rgb(0, 0, 0)']);
    expect(['a', 'b', 'c', 'd'].map((id) => view.style(named(id)).resolved('position'))).toEqual([
      'fixed',
      'absolute',
      'fixed',
      'fixed',
    ]);
    expect(view.style(named('a'), 'backdrop').resolved('background-color')).toBe('rgba(9, 9, 9, 0.5)');
  });

  it('is painted over all else, its backdrop under it', () => {
    const count = page.document.elements.length;
    const boxes = new Float32Array(count * 4).fill(10);
    const { painters } = paintingOrderOf(view, {
      width: 300,
      height: 200,
      boxes,
      fragments: new Map(),
      lines: new Map(),
      pseudoBoxes: new Map(),
    });
    const names = painters.map(
      ({ element, pseudo }) => `${element.attributes.get('id') ?? element.localName}${pseudo}`,
    );
    expect(names.slice(-4)).toEqual(['abackdrop', 'a', 'cbackdrop', 'c']);
    expect(names.filter((name) => name === 'a').length).toBe(1);
  });
});
