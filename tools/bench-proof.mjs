import { demoSite } from './demo-site.mjs';
import { inOwnProcess, timed } from './open-large.mjs';

/** Prints what looking at a whole site takes: at first, warm, and again after one change. */
export async function benchProof({ say, ms }) {
  const core = await import('@upper-veneer/core');
  const { ProofMemo, dressSite, foundColors, layMatch, proposeMatch, proveSite, toEnd, withOverrides } = core;
  const demo = demoSite();
  const scope = { kind: 'site' };
  const choices = { strategy: 'blend', locked: {}, equal: [] };
  const proposal = proposeMatch(demo, scope, foundColors(demo, scope, 1280), choices);
  const matched = withOverrides(demo, toEnd(layMatch(demo, proposal, 1280)));
  const lit = dressSite(matched, matched.overrides, {
    ...matched.palette,
    second: { told: { kind: 'scheme' }, roles: [] },
  });
  const first = timed(() => toEnd(proveSite(lit)));
  const [warm] = [0, 1, 2].map(() => timed(() => toEnd(proveSite(lit)))).sort((a, b) => a.took - b.took);
  const memo = new ProofMemo();
  toEnd(proveSite(lit, { memo }));
  const changes = ['background-color', 'color'].flatMap((property) => {
    const one = lit.overrides.find((own) => own.property === property && own.state === 'rest' && own.partId !== null);
    if (!one) return [];
    const next = lit.overrides.map((own) =>
      own === one ? { ...own, value: { kind: 'literal', css: '#345678' } } : own,
    );
    return [timed(() => toEnd(proveSite(dressSite(lit, next, lit.palette), { memo: memo.fork() }))).took];
  });
  say(
    `Proof of the demo (7 pages, 8 states, 3 widths, light and inverted, ${lit.overrides.length} overrides), ` +
      `${warm.value.looks} looks: ${ms(warm.took)} warm (bound 1.5 s), ${ms(first.took)} at the first look; ` +
      `again after one change ${changes.map(ms).join(', ')} (bound 300 ms)`,
  );
  inOwnProcess('./bench-fifty.mjs', 'proof');
}
