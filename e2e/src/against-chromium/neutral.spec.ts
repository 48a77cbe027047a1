import { layTasks, neutralTasks, openSite, toEnd, type SiteModel } from '@upper-veneer/core';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';

/** A theme, and a part with rules of its own: by class, by id, by state, by attribute, with a custom property. */
const THEME = `
  body { background: #fbfaf5; color: #223 } a { color: #1c6dd0 } a:visited { color: #6b3fa0 } a:hover { color: #d0241c }
  :root { --fill: #445 linear-gradient(#445, #334) }
  button { background: var(--fill); color: #fff; border: 1px solid #112 } button:hover { background: #223 } input { border: 2px solid #889; color: #334 }
  main .note { color: #777 }`;
const PART = `
  :root { --w-deep: #3a2fbf } .w { background: #efeaff; color: #333; border: 1px solid #c3bff0; box-shadow: 0 2px 8px #3a2fbf }
  .w h3 { color: var(--w-deep) } .w a { color: #5b3fc4 } .w a:hover { color: #2c1780; background: #eef }
  .w .note { color: #5a5570 } .w input { background: #fafaff; border-color: #b9b6e0; color: #24243c } .w input:hover { border-color: #7a5cf0 }
  #go { background: linear-gradient(#7a5cf0, #5b3fc4) !important; color: #fff } #go:hover { background: #2c1780 !important; color: #ff0 }
  .w li::before { content: "•"; color: #7a5cf0 } .w em { background: #ffe }`;
const BODY = `<main><p class=note>By the <a href="#r">river</a></p><button>Row</button><input>
  <section class=w><h3>Trips</h3><p class=note>See <a href="#r">the map</a> <em>now</em></p><ul><li>One</ul><input value=Two><button id=go>Go</button></section></main>`;

const SEEN = ['color', 'background-color', 'background-image', 'border-top-color', 'border-left-color', 'box-shadow'];

describe('a part left to its theme', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  function opened(): SiteModel {
    return openSite({
      pages: [
        {
          id: 1,
          name: 'Home',
          path: 'index.html',
          html: `<!doctype html><html><head><style>${THEME}</style><style>${PART}</style></head><body>${BODY}</body></html>`,
        },
      ],
      stylesheets: {},
      parts: [{ id: 1, name: 'Trips', kind: 'widget', selector: '.w', openers: [] }],
      veneerPlace: 'head-end',
      prefix: 'or',
    });
  }

  async function looksOf(page: Page, sheets: readonly string[], state: 'rest' | 'hover'): Promise<string[]> {
    await page.setContent(
      `<!doctype html><html><head>${sheets.map((css) => `<style>${css}</style>`).join('')}</head><body>${BODY}</body></html>`,
    );
    const looks: string[] = [];
    for (const selector of [
      'body',
      'p',
      'section',
      'h3',
      'section a',
      'em',
      'li',
      'section input',
      '#go',
      'main > button',
      'main > input',
    ]) {
      const element = page.locator(selector).first();
      if (state === 'hover') await element.hover();
      looks.push(
        await element.evaluate(
          (node, { names, name }) =>
            ['', '::before']
              .map((pseudo) => {
                const style = getComputedStyle(node, pseudo || null);
                return `${name}${pseudo} ${names.map((property) => style.getPropertyValue(property)).join(' | ')}`;
              })
              .join('; '),
          { names: SEEN, name: selector },
        ),
      );
    }
    return looks;
  }

  // Reference: what Chromium computes of the same page without the part's sheet.
  for (const state of ['rest', 'hover'] as const)
    it(`comes out as if the part had no colours of its own, ${state}`, async () => {
      const site = opened();
      const scope = { kind: 'parts', partIds: [1] } as const;
      const { tasks } = neutralTasks(site, scope, 1280);
      const laid = toEnd(layTasks(site, tasks, 1280));
      expect(laid.refused).toEqual([]);
      const context = await browser.newContext();
      const page = await context.newPage();
      const bare = await looksOf(page, [THEME, '.w li::before { content: "•" } .w { border: 1px solid }'], state);
      const cleared = await looksOf(page, [THEME, PART, laid.after.css], state);
      const own = await looksOf(page, [THEME, PART], state);
      expect(cleared).toEqual(bare);
      expect(own).not.toEqual(bare);
      await context.close();
    });
});
