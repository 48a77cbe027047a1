import { parsePage } from './page.js';
import { StyleView } from './style-view.js';
import { showsText, wantedRatio } from './text-figures.js';

describe('text figures', () => {
  const styleOf = (body: string) => {
    const page = parsePage(`<!doctype html><body>${body}`);
    const target = page.document.elements.find(({ classes }) => classes.includes('t')) ?? page.document.rootElement;
    return new StyleView(page).style(target);
  };

  // Source: WCAG 2.2, definition of "large scale": 18 point, or 14 point bold; a point is 4/3 CSS px.
  const sizes: readonly (readonly [style: string, wanted: number])[] = [
    ['font-size: 16px', 4.5],
    ['font-size: 23.9px', 4.5],
    ['font-size: 24px', 3],
    ['font-size: 18.66px', 4.5],
    ['font-size: 18.67px; font-weight: bold', 3],
    ['font-size: 18px; font-weight: bold', 4.5],
    ['font-size: 19px; font-weight: 600', 4.5],
    ['font-size: 18pt', 3],
  ];
  for (const [style, wanted] of sizes)
    it(`${style} asks ${wanted} : 1`, () => expect(wantedRatio(styleOf(`<p class=t style="${style}">x`))).toBe(wanted));

  const texts: readonly (readonly [body: string, shows: boolean])[] = [
    ['<p class=t>x', true],
    ['<p class=t> <b>x</b> </p>', false],
    ['<input class=t>', true],
    ['<textarea class=t></textarea>', true],
    ['<select class=t><option>o</select>', true],
    ['<img class=t>', false],
  ];
  for (const [body, shows] of texts)
    it(`${body} ${shows ? 'shows' : 'shows no'} text`, () => expect(showsText(styleOf(body))).toBe(shows));
});
