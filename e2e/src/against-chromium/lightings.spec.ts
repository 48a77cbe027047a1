import { say, spoken } from '@upper-veneer/words';
import {
  StyleView,
  compileVeneer,
  dressSite,
  hexOf,
  lightSite,
  openSite,
  pageOf,
  planAll,
  sheetOptionsOf,
  toEnd,
  withOverrides,
  colorOfValue,
  judgeLightings,
  type LightingSignal,
  type Override,
  type OverrideWish,
  type Palette,
  type SiteModel,
} from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';

/** A theme that turns dark itself, by scheme and by class, with rules that are stronger there. */
const THEME = `
  body { background: #fff; color: #333 }
  .card { background: #f4f0ff; color: #444; border: 2px solid #9a86d8 }
  .card a { color: #5b3fc4 } .card a:hover { color: #2c1780 }
  #go { background: linear-gradient(#7a5cf0, #5b3fc4); color: #fff }
  .tag::before { content: "new"; background: #5b3fc4; color: #fff }
  @media (prefers-color-scheme: dark) {
    body { background: #111; color: #ddd } main .card { background: #1d1a2b; color: #ccc } .card p a { color: #b5a4ff }
  }
  html.night body, body[data-light="out"] { background: #0b0b0b; color: #eee }
  html.night main .card, [data-light="out"] main .card { background: #1a1726 }
  html.night main .card p a, body[data-light="out"] .card p a { color: #c9bcff }
`;
const BODY =
  '<main><section class=card><h2 class=tag>Trips</h2><p>See <a href=a>the river</a> or <a href=b class=more>the map</a></p><button id=go>Go</button></section></main>';
const HTML = `<!doctype html><html><head><style>${THEME}</style></head><body>${BODY}</body></html>`;

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Paper', css: '#f7f3e9' },
    { id: 2, name: 'Ink', css: '#1d2b2a' },
    { id: 3, name: 'Willow', css: '#8f3f16' },
    { id: 4, name: 'White', css: '#ffffff' },
  ],
  roles: [
    { role: 'ground', swatchId: 1, shade: 0 },
    { role: 'ink', swatchId: 2, shade: 0 },
    { role: 'accent', swatchId: 3, shade: 0 },
    { role: 'on-accent', swatchId: 4, shade: 0 },
    { role: 'link', swatchId: 3, shade: 0 },
  ],
};
const SIGNALS: readonly (readonly [string, LightingSignal])[] = [
  ['the scheme', { kind: 'scheme' }],
  ['a class of the root', { kind: 'marker', on: 'html', attribute: 'class', value: 'night' }],
  ['an attribute of the body', { kind: 'marker', on: 'body', attribute: 'data-light', value: 'out' }],
];

function opened(told: LightingSignal, asValues: boolean): SiteModel {
  return dressSite(
    openSite({
      pages: [{ id: 1, name: 'Home', path: 'index.html', html: HTML }],
      stylesheets: {},
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'or',
      asValues,
    }),
    [],
    { ...PALETTE, second: { told, roles: [] } },
  );
}

/** What is wished for: selector, property, role, shade, state and pseudo-element. */
const WISHES = [
  ['body', 'background-color', 'ground', 0, 'rest', ''],
  ['body', 'color', 'ink', 0, 'rest', ''],
  ['.card', 'background-color', 'ground', -4, 'rest', ''],
  ['.card', 'border-top-color', 'accent', 0, 'rest', ''],
  ['.card a', 'color', 'link', 0, 'rest', ''],
  ['.card a', 'color', 'link', -10, 'hover', ''],
  ['#go', 'background-image', 'accent', 0, 'rest', ''],
  ['#go', 'color', 'on-accent', 0, 'rest', ''],
  ['h2', 'background-color', 'accent', 0, 'rest', 'before'],
] as const;

function laidOn(site: SiteModel): SiteModel {
  const page = pageOf(site, 1);
  const numberOf = (selector: string): number =>
    page.document.elements.findIndex(({ localName, id, classes, parent }) =>
      selector === '.card a'
        ? localName === 'a' && parent?.localName === 'p'
        : [localName, `#${id ?? ''}`, ...classes.map((name) => `.${name}`)].includes(selector),
    );
  const wishes = WISHES.map(([selector, property, role, shade, state, pseudo]): OverrideWish => ({
    pageId: 1,
    element: numberOf(selector),
    pseudo,
    reach: 'alike',
    state,
    property,
    value:
      property === 'background-image'
        ? {
            kind: 'composite',
            css: 'linear-gradient({0}, {1})',
            colors: [
              { kind: 'role', role, shade },
              { kind: 'role', role, shade: -8 },
            ],
          }
        : { kind: 'role', role, shade },
    width: 1280,
  }));
  const plan = planAll(site, wishes);
  expect(spoken(plan.refused)).toEqual([]);
  return withOverrides(site, plan);
}

