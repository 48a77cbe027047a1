import { expectLikeBrowser } from '../testing/expect-like-browser.js';
import { parsePage } from './page.js';
import { StyleView } from './style-view.js';

describe('values as the engine writes them', () => {
  // Source: getComputedStyle of Chromium 156; CSS Values 4 §10.13 for what is infinite, CSS Images 4 §3 for gradients. Asked again in Karma.
  const rows: readonly (readonly [property: string, value: string, expected: string])[] = [
    ['border-top-left-radius', 'calc(infinity * 1px)', '3.35544e+07px'],
    ['border-top-left-radius', 'calc(-infinity * 1px)', '0px'],
    ['border-top-left-radius', 'calc(NaN * 1px)', '0px'],
    ['font-size', 'calc(infinity * 1px)', '10000px'],
    ['letter-spacing', 'calc(infinity * 1px)', '3.35544e+07px'],
    ['padding-top', 'calc(infinity * 1px)', '3.35544e+07px'],
    ['border-top-left-radius', '1e20px', '3.35544e+07px'],
    ['border-top-left-radius', '3.40282e+38px', '3.35544e+07px'],
    ['opacity', 'calc(infinity)', '1'],
    ['line-height', 'calc(infinity)', '3.40282e+38px'],
    ['line-height', 'calc(infinity*1px)', '3.35544e+07px'],
    ['border-top-width', 'calc(infinity*1px)', '3.35544e+07px'],
    ['outline-offset', 'calc(infinity*1px)', '3.35544e+07px'],
    ['text-shadow', '0 0 calc(infinity*1px) red', 'rgb(255, 0, 0) 0px 0px 3.40282e+38px'],
    ['box-shadow', '0 0 0 calc(infinity * 1px) red', 'rgb(255, 0, 0) 0px 0px 0px 3.40282e+38px'],
    ['font-weight', 'calc(infinity)', '1000'],
    ['border-top-left-radius', 'calc(1px / 0)', '3.35544e+07px'],
    ['border-top-left-radius', '50000000px', '3.35544e+07px'],
    ['border-top-left-radius', '33554432px', '3.35544e+07px'],
    ['border-top-left-radius', 'calc(infinity * 1%)', '3.40282e+38%'],
    ['text-indent', 'calc(infinity*1px)', '3.35544e+07px'],
    ['text-indent', 'calc(-infinity*1px)', '-3.35544e+07px'],
    ['font-size', '1e9px', '10000px'],
    ['border-top-width', '1e9px', '3.35544e+07px'],
    ['padding-top', '1e9px', '3.35544e+07px'],
    ['color', 'rgb(calc(infinity) 0 0)', 'rgb(255, 0, 0)'],
    ['color', 'rgb(0 0 0 / calc(infinity))', 'rgb(0, 0, 0)'],
    ['border-top-left-radius', 'calc(pi * 1px)', '3.14159px'],
    ['border-top-left-radius', 'round(5.4px, 1px)', '5px'],
    ['border-top-left-radius', 'max(1px, infinity * 1px)', '3.35544e+07px'],
    ['border-top-left-radius', 'clamp(1px, infinity*1px, 5px)', '5px'],
    ['background-image', 'linear-gradient(red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['background-image', 'linear-gradient(to bottom, red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['background-image', 'linear-gradient(180deg, red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'linear-gradient(to top, red, blue)',
      'linear-gradient(to top, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(to right bottom, red, blue)',
      'linear-gradient(to right bottom, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(to bottom right, red, blue)',
      'linear-gradient(to right bottom, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(red 10% 20%, blue)',
      'linear-gradient(rgb(255, 0, 0) 10%, rgb(255, 0, 0) 20%, rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(red 10% 20%, blue 50px 60px)',
      'linear-gradient(rgb(255, 0, 0) 10%, rgb(255, 0, 0) 20%, rgb(0, 0, 255) 50px, rgb(0, 0, 255) 60px)',
    ],
    ['background-image', 'linear-gradient(0.5turn, red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['background-image', 'linear-gradient(200grad, red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['background-image', 'linear-gradient(0, red, blue)', 'linear-gradient(0deg, rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'linear-gradient(45deg, rgba(0,0,0,.15) 25%, transparent 25% 50%, red 0)',
      'linear-gradient(45deg, rgba(0, 0, 0, 0.15) 25%, rgba(0, 0, 0, 0) 25%, rgba(0, 0, 0, 0) 50%, rgb(255, 0, 0) 0px)',
    ],
    ['background-image', 'radial-gradient(red, blue)', 'radial-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'radial-gradient(circle, red, blue)',
      'radial-gradient(circle, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(ellipse at center, red, blue)',
      'radial-gradient(rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(circle at 50% 50%, red, blue)',
      'radial-gradient(circle, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(farthest-corner, red, blue)',
      'radial-gradient(rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(closest-side circle at left, red, blue)',
      'radial-gradient(circle closest-side at 0% 50%, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    ['background-image', 'radial-gradient(10px, red, blue)', 'radial-gradient(10px, rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'radial-gradient(circle 10px, red, blue)',
      'radial-gradient(10px, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(10px 20px at top left, red, blue)',
      'radial-gradient(10px 20px at 0% 0%, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(ellipse farthest-corner at 20px, red, blue)',
      'radial-gradient(at 20px 50%, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(circle farthest-corner, red, blue)',
      'radial-gradient(circle, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    ['background-image', 'conic-gradient(red, blue)', 'conic-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    ['background-image', 'conic-gradient(from 0deg, red, blue)', 'conic-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'conic-gradient(from 45deg at 10px 20%, red 0deg 90deg, blue 0)',
      'conic-gradient(from 45deg at 10px 20%, rgb(255, 0, 0) 0deg, rgb(255, 0, 0) 90deg, rgb(0, 0, 255) 0deg)',
    ],
    ['background-image', 'conic-gradient(at center, red, blue)', 'conic-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'conic-gradient(from 0.25turn, red 25%, blue 0 50%)',
      'conic-gradient(from 90deg, rgb(255, 0, 0) 25%, rgb(0, 0, 255) 0deg, rgb(0, 0, 255) 50%)',
    ],
    [
      'background-image',
      'repeating-linear-gradient(to bottom, red 0 5px, blue 5px 10px)',
      'repeating-linear-gradient(rgb(255, 0, 0) 0px, rgb(255, 0, 0) 5px, rgb(0, 0, 255) 5px, rgb(0, 0, 255) 10px)',
    ],
    [
      'background-image',
      'linear-gradient(in oklch, red, blue)',
      'linear-gradient(in oklch, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(to right in oklab, red, blue)',
      'linear-gradient(to right in oklab, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    ['background-image', 'linear-gradient(in srgb, red, blue)', 'linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'linear-gradient(in hsl longer hue, red, blue)',
      'linear-gradient(in hsl longer hue, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    ['background-image', 'linear-gradient(red, 30%, blue)', 'linear-gradient(rgb(255, 0, 0), 30%, rgb(0, 0, 255))'],
    [
      'background-image',
      'linear-gradient(rgb(0 0 0 / 0.5), currentcolor)',
      'linear-gradient(rgba(0, 0, 0, 0.5), rgb(0, 0, 0))',
    ],
    [
      'background-image',
      '-webkit-linear-gradient(top, red, blue)',
      '-webkit-linear-gradient(top, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      '-webkit-linear-gradient(red, blue)',
      '-webkit-linear-gradient(top, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      '-webkit-gradient(linear, left top, left bottom, from(red), to(blue))',
      '-webkit-gradient(linear, 0% 0%, 0% 100%, from(rgb(255, 0, 0)), to(rgb(0, 0, 255)))',
    ],
    ['background-image', 'linear-gradient(red)', 'linear-gradient(rgb(255, 0, 0))'],
    [
      'background-image',
      'linear-gradient(red calc(10% + 5px), blue)',
      'linear-gradient(rgb(255, 0, 0) calc(10% + 5px), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      '-webkit-radial-gradient(circle, red, blue)',
      '-webkit-radial-gradient(center, circle cover, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(color-mix(in srgb, red, blue), blue)',
      'linear-gradient(color(srgb 0.5 0 0.5), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(to left, oklch(50% 0.1 20), blue)',
      'linear-gradient(to left, oklch(0.5 0.1 20), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(-90deg, red, blue)',
      'linear-gradient(-90deg, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(1rad, red, blue)',
      'linear-gradient(57.2958deg, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(closest-side, red, blue)',
      'radial-gradient(closest-side, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(at bottom right, red, blue)',
      'radial-gradient(at 100% 100%, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(at right 10px top 20px, red, blue)',
      'radial-gradient(at calc(100% - 10px) 20px, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(at 1em, red, blue)',
      'radial-gradient(at 16px 50%, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(90deg, red 1em, blue 2rem)',
      'linear-gradient(90deg, rgb(255, 0, 0) 16px, rgb(0, 0, 255) 32px)',
    ],
    [
      'background-image',
      'linear-gradient(in oklab to right, red, blue)',
      'linear-gradient(to right in oklab, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'linear-gradient(90deg in srgb, color(srgb 1 0 0), blue)',
      'linear-gradient(90deg in srgb, color(srgb 1 0 0), rgb(0, 0, 255))',
    ],
    [
      'background-image',
      'radial-gradient(circle at top in oklab, red, blue)',
      'radial-gradient(circle at 50% 0% in oklab, rgb(255, 0, 0), rgb(0, 0, 255))',
    ],
    ['background-image', 'conic-gradient(in hsl, red, blue)', 'conic-gradient(in hsl, rgb(255, 0, 0), rgb(0, 0, 255))'],
    [
      'background-image',
      'linear-gradient(oklch(0.5 0.1 20), oklch(0.6 0.1 30))',
      'linear-gradient(oklch(0.5 0.1 20), oklch(0.6 0.1 30))',
    ],
    [
      'background-image',
      'linear-gradient(to top left, red 50%, 60%, blue 90% 100%)',
      'linear-gradient(to left top, rgb(255, 0, 0) 50%, 60%, rgb(0, 0, 255) 90%, rgb(0, 0, 255) 100%)',
    ],
  ];
  for (const [property, value, expected] of rows) {
    it(`${property}: ${value}`, async () => {
      const html = `<!doctype html><body><p style="${property === 'border-top-width' ? 'border-top-style: solid; ' : ''}${property}: ${value}">`;
      const page = parsePage(html);
      const target = page.document.elements.find(({ localName }) => localName === 'p');
      expect(target && new StyleView(page).style(target).resolved(property)).toBe(expected);
      await expectLikeBrowser(html, [property]);
    });
  }
});

describe('native controls', () => {
  const OPTIONS =
    '<option>a</option><option selected>b</option><option disabled>c</option><option disabled selected>c2</option><optgroup label=g disabled><option>d</option></optgroup><optgroup label=h><option>e</option><option disabled>f</option></optgroup>';
  // Source: Chromium's getComputedStyle, in Karma; the colours of the rows in Node are those it gave.
  const rows: readonly (readonly [what: string, html: string, color: string])[] = [
    ['a chosen option of a list box', `<select multiple>${OPTIONS}</select>`, 'rgb(16, 16, 16)'],
    ['a chosen option of a menu', `<select>${OPTIONS.replace(' disabled selected', '')}</select>`, 'rgb(0, 0, 0)'],
    [
      'a list box that is off',
      `<select size=3 disabled>${OPTIONS.replace(' disabled selected', '')}</select>`,
      'rgb(128, 128, 128)',
    ],
    [
      'a coloured list box',
      `<select size=3 style="color: teal; background: pink">${OPTIONS.replace(' disabled selected', '')}</select>`,
      'rgb(16, 16, 16)',
    ],
    [
      'options that the author colours',
      `<style>option { color: red; background: yellow } option:checked { color: blue }</style><select size=3>${OPTIONS.replace(' disabled selected', '')}</select>`,
      'rgb(0, 0, 255)',
    ],
    ['two chosen where one can be', `<select size=3>${OPTIONS}</select>`, 'rgb(0, 0, 0)'],
  ];
  for (const [what, html, color] of rows) {
    it(what, async () => {
      const page = parsePage(`<!doctype html><body>${html}`);
      const second = page.document.elements.filter(({ localName }) => localName === 'option')[1];
      expect(new StyleView(page).style(second).resolved('color')).toBe(color);
      await expectLikeBrowser(`<!doctype html><body>${html}`, ['color', 'background-color']);
    });
  }

  it('keep their corners while they are native, and take the author’s once they are not', async () => {
    const css =
      '.a { border-radius: 5px } .b { border: 1px solid red } .c { appearance: none; border-radius: 5px } .d { background: red; border-radius: 3px } .e { appearance: none } .f { -webkit-appearance: none; border: 2px solid }';
    const html = `<!doctype html><style>${css}</style><body>${['radio', 'checkbox'].flatMap((type) => ['a', 'b', 'c', 'd', 'e', 'f', ''].map((name) => `<input type=${type} class=${name}>`)).join('')}`;
    const page = parsePage(html);
    const view = new StyleView(page);
    expect(
      page.document.elements
        .filter(({ localName }) => localName === 'input')
        .slice(0, 6)
        .map((element) => view.style(element).resolved('border-top-left-radius')),
    ).toEqual(['50%', '50%', '5px', '50%', '0px', '0px']);
    await expectLikeBrowser(html, ['border-top-left-radius', 'border-top-width', 'border-top-style']);
  });

  it('stand in a line of their own kind only while they are native', async () => {
    const kinds = [
      '<button>a</button>',
      '<input>',
      '<input type=checkbox>',
      '<select></select>',
      '<textarea></textarea>',
      '<meter></meter>',
    ];
    const css =
      '.i { display: inline } .n { display: inline; appearance: none } .t { display: inline-table; appearance: none } .l { display: list-item; -webkit-appearance: none } .u { all: unset }';
    const html = `<!doctype html><style>${css}</style><body>${kinds.flatMap((kind) => ['i', 'n', 't', 'l', 'u'].map((name) => kind.replace(/^<(\w+)/, `<$1 class=${name}`))).join('')}`;
    const view = new StyleView(parsePage(html));
    expect(
      view.page.document.elements
        .filter(({ localName }) => localName === 'button')
        .map((element) => view.style(element).resolved('display')),
    ).toEqual(['inline-block', 'inline', 'inline-table', 'list-item', 'inline']);
    await expectLikeBrowser(html, ['display']);
  });

  // A malformed range of code points is a value of nothing (CSS Syntax 3 §7): css-tree throws it, browsers drop it.
  for (const property of ['color', 'background', 'box-shadow', 'border', 'columns', 'font']) {
    it(`drops ${property}: 0 1px u+zz`, () => {
      const page = parsePage(`<!doctype html><p style="${property}: 0 1px u+zz; opacity: .5">`);
      expect(new StyleView(page).styleAt(3).resolved('opacity')).toBe('0.5');
      expect(new StyleView(page).styleAt(3).ranked(property)).toEqual([]);
    });
  }
});
