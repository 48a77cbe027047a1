import { say } from '@upper-veneer/words';
import {
  dressSite,
  judgeOverride,
  openSite,
  placesOf,
  planOverride,
  reachOffers,
  type Override,
  type OverrideWish,
  type SiteModel,
} from '@upper-veneer/core';
import type { Browser, Page as BrowserPage } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { packageSheets } from '../support/package-sheets.js';
import { pageFromSelectors } from '../support/pages-from-selectors.js';
import { random } from '../support/random.js';
import { figuresOf, type Figure } from '../support/reading-figures.js';
import { isWhole } from '../support/whole-run.js';

const DRAWS = isWhole ? 200 : 16;
const PACKAGES = isWhole
  ? ['bootstrap', 'bulma', 'spectre', 'milligram', 'purecss', 'skeleton', 'uikit', 'foundation', 'water', 'mvp']
  : ['milligram', 'spectre'];
const COLORS = ['#102030', '#e8e2d0', '#7a7a7a', '#b4582a', '#ffffff', '#3d5a2a', 'rgb(20 20 20 / 60%)'];

describe('the verdict on bulk reaches', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: Chromium's computed values at rest at the widths of the verdict, composited apart from the core.
  it(`${DRAWS} drawn: the worst contrast to 0.05, and the number that fail`, async () => {
    const draw = random(777);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)];
    const figures = { worst: 0, counts: 0, notPlain: 0, otherState: 0, nothing: 0 };
    const wrong: string[] = [];
    for (const name of PACKAGES) {
      const sheet = packageSheets(name)[0];
      const html = pageFromSelectors(sheet.css, `${sheet.name}.css`, 150);
      const site: SiteModel = dressSite(
        openSite({
          pages: [{ id: 1, name, path: 'index.html', html }],
          stylesheets: { [`css/${sheet.name}.css`]: sheet.css },
          parts: [],
          veneerPlace: 'head-end',
          prefix: 'brand',
        }),
        [],
        { swatches: [], roles: [] },
      );
      const own = site.pages.get(1);
      if (!own) throw new Error('No page');
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.setContent(
        html.replace(/<link[^>]*>/, () => `<style>${sheet.css}</style><style id="veneer"></style>`),
      );
      await page.addStyleTag({
        content: '*, ::before, ::after { transition: none !important; animation: none !important }',
      });
      const texts = own.document.elements.filter(
        (element) =>
          element.ownText.trim() !== '' &&
          element.flatParent !== null &&
          !['title', 'style', 'script', 'option', 'textarea', 'head'].includes(element.localName),
      );
      for (let i = 0; i < DRAWS / PACKAGES.length; i += 1) {
        const element = pick(texts);
        const groups = reachOffers(site, { pageId: 1, element: element.number, pseudo: '', reach: 'alike' }).groups;
        const group = groups.length > 0 && draw() < 0.5 ? pick(groups).selectors[0] : null;
        const wish: OverrideWish = {
          pageId: 1,
          element: element.number,
          pseudo: '',
          reach: group ? 'group' : pick(['alike', 'everywhere'] as const),
          ...(group ? { group } : {}),
          state: 'rest',
          property: pick(['color', 'background-color']),
          value: { kind: 'literal', css: pick(COLORS) },
          width: 1280,
        };
        const plan = planOverride(site, wish);
        if (!plan.ok) continue;
        const dressed = dressSite(site, plan.put, site.palette);
        const findings = judgeOverride(dressed, plan.put[0], 1280);
        const finding = findings.find(
          ({ text, basis }) =>
            say(basis).startsWith('Worst of all matches') &&
            /text|^\d+\.\d : 1/.test(say(text)) &&
            !/placeholder|sign|edge|ring/.test(say(text)),
        );
        const targets = new Set(placesOf(site, wish).map((place) => place.element.number));
        await compare(page, dressed, plan.put[0], targets, say(finding?.text ?? ''), say(finding?.basis ?? ''));
      }
      await page.close();
    }
    process.stdout.write(
      `\nBulk verdicts: worst compared ${figures.worst} times, counts ${figures.counts} times, ${wrong.length} wrong; left: ${figures.notPlain} over pictures or gradients, ${figures.otherState} whose worst is in another state, ${figures.nothing} where no text is told on.\n`,
    );
    expect(figures.worst).toBeGreaterThan(DRAWS / 8);
    expect(wrong).toEqual([]);

    async function compare(
      page: BrowserPage,
      dressed: SiteModel,
      override: Override,
      targets: ReadonlySet<number>,
      text: string,
      basis: string,
    ): Promise<void> {
      const said = /, (\d+\.\d+) : 1 where/.exec(basis);
      if (!said) {
        figures.nothing += 1;
        return;
      }
      const place = /, ([a-z ]+), at (\d+) px(.*?), #/.exec(basis);
      if (!place || place[1] !== 'rest' || place[3] !== '') {
        figures.otherState += 1;
        return;
      }
      const width = Number(place[2]);
      const atWidth = async (css: string): Promise<Figure[]> => {
        await page.evaluate((veneer) => {
          const style = document.getElementById('veneer');
          if (style) style.textContent = veneer;
        }, css);
        return figuresOf(page);
      };
      await page.setViewportSize({ width, height: 800 });
      const [before, after] = [await atWidth(''), await atWidth(dressed.css)];
      // The veneer's own style element stands in this page and not in the core's.
      const numbers = await page.evaluate(() =>
        [...document.querySelectorAll('*')].map((element) => element.id === 'veneer' || element.localName === 'style'),
      );
      let number = -1;
      const told: Figure[] = [];
      after.forEach((figure, i) => {
        if (numbers[i] && !(i === numbers.indexOf(true))) return;
        number += 1;
        if (figure.ratio !== null && (targets.has(number) || figure.look !== before[i].look)) told.push(figure);
      });
      if (told.some(({ ratio }) => ratio === -1)) {
        figures.notPlain += 1;
        return;
      }
      const worst = Math.min(...told.map(({ ratio, wanted }) => (ratio as number) / wanted));
      const found = told.find(({ ratio, wanted }) => (ratio as number) / wanted === worst);
      figures.worst += 1;
      if (!found || Math.abs((found.ratio as number) - Number(said[1])) > 0.05)
        wrong.push(
          `${override.selector} { ${override.property} } at ${width}: verdict ${said[1]}, Chromium ${found?.ratio?.toFixed(2) ?? 'nothing'}`,
        );
      const counted = /^(\d+) of (\d+) texts cannot/.exec(text);
      const isCalm = [...targets].every(
        (at) =>
          !/^(a|button|input|select|textarea|label|summary)$/.test(
            dressed.pages.get(1)?.document.elements[at]?.localName ?? '',
          ),
      );
      if (!counted || !isCalm || / also |,.*px/.test(/at ([\d, ]+ px)/.exec(basis)?.[1] ?? '')) return;
      const failing = told.filter(({ ratio, wanted }) => (ratio as number) < wanted).length;
      figures.counts += 1;
      if (Number(counted[1]) < failing)
        wrong.push(
          `${override.selector} { ${override.property} } at ${width}: verdict says ${counted[1]} fail, Chromium ${failing}`,
        );
    }
  });
});
