import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  companionsOf,
  dressSite,
  inspect,
  judgeOverride,
  openSite,
  planOverride,
  tidySheet,
  withOverrides,
} from '@upper-veneer/core';
import { root } from './setup.mjs';

const PALETTE = {
  swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};
const CASES = [
  ['a button', '.qs-go', 'background-color', 'alike', 'rest'],
  ['a button’s hover', '.qs-go', 'background-color', 'alike', 'hover'],
  ['all buttons', '.qs-go', 'background-color', 'everywhere', 'rest'],
  ['all links', '.lede a', 'color', 'everywhere', 'hover'],
  ['the page itself', 'body', 'color', 'everywhere', 'rest'],
];

/** Times the verdict over every page, state and width: on the demo, and on fifty pages of two thousand elements. */
export async function benchVerdict({ say, time, ms, html, css }) {
  const folder = join(root, 'demo/site');
  const stylesheets = Object.fromEntries(
    readdirSync(join(folder, 'css')).map((name) => [`css/${name}`, readFileSync(join(folder, 'css', name), 'utf8')]),
  );
  const paths = ['book.html', 'trips.html', 'index.html', 'gear.html', 'journal.html', 'checkout.html', 'members.html'];
  const demo = dressSite(
    openSite({
      pages: paths.map((path, i) => ({ id: i + 1, name: path, path, html: readFileSync(join(folder, path), 'utf8') })),
      stylesheets,
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    PALETTE,
  );
  say('The demo, 7 pages, every state and width:');
  for (const row of CASES) judge(demo, row, { say, time, ms });
  const many = dressSite(
    openSite({
      pages: Array.from({ length: 50 }, (_, i) => ({ id: i + 1, name: `Page ${i}`, path: `${i}.html`, html })),
      stylesheets: { 'b.css': css },
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    PALETTE,
  );
  say('Fifty pages of 2,000 elements:');
  judge(many, ['a button', '.btn-primary', 'background-color', 'alike', 'rest'], { say, time, ms }, 2);
  judge(many, ['a link', '.card-link', 'color', 'alike', 'hover'], { say, time, ms }, 2);
}

function judge(site, [name, selector, property, reach, state], { say, time, ms }, runs = 5) {
  const page = site.pages.get(1);
  const [, tag, className] = /^([a-z]*)\.?([\w-]*)/.exec(selector);
  const isInside = selector.includes(' a');
  const element = page.document.elements.find((node) =>
    isInside
      ? node.localName === 'a' && node.parent.classes.includes('lede')
      : (tag === '' || node.localName === tag) && (className === '' || node.classes.includes(className)),
  );
  const wish = {
    pageId: 1,
    element: element.number,
    pseudo: '',
    reach,
    state,
    property,
    value: { kind: 'role', role: 'accent', shade: 0 },
    width: 1280,
  };
  const plan = planOverride(site, wish);
  if (!plan.ok) {
    say(`  ${name}: ${plan.reason}`);
    return;
  }
  const dressed = withOverrides(site, plan);
  const planned = time(() => planOverride(site, wish), runs);
  const inspected = time(() => inspect(dressed, 1, element.number, '', 1280), runs);
  const judged = time(() => judgeOverride(dressed, plan.put[0], 1280), runs);
  const companions = time(() => companionsOf(dressed, plan.put[0], 1280), runs);
  const tidied = runs > 2 ? `, its sheet tidied in ${ms(time(() => tidySheet(dressed), 2))}` : '';
  say(
    `  ${name}: grid and strip ${ms(inspected)}, selector ${ms(planned)}, verdict ${ms(judged)}, companions ${ms(companions)}${tidied}`,
  );
}
