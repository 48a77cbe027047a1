import {
  dressSite,
  foundColors,
  layOut,
  openSite,
  pageOf,
  proposeMatch,
  type MatchProposal,
  type ElementStyle,
  type Palette,
  type RoleName,
  type SiteModel,
  viewIn,
} from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { measuredPage } from '../support/measured-page.js';
import { namedPages } from '../support/named-pages.js';
import { isWhole } from '../support/whole-run.js';
import Color from 'colorjs.io';

/** Ten colours of a brand that has nothing to do with any of the packages. */
const SWATCHES: readonly (readonly [string, string])[] = [
  ['Willow', '#b4582a'],
  ['River', '#0f4a48'],
  ['Reed', '#6d8a35'],
  ['Paper', '#f7f3e9'],
  ['Chalk', '#ffffff'],
  ['Ink', '#1d2b2a'],
  ['Silt', '#5c6b68'],
  ['Rope', '#cfc6b2'],
  ['Heron', '#5a3f5c'],
  ['Ember', '#a3262a'],
];
const FILLS: readonly (readonly [RoleName, number])[] = [
  ['ground', 4],
  ['panel', 5],
  ['ink', 6],
  ['soft-ink', 7],
  ['line', 8],
  ['accent', 1],
  ['on-accent', 5],
  ['second', 3],
  ['on-second', 6],
  ['link', 2],
  ['visited', 9],
  ['ring', 2],
  ['signal', 10],
  ['on-signal', 5],
];
const PALETTE: Palette = {
  swatches: SWATCHES.map(([name, css], i) => ({ id: i + 1, name, css })),
  roles: FILLS.map(([role, swatchId]) => ({ role, swatchId, shade: 0 })),
};

/**
 * Roles that a maker's own name for a colour stands for, by what it is used for; `null` where the name says none of ours (success,
 * highlighted code). Read from the names as the packages document them.
 */
function namedRoles(name: string, isFill: boolean, isEdge: boolean): readonly RoleName[] | null {
  if (
    /success|info|warning|[^n]valid|mark|ins-color|highlight|code|variable|shadow|selection|scrollbar|toggle|switch|range|striped|active|table|subtle|btn-border/.test(
      name,
    )
  )
    return null;
  if (/danger|error|invalid|del-color/.test(name)) return isFill ? ['signal'] : ['signal', 'on-signal'];
  if (/focus/.test(name)) return ['ring'];
  if (/placeholder/.test(name)) return ['soft-ink'];
  if (/border|separator/.test(name)) return isEdge ? ['line'] : null;
  if (/inverse|btn-primary-color/.test(name)) return ['on-accent', 'on-second', 'on-signal'];
  if (/btn-secondary-color/.test(name)) return ['ink', 'on-second'];
  if (/link/.test(name)) return ['link'];
  if (
    /cc-primary-color|text-main|text-bright|body-color$|pico-color$|color-text$|heading|form-text|form-element-color/.test(
      name,
    )
  )
    return ['ink'];
  if (/muted|secondary-color$|text-secondary|cc-secondary-color/.test(name))
    return isEdge ? ['line'] : ['soft-ink', 'ink'];
  if (
    /(?:bg|background)-?secondary|tertiary|background-alt|card|form-element-background|surface|water-background$/.test(
      name,
    )
  )
    return ['panel', 'ground'];
  if (/btn-primary|primary-background|color-secondary$|accent$/.test(name))
    return isFill || isEdge ? ['accent'] : ['accent', 'link'];
  if (/button-base|btn-secondary|secondary-background/.test(name)) return isFill ? ['second', 'panel', 'line'] : null;
  if (/primary/.test(name)) return isFill || isEdge ? ['accent'] : ['accent', 'link'];
  if (/(?:^--(?:bs-body|color|cc)-bg|background-body|background-color)$/.test(name))
    return isFill ? ['ground', 'panel'] : null;
  return null;
}

interface Agreement {
  right: number;
  all: number;
  rightArea: number;
  allArea: number;
  readonly wrong: Map<string, number>;
}

