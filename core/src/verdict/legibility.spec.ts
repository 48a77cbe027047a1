import { say, type Spoken } from '@upper-veneer/words';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { type PageLayout } from '../resolve/page-layout.js';
import { withLayout } from '../resolve/page.js';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { RIVER_PALETTE, fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import type { Finding } from './finding.js';
import { judgeInWords } from '../testing/in-words.js';

/** What is said of reading in the verdict on a wish. */
function read(site: SiteModel, selector: string, some: Partial<OverrideWish>): Spoken<Finding>[] {
  const made = fulfil(site, selector, some);
  return judgeInWords(made.site, made.override, 1280).filter(({ text }) =>
    /:\s1|over (?:a picture|pictures)/.test(text),
  );
}

const textsOf = (findings: readonly Spoken<Finding>[]): string[] => findings.map(({ text }) => text);

// Ratios by WCAG 2.2's formula: #104a47 on #fff 9.99 : 1, on #1d2b2a 1.45, on #0d3b39 1.23 (worked out by hand to a tenth).
describe('the verdict reads the worst of all matches', () => {
  const PAGE =
    '<header style="background: #1d2b2a"><a href=a>Trips</a><a href=b>Gear</a></header><main><p>See <a href=c>the river</a></p></main><footer style="background: #0d3b39"><a href=d>Map</a></footer>';

  it('and says how many fail, the worst first, though the one pointed at is fine', () => {
    const [finding] = read(openOnePage('a { color: #fff }', PAGE), 'main a', { reach: 'everywhere' });
    expect(finding.standing).toBe('fails');
    expect(finding.text).toBe('3 of 4 texts cannot be read, worst 1.2 : 1');
    expect(finding.spots?.length).toBe(3);
    expect(finding.basis).toContain('“Map” on Home');
  });

  it('over all pages', () => {
    const html = (body: string): string =>
      `<!doctype html><html><head><style>.go { background: #ddd; color: #111 } .p2 .go { background: #444 }</style></head><body ${body}><button class=go>Go</button></body></html>`;
    const site = dressSite(
      openSite({
        pages: [
          { id: 1, name: 'Home', path: 'a.html', html: html('') },
          { id: 2, name: 'Trips', path: 'b.html', html: html('class=p2') },
        ],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      RIVER_PALETTE,
    );
    const plan = planOverride(site, {
      pageId: 1,
      element: numberOn(site, '.go'),
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      property: 'color',
      value: { kind: 'literal', css: '#222' },
      width: 1280,
    });
    if (!plan.ok) throw new Error(say(plan.reason));
    const finding = judgeInWords(withOverrides(site, plan), plan.put[0], 1280).find(({ text }) =>
      text.includes('cannot be read'),
    );
    expect(finding?.text).toMatch(/^1 of 2 texts cannot be read/);
    expect(finding?.spots).toEqual([{ pageId: 2, element: numberOn(site, '.go') }]);
  });

  it('in every state that falls through, and at every width', () => {
    const states = read(
      openOnePage(
        '.go { background: #eee; color: #111 } .go:hover { background: #123 }',
        '<button class=go>Go</button>',
      ),
      '.go',
      { value: { kind: 'literal', css: '#222' } },
    );
    expect(states[0].text).toBe('text cannot be read, 1.0 : 1');
    expect(states[0].basis).toContain('hover');
    const widths = read(
      openOnePage(
        '.go { background: #eee } @media (max-width: 500px) { .go { background: #222 } }',
        '<p class=go>Go</p>',
      ),
      '.go',
      { value: { kind: 'literal', css: '#222' } },
    );
    expect(widths[0].basis).toContain('at 390 px');
    expect(widths[0].standing).toBe('fails');
  });

  it('what stands on a changed ground among it, what stood unread before told apart', () => {
    const findings = read(
      openOnePage(
        '.box { background: #fff } .pale { color: #eee }',
        '<div class=box><p>ink</p><p class=pale>pale</p><p style="background: #fff">own ground</p></div>',
      ),
      '.box',
      { property: 'background-color', value: { kind: 'literal', css: '#000' } },
    );
    expect(findings[0].text).toBe('1 of 2 texts cannot be read, worst 1.0 : 1');
    const still = read(
      openOnePage('.box { background: #fff } .pale { color: #eee }', '<div class=box><p class=pale>pale</p></div>'),
      '.box',
      { property: 'background-color', value: { kind: 'literal', css: '#fafafa' } },
    );
    expect(still[0].basis).toContain('All of them failed before');
  });

  it('as failing before only what fails nowhere anew: a state that falls through now counts as new', () => {
    const css = '.t { background: #fff; color: #111 } .t:hover { background: #222 }';
    const both = read(openOnePage(css, '<button class=t>Go</button>'), '.t', {
      value: { kind: 'literal', css: '#eee' },
    });
    expect(both[0].text).toBe('text cannot be read, 1.1 : 1');
    expect(both[0].basis).not.toContain('failed before');
  });

  it('no edge over a picture: what lies around it cannot be told', () => {
    const css = 'main { background: url(boat.png) } input { border: 1px solid #333; background: #fff }';
    const edge = read(openOnePage(css, '<main><input value=x></main>'), 'input', {
      property: 'border-color',
      value: { kind: 'literal', css: '#eee' },
    });
    expect(textsOf(edge)).toContain('1 edge over a picture');
    expect(textsOf(edge).some((text) => text.startsWith('edge cannot'))).toBeFalse();
  });

  it('edges of fields and rings by their own names, the ring on both sides', () => {
    const edge = read(openOnePage('input { border: 1px solid #333; background: #fff }', '<input value=x>'), 'input', {
      property: 'border-color',
      value: { kind: 'literal', css: '#eee' },
    });
    expect(textsOf(edge)).toContain('edge cannot be seen, 1.1 : 1');
    const css =
      'button { background: #104a47; color: #fff; outline-offset: 0 } button:focus-visible { outline: 2px solid #000 }';
    // #0d3b39 is 12.3 : 1 on the white page, and 1.2 : 1 on the button that it touches.
    const ring = read(openOnePage(css, '<button>Go</button>'), 'button', {
      property: 'outline-color',
      state: 'focus',
      value: { kind: 'literal', css: '#0d3b39' },
    });
    expect(textsOf(ring).some((text) => text.startsWith('focus ring cannot be seen, 1.2'))).toBeTrue();
  });

  it('not what is hidden or off', () => {
    const css = '.t { color: #111 } .none { display: none }';
    expect(
      textsOf(
        read(openOnePage(css, '<p class=t>a</p><p class="t none">b</p>'), '.t', {
          value: { kind: 'literal', css: '#fff' },
        }),
      ),
    ).toEqual(['text cannot be read, 1.0 : 1']);
    expect(
      read(openOnePage('button { color: #111 }', '<button disabled>a</button>'), 'button', {
        value: { kind: 'literal', css: '#eee' },
      }),
    ).toEqual([]);
  });

  it('by one shade that passes on every ground where it fails', () => {
    const made = fulfil(
      openOnePage(
        '.a { background: #fff } .b { background: #eee }',
        '<p class=a><a href=x>one</a></p><p class=b><a href=y>two</a></p>',
      ),
      'a',
      { reach: 'everywhere', value: { kind: 'literal', css: '#9a9a9a' } },
    );
    const finding = judgeInWords(made.site, made.override, 1280).find(({ text }) => text.includes('cannot be read'));
    expect(finding?.text).toMatch(/^2 of 2/);
    const plan = planOverride(made.site, finding?.repair?.wishes[0] as OverrideWish);
    if (!plan.ok) throw new Error(say(plan.reason));
    expect(
      judgeInWords(withOverrides(made.site, plan), plan.put[0], 1280).some(({ text }) =>
        text.includes('cannot be read'),
      ),
    ).toBeFalse();
  });

  it('over what is painted under its lines, where a frame has measured the page', () => {
    const site = openOnePage(
      '.under { background: #fff } .t { color: #111 }',
      '<div class=under></div><p class=t>over it</p>',
    );
    const [under, text] = [numberOn(site, '.under'), numberOn(site, '.t')];
    const boxes = new Float32Array(4 * (text + 1));
    for (const number of [0, 3]) boxes.set([0, 0, 1280, 200], number * 4);
    boxes.set([0, 0, 400, 100], under * 4);
    boxes.set([0, 20, 400, 20], text * 4);
    const layout: PageLayout = {
      width: 1280,
      height: 800,
      boxes,
      fragments: new Map(),
      lines: new Map([[text, [10, 22, 100, 16]]]),
      pseudoBoxes: new Map(),
    };
    const measured = { ...site, pages: site.pages.with(1, withLayout(pageOf(site, 1), layout)) };
    const findings = read(measured, '.under', {
      property: 'background-color',
      value: { kind: 'literal', css: '#222' },
    });
    expect(findings[0].text).toBe('text cannot be read, 1.1 : 1');
    expect(read(site, '.under', { property: 'background-color', value: { kind: 'literal', css: '#222' } })).toEqual([]);
  });
});
