import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { LOUD, flashOfPly, flashOfRole, flashOfStep } from './flash.js';
import type { SiteModel } from '../site/site-model.js';

const THEME =
  '.nav a { color: #123 } .nav a:hover { color: #456 } .box { background: #eee; border: 1px solid #999; color: #222 } .plain { color: inherit } .tag::before { content: "!"; color: red }';
const BODY =
  '<nav class="nav main"><a href=1>One</a><a href=2>Two</a></nav><nav class="nav foot"><a href=3>Three</a></nav><div class=box>b</div><p class=plain></p><b class=tag>t</b>';
const LOUD_RGB = 'rgb(255, 31, 210)';

/** What a flash's rules would paint, resolved on the page they are for; its elements stand for their running numbers. */
function painted(css: string, selector: string, property: string, pseudo = ''): string {
  const numbered = BODY.replace(/<(?!\/)(\w+)/g, '<$1 data-uv-probe');
  const page = parsePage(`<!doctype html><style>${THEME}</style><body>${numbered}`, { veneer: css });
  const element = page.document.elements.find(({ classes, localName }) =>
    selector.startsWith('.') ? classes.includes(selector.slice(1)) : localName === selector,
  );
  return element ? new StyleView(page).style(element, pseudo).resolved(property) : 'nothing';
}

describe('a flash', () => {
  const open = (): SiteModel => openOnePage(THEME, BODY);

  it('of a step paints what the step paints itself, its fill before its text', () => {
    const site = open();
    const { css } = flashOfStep(site, 1, numberOn(site, '.box'), '', 1280);
    expect(css).toContain(`[data-uv-n="${numberOn(site, '.box')}"] {`);
    expect(css).toContain(LOUD);
    expect(css).toContain('background');
    expect(css).not.toMatch(/[^-]color: #ff1fd2/);
  });

  it('of a step that paints nothing outlines it', () => {
    const site = open();
    expect(flashOfStep(site, 1, numberOn(site, '.plain'), '', 1280).css).toContain('outline: 3px dashed');
  });

  it('of a pseudo-element paints that', () => {
    const site = open();
    const { css } = flashOfStep(site, 1, numberOn(site, '.tag'), 'before', 1280);
    expect(css).toContain('"]::before { ');
  });

  it('of a ply paints all its selector reaches, and tells look-alikes apart by where they stand', () => {
    const site = open();
    const { css, places } = flashOfPly(site, 1, '.nav a', 'color');
    expect(painted(css, 'a', 'color')).toBe(LOUD_RGB);
    expect(places.reduce((sum, { count }) => sum + count, 0)).toBe(3);
    expect(new Set(places.map(({ name }) => name)).size).toBe(places.length);
    expect(places.length).toBe(2);
  });

  it('of a ply for a state or a pseudo-element counts the elements that can come into it', () => {
    const site = open();
    expect(flashOfPly(site, 1, '.nav a:hover', 'color').places.reduce((sum, { count }) => sum + count, 0)).toBe(3);
    expect(flashOfPly(site, 1, '.tag::before', 'color').places.reduce((sum, { count }) => sum + count, 0)).toBe(1);
    expect(flashOfPly(site, 1, 'a >', 'color').places).toEqual([]);
  });

  it('of a role paints every override by it, shades among them, and no other', () => {
    const first = fulfil(open(), '.box', {
      property: 'background-color',
      value: { kind: 'role', role: 'second', shade: -6 },
    });
    const both = fulfil(first.site, '.tag', { value: { kind: 'role', role: 'ink', shade: 0 } });
    const { css, places } = flashOfRole(both.site, 'second');
    expect(painted(css, '.box', 'background-color')).toBe(LOUD_RGB);
    expect(painted(css, '.tag', 'color')).toBe('rgb(29, 43, 42)');
    expect(places).toEqual([{ name: 'Everywhere', count: 1 }]);
    expect(flashOfRole(both.site, 'ring').places).toEqual([]);
  });
});
