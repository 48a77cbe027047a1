import { parsePage } from '../resolve/page.js';
import { reanchor } from './reanchor.js';

describe('reanchor', () => {
  const before = parsePage(
    '<!doctype html><body><main><p class=a>one</p><p class=a>two</p><a id=go href=#>Go</a><b>x</b></main>',
  );
  const numberOf = (page: typeof before, text: string): number =>
    page.document.elements.findIndex(({ ownText }) => ownText === text);

  it('finds an element again after others came before it', () => {
    const after = parsePage(
      '<!doctype html><body><header><p class=a>new</p></header><main><div></div><p class=a>two</p><p class="a b">one</p><a id=go href=#>Went</a></main>',
    );
    expect(reanchor(before, after, numberOf(before, 'one'))).toBe(numberOf(after, 'one'));
    expect(reanchor(before, after, numberOf(before, 'two'))).toBe(numberOf(after, 'two'));
    expect(reanchor(before, after, numberOf(before, 'Go'))).toBe(numberOf(after, 'Went'));
  });

  it('says when there is nothing like it', () => {
    expect(reanchor(before, parsePage('<!doctype html><body><p>other</p>'), numberOf(before, 'x'))).toBeNull();
    expect(reanchor(before, before, 999)).toBeNull();
  });
});
