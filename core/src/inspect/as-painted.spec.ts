import { say } from '@upper-veneer/words';
import { rangeOverPicture } from '../image/range-over-picture.js';
import { hexOf } from '../color/read-notation.js';
import { StyleView } from '../resolve/style-view.js';
import { pageOf } from '../site/site-model.js';
import { numberOn, openOnePage } from '../testing/one-page-site.js';
import { rgb8 } from '../values/color.js';
import { asPainted } from './as-painted.js';

/** Source-over by hand, CSS Compositing 1 §5.1: co = cs·αs + cb·(1 − αs), of 8-bit channels. */
function over(source: readonly number[], alpha: number, backdrop: readonly number[]): string {
  const channels = source.map((value, i) => Math.round(value * alpha + backdrop[i] * (1 - alpha)));
  return `#${channels.map((value) => value.toString(16).padStart(2, '0')).join('')}`;
}

describe('a colour as painted', () => {
  const site = openOnePage(
    `body { background: #fff } .card { background: #204060; opacity: .5 } .card p { color: rgb(255 0 0 / .4); background: #101010 }
     #tile { background: #204060; border: 2px solid rgb(255 255 255 / .25); opacity: .5; text-decoration-color: rgb(255 255 255 / .5) }
     #clipped { background: #204060 padding-box; border: 2px solid rgb(255 255 255 / .25) } .edge { background: #fff; border: 2px solid rgb(0 0 0 / .25); outline: 2px solid transparent }
     .photo { background-image: url(a.png) } .photo b { color: #fff }`,
    '<div class=card><p>Text</p></div><div class=edge>E</div><div id=tile>T</div><div id=clipped>C</div><div class=photo><b>Over</b></div>',
  );
  const page = pageOf(site, 1);
  const view = new StyleView(page);
  const painted = (selector: string, property: string): ReturnType<typeof asPainted> =>
    asPainted(view, page.document.elements[numberOn(site, selector)], '', property);

  it('has alpha worked in over its ground, and the opacity around it', () => {
    const onCard = [255, 0, 0].map((value) => value * 0.4 + 16 * 0.6);
    expect(painted('.card p', 'color')?.hex).toBe(over(onCard, 0.5, [255, 255, 255]));
  });

  it('is laid over what lies around for an edge, and is none where it is clear', () => {
    expect(painted('.edge', 'border-top-color')).toEqual({
      hex: over([0, 0, 0], 0.25, [255, 255, 255]),
      on: '#ffffff',
      doubts: [],
    });
    expect(painted('.edge', 'outline-color')).toBeNull();
    expect(painted('.edge', 'border-top-width')).toBeNull();
  });

  // Source: CSS Backgrounds 3 §2.5 and CSS Color 4 §3.2: one piece, laid on at its opacity.
  it('has the element’s own fill under its edge, and is laid on with it in one piece', () => {
    const edge = [0x20, 0x40, 0x60].map((value) => 255 * 0.25 + value * 0.75);
    expect(painted('#tile', 'border-left-color')?.hex).toBe(over(edge, 0.5, [255, 255, 255]));
    expect(painted('#tile', 'border-left-color')?.doubts).toEqual([]);
    expect(painted('#clipped', 'border-left-color')?.hex).toBe('#ffffff');
    expect(painted('#tile', 'text-decoration-color')?.doubts.map(say).join()).toContain('opacity');
  });

  it('says where a picture lies under it', () => {
    expect(painted('.photo b', 'color')?.doubts.map(say).join()).toContain('picture');
  });

  it('has a range over a picture, specks left aside', () => {
    // Of a hundred pixels 3 are black, 47 grey, 47 pale and 3 white: a twentieth at either end is left aside.
    const pixels = [
      ...Array(3).fill(0),
      ...Array(47).fill(100),
      ...Array(47).fill(200),
      ...Array(3).fill(255),
    ] as number[];
    const raster = {
      width: 100,
      height: 1,
      data: Uint8ClampedArray.from(pixels.flatMap((value) => [value, value, value, 255])),
    };
    expect(rangeOverPicture(rgb8(255, 255, 255, 0.6), raster)?.map(hexOf)).toEqual([
      over([255, 255, 255], 0.6, [100, 100, 100]),
      over([255, 255, 255], 0.6, [200, 200, 200]),
    ]);
    expect(rangeOverPicture(rgb8(0, 0, 0), { width: 0, height: 0, data: new Uint8ClampedArray() })).toBeNull();
  });
});
