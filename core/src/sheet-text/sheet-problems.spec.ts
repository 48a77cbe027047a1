import { say } from '@upper-veneer/words';
import { dressSite } from '../site/site-model.js';
import { openDrawn } from '../testing/drawn-veneers.js';
import { sheetProblems, type SheetProblem } from './sheet-problems.js';

const SITE = dressSite(openDrawn(), [], { swatches: [], roles: [] });
const told = (css: string): [SheetProblem['level'], string, string][] =>
  sheetProblems(SITE, css).map(({ level, start, end, mend }) => [level, css.slice(start, end), say(mend)]);

// What browsers throw away is CSS Syntax 3 §§5.4 and 9 and Selectors 4 §3.9: the piece alone, and no more.
describe('problems of a sheet', () => {
  it('are none where a browser takes all, and all of it is for something here', () => {
    expect(
      told(
        '.a { color: red; --x: {a b}; display: grid; grid-template: 1fr / auto }\n@media print { .b { color: blue } }',
      ),
    ).toEqual([]);
    expect(told('@font-face { font-family: Osier; src: url(o.woff2); font-display: swap }')).toEqual([]);
    expect(told('@keyframes k { from { color: red } 50% { color: blue } }')).toEqual([]);
    expect(told('.a { color: red; &:hover { color: blue } .d & { color: teal } }')).toEqual([]);
  });

  it('name the line and how to mend it', () => {
    expect(told('.a { colr: red; color: reddish; }')).toEqual([
      ['fails', 'colr: red', 'Perhaps color is meant'],
      ['fails', 'color: reddish', 'Give color a value it takes, or take the line out'],
    ]);
    expect(told('.a >> .b { color: red }').map(([level, place]) => [level, place])).toEqual([['fails', '.a >> .b ']]);
    expect(told('@meda print { .a { color: red } }')[0]).toEqual(['fails', '@meda print ', 'Perhaps @media is meant']);
    expect(told('.a { color red; opacity: 1 }').map(([level]) => level)).toEqual(['fails']);
    expect(told('.a { color: PLACEHOLDER }').map(([, place]) => place)).toContain('PLACEHOLDER');
  });

  it('stop the sheet where it would swallow what follows, or needs another', () => {
    expect(told('.a { color: red').find(([level]) => level === 'stops')).toEqual(['stops', '{', 'Close it']);
    expect(told('.a { content: "x\n }').map(([level]) => level)).toContain('stops');
    expect(told('/* never closed').map(([level]) => level)).toContain('stops');
    expect(told('@import "x.css"; .a { color: red }')[0]).toEqual([
      'stops',
      '@import',
      'Paste what that sheet holds instead',
    ]);
  });

  it('say what matches nothing here', () => {
    expect(told('.nowhere:hover { color: red }').map(([level, place]) => [level, place])).toEqual([
      ['look', '.nowhere:hover '],
    ]);
  });
});
