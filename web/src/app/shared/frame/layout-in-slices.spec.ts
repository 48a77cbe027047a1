import { layoutInSlices } from './layout-in-slices';
import { measureLayout } from './measure-layout';

describe('layoutInSlices', () => {
  it('measures as at one go, whatever the numbers, and pauses between', async () => {
    const holder = document.createElement('div');
    holder.innerHTML = `<style>.m { position: relative } .m::after { content: ""; position: absolute; left: 2px; top: 3px; width: 4px; height: 5px }</style>${'<p>Tides <b class="m">of the</b> week</p>'.repeat(130)}<p style="width: 30px">a <i>long line that breaks</i></p>`;
    document.body.append(holder);
    const elements = new Map([...holder.querySelectorAll('p, b, i')].map((element, i) => [i * 2 + 5, element]));
    let pauses = 0;
    const sliced = await layoutInSlices(document, elements, async () => {
      pauses += 1;
    });
    expect(sliced).toEqual(measureLayout(document, elements));
    expect(sliced?.pseudoBoxes.length).toBe(130);
    expect(pauses).toBe(Math.ceil(elements.size / 100));
    holder.remove();
  });
});
