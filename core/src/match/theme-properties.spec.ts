import { spoken } from '@upper-veneer/words';
import { withOverrides } from '../plan/plan-override.js';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { hexOf } from '../color/read-notation.js';
import { StyleView } from '../resolve/style-view.js';
import { toEnd } from '../to-end.js';
import { numberOn } from '../testing/one-page-site.js';
import type { Palette, RoleName } from '../veneer/palette.js';
import { fedProperties } from './fed-properties.js';
import { foundColors } from './find-colors.js';
import { layMatch } from './lay-match.js';
import type { MatchChoices } from './proposal.js';
import { proposeMatch } from './propose-match.js';
import { themeProperties, type ThemeProperty } from './theme-properties.js';
import { isProved, verifyMatch, type MatchProof } from './verify-match.js';

const COLORS: readonly (readonly [RoleName, string])[] = [
  ['ground', '#f7f3e9'],
  ['ink', '#1d2b2a'],
  ['line', '#8a7f66'],
  ['accent', '#8f3f16'],
  ['on-accent', '#ffffff'],
  ['link', '#0f4a48'],
];
const PALETTE: Palette = {
  swatches: COLORS.map(([name, css], i) => ({ id: i + 1, name, css })),
  roles: COLORS.map(([role], i) => ({ role, swatchId: i + 1, shade: 0 })),
};
/** Two widgets: `--own` feeds the first alone, `--shared` both, `--edge` a line and what is mixed from it. */
const THEME = `:root { --shared: #3a6cf0 } .one { --own: #5b3fc4; --edge: #c4b8f0; background: #ffffff; border: 1px solid var(--edge) }
  .one a { color: var(--shared) } .one .tag { border-color: var(--own); border-style: solid; border-width: 2px } .one .tag:hover { outline: 1px solid var(--own) }
  .one h2 { border-bottom: 2px solid var(--own) } .one p { background: color-mix(in srgb, var(--edge), #ffffff 50%) }
  .two a { color: var(--shared) }`;
const BODY =
  '<div class=one><h2>Hire</h2><p>By <a href="#a">terms</a></p><span class=tag>new</span></div><div class=two><a href="#b">map</a><a href="#c">tide</a></div>';

const opened = (): SiteModel =>
  dressSite(
    openSite({
      pages: [
        {
          id: 1,
          name: 'Home',
          path: 'index.html',
          html: `<!doctype html><html><head><style>${THEME}</style></head><body>${BODY}</body></html>`,
        },
      ],
      stylesheets: {},
      parts: [{ id: 1, name: 'One', kind: 'widget', selector: '.one', openers: [] }],
      veneerPlace: 'head-end',
      prefix: 'or',
    }),
    [],
    PALETTE,
  );
const SCOPE = { kind: 'parts', partIds: [1] } as const;
const CHOICES: MatchChoices = { strategy: 'blend', locked: {}, equal: [] };

interface Laid {
  readonly properties: readonly ThemeProperty[];
  readonly css: string;
  readonly after: SiteModel;
  readonly proof: MatchProof;
}

function laid(chosen: (properties: readonly ThemeProperty[]) => readonly string[] | null): Laid {
  const site = opened();
  const found = foundColors(site, SCOPE, 1280);
  const proposal = proposeMatch(site, SCOPE, found, CHOICES);
  const fed = toEnd(fedProperties(site, found, 1280));
  const offered = themeProperties(fed, proposal, PALETTE);
  const properties = themeProperties(fed, proposal, PALETTE, chosen(offered));
  const after = withOverrides(site, toEnd(layMatch(site, proposal, 1280, properties)));
  const proof = toEnd(verifyMatch(site, after, SCOPE, proposal, { properties }));
  return { properties: offered, css: after.css, after, proof };
}

// Followers are read off the page above by CSS Variables 1 §3; what comes of overriding is resolved again over the whole page.
describe('a custom property of the theme', () => {
  it('is told with all that follows it, in the scope and out of it, states among them', () => {
    const { properties } = laid(() => null);
    const about = (name: string): string => {
      const found = properties.find(({ fed }) => fed.name === name);
      return found
        ? `${found.fed.selector} ${found.agreeing}+${found.others} in, ${found.outside.length} out${found.isShorter ? ', shorter' : ''}`
        : 'none';
    };
    // Four edges of the tag, its ring when hovered and when pressed, the edge of the heading.
    expect(about('--own')).toMatch(/^\.one \d\+\d in, 0 out/);
    expect(properties.find(({ fed }) => fed.name === '--own')?.fed.followers.length).toBe(7);
    // Each link, and its focus ring, which browsers draw in the colour of the text where nothing else is said.
    expect(about('--shared')).toBe(':root 2+0 in, 4 out');
    // What is mixed from it comes out as something else.
    expect(properties.find(({ fed }) => fed.name === '--edge')?.isShorter).toBeFalse();
  });

  it('is overridden itself where that is chosen; what outside follows it changes, and nothing else', () => {
    const plain = laid(() => []);
    expect(plain.css).not.toContain('--shared');
    expect(isProved(plain.proof)).toBeTrue();
    const taken = laid((properties) =>
      properties.filter(({ fed }) => fed.name === '--shared').map(({ fed }) => fed.id),
    );
    expect(taken.css).toMatch(/--shared: var\(--or-/);
    expect(taken.css).not.toMatch(/\.one a[^{]*\{[^}]*color/);
    expect(spoken(taken.proof.missed.words)).toEqual([]);
    expect(spoken(taken.proof.spilt.words)).toEqual([]);
    const colorOf = (site: SiteModel, selector: string): string => {
      const color = new StyleView(pageOf(site, 1)).styleAt(numberOn(site, selector)).color('color');
      return color ? hexOf(color) : '';
    };
    expect(colorOf(taken.after, '.two a')).toBe(colorOf(taken.after, '.one a'));
    expect(colorOf(plain.after, '.two a')).toBe('#3a6cf0');
  });

  it('is taken by itself where its followers are exactly places of the scope that become one value', () => {
    const site = opened();
    const found = foundColors(site, SCOPE, 1280);
    const value = { kind: 'role', role: 'accent', shade: 0 } as const;
    const locked = Object.fromEntries(
      found.rows
        .filter(({ hexes }) => hexes.includes('#5b3fc4'))
        .map(({ id }) => [id, { kind: 'value' as const, value }]),
    );
    const proposal = proposeMatch(site, SCOPE, found, { ...CHOICES, locked });
    const properties = themeProperties(toEnd(fedProperties(site, found, 1280)), proposal, PALETTE);
    expect(properties.filter(({ isTaken }) => isTaken).map(({ fed }) => fed.name)).toEqual(['--own']);
    const result = toEnd(layMatch(site, proposal, 1280, properties));
    const after = withOverrides(site, result);
    expect(after.css).toContain('--own: var(--or-accent)');
    expect(after.css).not.toContain('.tag');
    expect(after.css).not.toContain('border-bottom-color');
    const proof = toEnd(verifyMatch(site, after, SCOPE, proposal, { properties }));
    expect(spoken([...proof.missed.words, ...proof.spilt.words])).toEqual([]);
    const whole = toEnd(layMatch(site, proposal, 1280));
    expect(result.laid).toBe(whole.laid);
    expect(result.put.length).toBeLessThan(whole.put.length);
  });
});