describe('proposals beside the names that makers gave their own colours', () => {
  let browser: Browser;
  beforeAll(async () => (browser = await launchBrowser()));
  afterAll(() => browser.close());
  const known = new Map<string, Agreement>();
  const wrong = new Map<string, number>();
  const share = (part: number, whole: number): string => `${((100 * part) / Math.max(1, whole)).toFixed(1)} %`;

  const agreementOn = async ({ name, html }: ReturnType<typeof namedPages>[number]): Promise<Agreement> => {
    let own = known.get(name);
    if (own) return own;
    let site = dressSite(
      openSite({
        pages: [{ id: 1, name, path: 'index.html', html }],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      PALETTE,
    );
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const shown = await context.newPage();
    await shown.setContent(html);
    site = layOut(site, 1, (await measuredPage(shown, pageOf(site, 1))).layout);
    await context.close();
    // The variables' names are not among what the proposal is made from: it reads values, selectors' classes and the page.
    const proposal = proposeMatch(site, { kind: 'site' }, foundColors(site, { kind: 'site' }, 1280), {
      strategy: 'blend',
      locked: {},
      equal: [],
    });
    known.set(name, (own = { right: 0, all: 0, rightArea: 0, allArea: 0, wrong }));
    compare(site, proposal, name, own);
    process.stdout.write(`  ${name}: area ${share(own.rightArea, own.allArea)}, ${own.right} of ${own.all} places\n`);
    return own;
  };

  for (const page of namedPages()) {
    it(`${page.name}: most of what it names`, async () => {
      const own = await agreementOn(page);
      expect(own.all).toBeGreaterThan(10);
      expect(own.rightArea / own.allArea).toBeGreaterThan(0.6);
    });
  }

  it('agree on most of the area', async () => {
    const sum: Agreement = { right: 0, all: 0, rightArea: 0, allArea: 0, wrong };
    for (const page of namedPages()) {
      const own = await agreementOn(page);
      for (const key of ['right', 'all', 'rightArea', 'allArea'] as const) sum[key] += own[key];
    }
    process.stdout.write(
      `\nProposals beside makers' names: ${share(sum.rightArea, sum.allArea)} of the area, ${share(sum.right, sum.all)} of ${sum.all} places at the first choice.\n`,
    );
    if (isWhole || process.env['SHOW_WRONG'])
      for (const [words, count] of [...wrong].sort((x, y) => y[1] - x[1]).slice(0, 30))
        process.stdout.write(`  ${count} ${words}\n`);
    expect(sum.rightArea / sum.allArea).toBeGreaterThan(0.9);
    expect(sum.right / sum.all).toBeGreaterThan(0.65);
  });
});

/** Custom properties that a value comes from, the last of the chain first: a component's own variable says less than what it was given. */
function namesBehind(style: ElementStyle, property: string): string[] {
  const declared = (name: string, from: ElementStyle): string => {
    for (let at: ElementStyle | null = from; at; at = at.parent) {
      const value = at.ranked(name).at(0)?.entry.value;
      if (value) return 'text' in value ? value.text : '';
    }
    return '';
  };
  const names: string[] = [];
  let waiting = [property];
  for (let depth = 0; waiting.length > 0 && depth < 8; depth += 1) {
    waiting = waiting.flatMap((name) =>
      [...declared(name, style).matchAll(/var\(\s*(--[\w-]+)/g)].map(([, variable]) => variable),
    );
    // Of a shorthand the colour is meant.
    waiting = waiting.filter((name) => !/width|opacity|style|radius/.test(name));
    names.unshift(...waiting);
  }
  return names;
}

function compare(site: SiteModel, proposal: MatchProposal, packageName: string, into: Agreement): void {
  const page = pageOf(site, 1);
  for (const { found, becomes } of proposal.rows) {
    for (const place of found.places) {
      if (place.state !== 'rest' || place.isHidden) continue;
      const element = page.document.elements[place.element];
      const style = viewIn(page, element, 'rest', 1280).style(element, place.pseudo);
      const names = namesBehind(style, place.property);
      const isEdge = /border|outline/.test(place.property);
      const wanted = names
        .map((variable) =>
          namedRoles(
            packageName === 'water-css' && variable === '--background' ? '--water-background' : variable,
            /background/.test(place.property),
            isEdge,
          ),
        )
        .find((roles) => roles !== null);
      if (!wanted) continue;
      // What is a brand colour already is left as it is: the role that has it is what it comes to.
      const roles: readonly string[] =
        becomes.kind === 'value'
          ? becomes.value.kind === 'role'
            ? [becomes.value.role]
            : []
          : PALETTE.roles
              .filter(
                ({ swatchId }) => new Color(PALETTE.swatches[swatchId - 1].css).deltaE2000(new Color(found.hex)) <= 2.3,
              )
              .map(({ role }) => role);
      const isRight = roles.some((role) => (wanted as readonly string[]).includes(role));
      into.all += 1;
      into.allArea += place.area;
      if (isRight) {
        into.right += 1;
        into.rightArea += place.area;
      } else {
        const words = `${packageName} ${names.join(' ')} ${found.id} → ${roles.join('/') || becomes.kind}, wanted ${wanted.join('/')}`;
        into.wrong.set(words, (into.wrong.get(words) ?? 0) + 1 + Math.round(place.area / 100));
      }
    }
  }
}
