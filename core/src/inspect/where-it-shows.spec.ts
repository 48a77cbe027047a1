import { openOnePage, numberOn } from '../testing/one-page-site.js';
import { pageOf } from '../site/site-model.js';
import { whereItShows } from './where-it-shows.js';

// What each rule reaches is read off the selectors by hand.
describe('where something shows', () => {
  const site = openOnePage(
    '.a { color: red } .a:hover { color: blue } @media (max-width: 600px) { .b { color: red } } p { font-family: "Wren", serif }',
    '<p class=a>x</p><p class=b>y</p><div>z</div>',
  );
  const [{ name }] = pageOf(site, 1).sheets;

  it('of a stylesheet: what its rules reach as wide as asked', () => {
    expect(whereItShows(site, 1, { kind: 'sheet', name }, 1280)).toEqual([numberOn(site, '.a'), numberOn(site, '.b')]);
    expect(whereItShows(site, 1, { kind: 'sheet', name: 'other.css' }, 1280)).toEqual([]);
  });

  it('of a font: what is set in it', () => {
    expect(whereItShows(site, 1, { kind: 'font', family: 'Wren, serif' }, 1280)).toEqual([
      numberOn(site, '.a'),
      numberOn(site, '.b'),
    ]);
  });

  it('of a part: its outermost elements, none for one that is not there', () => {
    expect(whereItShows(site, 1, { kind: 'part', partId: 7 }, 1280)).toEqual([]);
  });
});
