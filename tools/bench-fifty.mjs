import { demoSite } from './demo-site.mjs';
import { openFifty, stepped, timed } from './open-large.mjs';
import { say } from './setup.mjs';

/** Prints what fifty pages of 1,900 elements take; alone in its process, so that the memory told is its own. */
const { ShapeGathering, findColors, proposeMatch, proveSite } = await import('@upper-veneer/core');
const fifty = openFifty(demoSite().palette);
const memory = () => `${Math.round(process.memoryUsage().rss / 1e6)} MB`;
const ms = (value) => `${Math.round(value)} ms`;
const SITE = { kind: 'site' };

function match() {
  const shapes = new ShapeGathering(fifty, SITE);
  const found = timed(() => stepped(findColors(fifty, SITE, 1280, shapes)));
  const choices = { strategy: 'blend', locked: {}, equal: [] };
  const proposed = timed(() => proposeMatch(fifty, SITE, found.value.value, choices));
  say(
    `Fifty pages of 1,900 elements, reading them included: ${ms(found.took + proposed.took)} (bound 20 s), the longest step ` +
      `between two signs of progress ${ms(found.value.longest)}, ${memory()}`,
  );
}

function proof() {
  const proven = timed(() => stepped(proveSite(fifty)));
  say(
    `Proof of fifty pages of 1,900 elements, reading them included: ${ms(proven.took)} (bound 90 s), ` +
      `${proven.value.value.looks} looks, the longest step ${ms(proven.value.longest)}, ${memory()} (bound 1,500)`,
  );
}

if (process.argv[2] === 'proof') proof();
else match();
