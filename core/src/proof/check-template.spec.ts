import { say, spoken } from '@upper-veneer/words';
import Color from 'colorjs.io';
import { openSite, pageOf, viewIn, dressSite, type SiteModel } from '../site/site-model.js';
import { numberOn } from '../testing/one-page-site.js';
import { toEnd } from '../to-end.js';
import type { Palette } from '../veneer/palette.js';
import { checkTemplate } from './check-template.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Ink', css: '#1d2b2a' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
  ],
  roles: [
    { role: 'ink', swatchId: 1, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
  ],
};
const CSS =
  'body { background: #fff; color: #1d2b2a } .ck[data-form=dark] .head { background: #1d2b2a } .ck[data-form=loud] b { background: linear-gradient(#f0f, #0ff) } .ck[data-form=mid] { text-align: center }';
const HTML = `<!doctype html><head><style>${CSS}</style></head><body><div class=ck><div class=head><img src="logo.svg" alt=""><h2>Pay</h2></div><p>By the river</p><b>Now</b></div><p class=out>Outside</p></body>`;
const template = (name: string) => ({
  name,
  acts: [{ selector: '.ck', act: 'set-attribute' as const, name: 'data-form', value: name }],
});

function siteIn(form: string): SiteModel {
  const part = {
    id: 1,
    name: 'Checkout',
    kind: 'embedded widget',
    selector: '.ck',
    openers: [],
    templates: ['dark', 'loud', 'mid', 'same'].map(template),
    template: form,
  };
  return dressSite(
    openSite({
      pages: [{ id: 1, name: 'Home', path: 'index.html', html: HTML }],
      stylesheets: {},
      parts: [part],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    PALETTE,
  );
}

describe('checkTemplate', () => {
  const site = siteIn('');
  const faultsIn = (form: string) => toEnd(checkTemplate(site, 1, form)).faults;

  it('tells the headline that is lost, by what the site resolves to in that template', () => {
    const faults = faultsIn('dark').filter(({ kind }) => kind === 'reads');
    expect(faults.map(({ spot }) => spot.element)).toContain(numberOn(site, 'h2'));
    // The site really in it: WCAG 2.2's ratio of the colours it resolves to, by colorjs.io.
    const dark = siteIn('dark');
    const page = pageOf(dark, 1);
    const colorOf = (selector: string, property: string): Color => {
      const element = page.document.elements[numberOn(dark, selector)];
      return new Color(viewIn(page, element, 'rest', 1280).style(element).resolved(property));
    };
    const ratio = colorOf('h2', 'color').contrastWCAG21(colorOf('.head', 'background-color'));
    expect(ratio).toBeLessThan(3);
    expect(spoken(faults[0].words)).toContain(`: ${(Math.floor(ratio * 10) / 10).toFixed(1)} where`);
  });

  it('tells the picture that stands on another ground', () => {
    expect(
      spoken(
        faultsIn('dark')
          .filter(({ kind }) => kind === 'picture')
          .map(({ words }) => words),
      ),
    ).toEqual(['logo.svg stands on #1d2b2a, on #ffffff before: look whether it can still be seen']);
  });

  it('tells the gradient that nothing matched, and what is aligned otherwise', () => {
    expect(faultsIn('loud').filter(({ kind }) => kind === 'ours').length).toBe(2);
    const aligned = faultsIn('mid').filter(({ kind }) => kind === 'align');
    expect(aligned.map(({ words }) => say(words).split(',')[0])).toEqual(['text-align start → center']);
  });

  it('tells nothing where nothing changes, and nothing once more that did not hold before', () => {
    expect(faultsIn('same')).toEqual([]);
    expect(faultsIn('')).toEqual([]);
    // From the dark form, going back mends; the faults of the dark one are not told.
    expect(toEnd(checkTemplate(siteIn('dark'), 1, '')).faults.filter(({ kind }) => kind === 'reads')).toEqual([]);
  });
});
