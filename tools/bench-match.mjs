import { inOwnProcess, stepped, timed } from './open-large.mjs';
import { demoSite } from './demo-site.mjs';

const WIDTH = 1280;

/** Prints what looking through, proposing and laying on take, as ratios of one page's reading. */
export async function benchMatch({ say, ms }) {
  const core = await import('@upper-veneer/core');
  const { ShapeGathering, findColors, layMatch, proposeMatch, verifyMatch, withOverrides } = core;
  const demo = demoSite();
  const choices = { strategy: 'blend', locked: {}, equal: [] };
  const propose = (site, scope) => {
    const found = timed(() => stepped(findColors(site, scope, WIDTH, new ShapeGathering(site, scope))));
    const proposed = timed(() => proposeMatch(site, scope, found.value.value, choices));
    return { found, proposed, all: found.took + proposed.took };
  };
  const part = { kind: 'parts', partIds: [2] };
  // A first look compiles and reads the pages; the one after it is what a designer waits for at each change.
  const first = propose(demo, { kind: 'site' });
  const [one, whole] = [part, { kind: 'site' }].map(
    (scope) => [0, 1, 2].map(() => propose(demo, scope)).sort((a, b) => a.all - b.all)[1],
  );
  say(
    `Match, one part of the demo: ${ms(one.all)} (bound 150 ms); its whole site: ${ms(whole.all)} (bound 1 s), ${ms(first.all)} at the first look, reading the pages included`,
  );
  const laid = timed(() => stepped(layMatch(demo, one.proposed.value, WIDTH)).value);
  const proof = timed(
    () => stepped(verifyMatch(demo, withOverrides(demo, laid.value), part, one.proposed.value)).value,
  );
  say(
    `Laying on ${laid.value.laid} places: ${ms(laid.took)}, ${ms((100 * laid.took) / laid.value.laid)} for 100 (bound 2 s); resolved once more in ${ms(proof.took)}`,
  );
  inOwnProcess('./bench-fifty.mjs', 'match');
}