const PROPERTIES = ['color', 'background-color', 'border-top-color', 'background-image'];

describe('two lightings', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: getComputedStyle of Chromium with the scheme emulated, the class or the attribute put on.
  for (const [told, signal] of SIGNALS)
    for (const asValues of [false, true])
      it(`told by ${told} come out as in Chromium, ${asValues ? 'as plain values' : 'as custom properties'}`, async () => {
        const light = laidOn(opened(signal, asValues));
        const css = compileVeneer(light.overrides, {
          ...sheetOptionsOf(light.source),
          palette: light.palette,
          parts: [],
        });
        const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
        const page = await context.newPage();
        await page.setContent(HTML.replace('</head>', () => `<style>${css}</style></head>`));
        for (const lighting of ['light', 'inverted'] as const) {
          if (lighting === 'inverted') {
            if (signal.kind === 'scheme') await page.emulateMedia({ colorScheme: 'dark' });
            else
              await page.evaluate(({ on, attribute, value }) => {
                document.querySelector(on)?.setAttribute(attribute, value);
              }, signal);
          }
          const site = lightSite(light, lighting);
          const view = new StyleView(pageOf(site, 1));
          const shown = await page.evaluate(
            (properties) =>
              [...document.querySelectorAll('body, body *')].map((element) =>
                ['', '::before'].map((pseudo) =>
                  properties.map((property) => getComputedStyle(element, pseudo).getPropertyValue(property)),
                ),
              ),
            PROPERTIES,
          );
          const elements = pageOf(site, 1).document.elements.filter(
            ({ localName }) => !['html', 'head', 'style'].includes(localName),
          );
          const own = elements.map((element) =>
            ['', 'before'].map((pseudo) =>
              PROPERTIES.map((property) => view.style(element, pseudo).resolved(property)),
            ),
          );
          expect(own).withContext(lighting).toEqual(shown);
          // And each place comes to its role as it is in this lighting.
          for (const override of site.overrides.filter(
            ({ state, property }) => state === 'rest' && property !== 'background-image',
          )) {
            const wanted = colorOfValue(override.value, site.palette);
            const color = view.styleAt(override.element, override.pseudo).color(override.property);
            expect(color && wanted && hexOf(color))
              .withContext(`${lighting}, ${override.selector} ${override.property}`)
              .toBe(wanted && hexOf(wanted));
          }
        }
        await context.close();
      });

  // The theme turns dark beneath a plain white: what was read on it cannot be read any more. Ratios by WCAG 2.2.
  it('are both looked at, and a value that suits one of them only is said', () => {
    const site = opened({ kind: 'scheme' }, false);
    const literal: Omit<OverrideWish, 'value'> = {
      pageId: 1,
      element: pageOf(site, 1).document.elements.findIndex(({ classes }) => classes.includes('card')),
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      property: 'background-color',
      width: 1280,
    };
    const textsOf = (value: OverrideWish['value'], color: OverrideWish['value']): string[] => {
      const plan = planAll(site, [
        { ...literal, property: 'color', value: color },
        { ...literal, value },
      ]);
      const dressed = withOverrides(site, plan);
      const override = dressed.overrides.find(({ property }) => property === 'background-color') as Override;
      return toEnd(judgeLightings(dressed, override, 1280)).map(({ standing, text }) => `${standing} ${say(text)}`);
    };
    const ink = { kind: 'role', role: 'ink', shade: 0 } as const;
    const stuck = textsOf({ kind: 'literal', css: '#ffffff' }, ink);
    expect(stuck.some((text) => text.startsWith('fails inverted: ') && text.includes(': 1'))).toBeTrue();
    expect(stuck).toContain('look suits the light lighting only');
    const follows = textsOf({ kind: 'role', role: 'ground', shade: 0 }, ink);
    expect(follows.filter((text) => text.startsWith('fails inverted'))).toEqual([]);
    expect(follows.some((text) => text.includes('lighting only'))).toBeFalse();
  });
});
