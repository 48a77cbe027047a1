import { say, spoken } from '@upper-veneer/words';
import { toEnd } from '../to-end.js';
import { fulfil, openOnePage, RIVER_PALETTE } from '../testing/one-page-site.js';
import type { SiteModel } from '../site/site-model.js';
import { ProofMemo } from './proof-memo.js';
import type { ProofFinding } from './proof-finding.js';
import { proveSite } from './prove-site.js';
import { tryMend, type MendTried } from './try-mend.js';

const BASE = 'body { background: #fff; color: #1d2b2a }';

function mended(site: SiteModel, title: RegExp): { readonly finding: ProofFinding; readonly tried: MendTried } {
  const memo = new ProofMemo();
  const proof = toEnd(proveSite(site, { memo }));
  const finding = proof.findings.find((own) => title.test(say(own.title)));
  if (!finding)
    throw new Error(`No ${String(title)} among ${spoken(proof.findings.map((own) => own.title)).join('; ')}`);
  return { finding, tried: toEnd(tryMend(site, finding, proof, memo)) };
}

describe('a mend', () => {
  it('is the nearest colour of the palette that reaches what is asked, in all places by one rule', () => {
    const site = openOnePage(`${BASE} .t { color: #9aa }`, '<p class=t>One</p><p class=t>Two</p>');
    const { tried } = mended(site, /^Text of One/);
    if (!tried.ok) throw new Error(say(tried.reason));
    expect(tried.mend.put.map(({ selector, property }) => `${selector} ${property}`)).toEqual(['.t color']);
    const after = toEnd(proveSite(tried.mend.after));
    expect(after.findings.filter(({ kind }) => kind === 'reads')).toEqual([]);
  });

  it('underlines links, rings what has the focus, takes off what the theme lays over a state', () => {
    const css = `${BASE} p { color: #000 } a { color: #00f; text-decoration: none } button { outline: none; background: #104a47; color: #fff } button:hover { box-shadow: 0 0 4px #a030c0 }`;
    const site = openOnePage(
      css,
      '<p>Words that go on around it and on <a href=x>link</a> and on.</p><button>Go</button>',
    );
    for (const [title, label] of [
      [/^Told from/, 'Underlined'],
      [/^Nothing shows the focus/, 'A ring of 2 px, second'],
      [/^Hover still shows/, 'Without it'],
    ] as const) {
      const { tried } = mended(site, title);
      expect(spoken(tried.ok ? tried.mend.label : tried.reason)).toBe(label);
    }
  });

  it('takes idle overrides out', () => {
    const start = openOnePage(`${BASE} p { color: #104a47 }`, '<p>One</p>');
    const { site } = fulfil(start, 'p', { value: { kind: 'role', role: 'second', shade: 0 } });
    const { tried } = mended(site, /changes nothing/);
    if (!tried.ok) throw new Error(say(tried.reason));
    expect(tried.mend.drop).toEqual(site.overrides.map(({ id }) => id));
  });

  it('is not offered where it would make something else fail', () => {
    // Whatever the text becomes, on a gradient from black to white nothing of the palette is read everywhere.
    const site = openOnePage(
      `${BASE} .t { background: linear-gradient(#000, #fff); color: #888 }`,
      '<p class=t>One</p>',
      {
        ...RIVER_PALETTE,
      },
    );
    const { tried } = mended(site, /^Text of One/);
    expect(tried.ok).toBeFalse();
  });
});
