import { spoken } from '@upper-veneer/words';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { surroundingsByChain } from './chain.js';
import { hexOf } from '../color/read-notation.js';

function surroundings(body: string) {
  const page = parsePage(`<!doctype html><body>${body}`);
  const target = page.document.elements.find((element) => element.classes.includes('t')) ?? page.document.rootElement;
  return surroundingsByChain(new StyleView(page), target);
}

describe('surroundings by the chain of ancestors', () => {
  // Expected colours by CSS Compositing 1 §5.1 and Color 4 §3.2 (opacity groups), worked out by hand.
  const rows: readonly (readonly [what: string, body: string, text: string, ground: string])[] = [
    ['the canvas', '<p class=t>', '#000000', '#ffffff'],
    [
      'the nearest opaque ancestor',
      '<div style="background: #123456"><section><p class=t style="color: #fff">',
      '#ffffff',
      '#123456',
    ],
    [
      'translucent fills over each other',
      '<div style="background: #000"><p class=t style="background: rgb(255 255 255 / 50%); color: red">',
      '#ff0000',
      '#808080',
    ],
    ['translucent text', '<p class=t style="color: rgb(0 0 0 / 50%)">', '#808080', '#ffffff'],
    [
      'an opacity group mixes text and ground with what lies behind',
      '<div style="background: #000"><p class=t style="background: #fff; color: #000; opacity: .5">',
      '#000000',
      '#808080',
    ],
    [
      'the worst stop of a gradient',
      '<p class=t style="color: #fff; background: linear-gradient(#000, #eee)">',
      '#ffffff',
      '#eeeeee',
    ],
  ];
  for (const [what, body, text, ground] of rows) {
    it(`finds ${what}`, () => {
      const found = surroundings(body);
      expect([hexOf(found.text), hexOf(found.ground)]).toEqual([text, ground]);
    });
  }

  it('says where a picture makes the figure uncertain', () => {
    expect(spoken(surroundings('<div style="background: url(a.png)"><p class=t>').doubts)).toEqual([
      'A picture lies under it',
    ]);
    expect(spoken(surroundings('<p class=t>').doubts)).toEqual([]);
  });

  // What an opaque fill hides, and an opacity group lets through: CSS Compositing 1 §5.1.
  const covers: readonly (readonly [what: string, inside: string, isDoubtful: boolean])[] = [
    ['an opaque fill hides it', '<p class=t style="background: #fff">', false],
    ['an opaque gradient hides it', '<p class=t style="background: linear-gradient(#000, #333)">', false],
    ['so does one between', '<section style="background: #123"><p class=t>', false],
    ['a sheer fill does not', '<p class=t style="background: rgb(0 0 0 / 60%)">', true],
    ['nor a gradient with a sheer stop', '<p class=t style="background: linear-gradient(#000, transparent)">', true],
    ['nor a fill in an opacity group', '<section style="opacity: .9"><p class=t style="background: #fff">', true],
    ['nor one whose own opacity is less than 1', '<p class=t style="background: #fff; opacity: .5">', true],
    ['nor another picture', '<p class=t style="background: #fff url(b.png)">', true],
  ];
  for (const [what, inside, isDoubtful] of covers) {
    it(`of a picture further out: ${what}`, () =>
      expect(surroundings(`<div style="background: url(a.png)">${inside}`).doubts.length > 0).toBe(isDoubtful));
  }
});
