import { say } from '@upper-veneer/words';
import { openOnePage } from '../testing/one-page-site.js';
import { findElements } from './find-elements.js';
import { siteWideTargets } from '../inspect/site-wide.js';
import { pageOf } from './site-model.js';

const BODY = `<h1>Slow river</h1><p>Down the <a href=x>River  bend</a></p><input placeholder="Your river"><img src=a alt="A river at dusk"><button aria-label="Close river notes">x</button><script>river</script>
<river-gauge><template shadowrootmode=open><b part=reading>river level</b></template></river-gauge>`;

describe('findElements', () => {
  const rows: readonly (readonly [text: string, by: 'selector' | 'text', found: readonly string[]])[] = [
    ['h1', 'selector', ['h1']],
    ['p a', 'selector', ['a']],
    ['  p > a  ', 'selector', ['a']],
    ['river bend', 'text', ['a']],
    ['RIVER', 'text', ['h1', 'a', 'input', 'img', 'button', 'b']],
    ['reading', 'text', ['b']],
    ['', 'text', []],
    ['nothing like it', 'text', []],
    ['p >', 'text', []],
    ['a[', 'text', []],
  ];
  for (const [text, by, found] of rows) {
    it(`finds "${text}" by ${by}`, () => {
      const site = openOnePage('', BODY);
      const result = findElements(site, 1, text);
      expect(result.by).toBe(by);
      expect(result.elements.map((number) => pageOf(site, 1).document.elements[number].localName)).toEqual([...found]);
    });
  }
});

describe('siteWideTargets', () => {
  const names = (body: string): string[] => siteWideTargets(openOnePage('', body), 1).map(({ name }) => say(name));

  it('names what every page has, links and the ring where something shows them', () => {
    expect(names(`${BODY}<p>And see <a href=x>the bend</a> of it all.</p>`)).toEqual([
      'Links in text',
      'Text highlight',
      'Scrollbar',
      'Focus ring',
    ]);
    expect(names('<nav><a href=x>Menu</a></nav>')).toEqual(['Text highlight', 'Scrollbar', 'Focus ring']);
    expect(names('<p>text</p>')).toEqual(['Text highlight', 'Scrollbar']);
    expect(names('<button>b</button>')).toEqual(['Text highlight', 'Scrollbar', 'Focus ring']);
  });

  it('takes a link in running text before one that has a class of its own', () => {
    const site = openOnePage(
      '',
      '<nav><a class=item href=1>n</a></nav><p>text goes on around <a href=2>link</a> here</p>',
    );
    const [links] = siteWideTargets(site, 1);
    expect(pageOf(site, 1).document.elements[links.element].attributes.get('href')).toBe('2');
  });
});
