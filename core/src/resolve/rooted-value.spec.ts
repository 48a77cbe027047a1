import { parsePage, VENEER_SHEET_NAME } from './page.js';
import { rootedValue } from './rooted-value.js';
import { StyleView } from './style-view.js';

describe('rootedValue', () => {
  const sheets: Readonly<Record<string, string>> = {
    'css/theme.css':
      '@import "deep/more.css"; .a { background-image: linear-gradient(red, blue), url("../img/r%20n.svg#x") }',
    'css/deep/more.css': '.c { background-image: url(c.png) }',
  };
  const page = parsePage(
    '<!doctype html><link rel=stylesheet href=../css/theme.css><style>.b { background-image: url(b.png) }</style><p class=a></p><p class=b></p><p class=c></p><p class=d style="background-image: url(/d.png)"></p><p class=e style="background-image: url(https://x.test/e.png), url(#f)"></p><p class=v></p>',
    {
      path: 'trips/index.html',
      loadSheet: (path) => sheets[path] ?? null,
      veneer: '.v { background-image: url(img/v.png) }',
    },
  );
  const of = (name: string): string => {
    const element = page.document.elements.find(({ classes }) => classes.includes(name));
    if (!element) throw new Error(`No .${name}`);
    return rootedValue(new StyleView(page).style(element), page, 'background-image');
  };

  // CSS Values 4 §4.5: an address is resolved against its style sheet, in an attribute or `<style>` against the document.
  it('leads from the site’s root to the file that the sheet, the page or the attribute names', () => {
    expect(VENEER_SHEET_NAME).not.toContain('/');
    expect(of('a')).toContain('url(img/r%20n.svg#x)');
    expect(['b', 'c', 'd', 'v'].map((name) => /url\("?([^")]*)/.exec(of(name))?.[1])).toEqual([
      'trips/b.png',
      'css/deep/c.png',
      'd.png',
      'img/v.png',
    ]);
  });

  it('leaves what leads out of the site, or within the page, as it is', () => {
    expect(of('e')).toContain('https://x.test/e.png');
    expect(of('e')).toContain('#f');
  });
});
