import { spoken } from '@upper-veneer/words';
import { parsePage, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import type { ElementNode } from '../dom/tree.js';
import { groupsOf, lookAlikes, offeredOf } from './groups.js';
import { isRunningLink, runningLinks } from './running-links.js';

const CSS =
  '<style>.ui { font: 14px x } .ui.button { background: #e0e1e2; color: #333 } .ui.primary.button { background: #2185d0; color: #fff } .ui.label { background: #eee }</style>';
const PAGE =
  parsePage(`<!doctype html>${CSS}<body class=ui><header class="ui bar"><button class="ui button">Log in</button></header><main><form class="ui form search"><button class="ui primary button">Find</button><button class="ui button one">Clear</button><button class="ui button">More</button><span class="ui label">x</span></form>
<form class="ui form book"><button class="ui button">Back</button><button class="ui primary button">Book</button></form></main>`);
const OTHER = parsePage(
  `<!doctype html>${CSS}<body class=ui><form class="ui form search"><button class="ui button">Clear</button></form>`,
);

function byText(page: Page, text: string): ElementNode {
  const found = page.document.elements.find(({ ownText }) => ownText === text);
  if (!found) throw new Error(`No ${text}`);
  return found;
}

function lookOf(element: ElementNode): string {
  const page = [PAGE, OTHER].find((candidate) => candidate.document.elements[element.number] === element) as Page;
  return new StyleView(page).style(element).resolved('background-color');
}

// What people mean, counted by hand: secondary buttons are those without the class that makes the others blue.
describe('natural groups', () => {
  const groups = groupsOf([PAGE, OTHER], byText(PAGE, 'Clear'), lookOf);

  it('hold the secondary buttons of this form, and those of all pages', () => {
    const texts = groups.map(({ elements }) => elements.map(({ ownText }) => ownText).join());
    expect(texts).toContain('Clear,More,Clear');
    expect(texts).toContain('Log in,Clear,More,Back,Clear');
    expect(groups.find(({ elements }) => elements.length === 5)?.isOneLook).toBeTrue();
    expect(groups.find(({ elements }) => elements.length === 5)?.selectors[0]).toContain(':not(.primary)');
  });

  it('go from narrow to wide, each with a selector of its own that matches it', () => {
    const sizes = groups.map(({ elements }) => elements.length);
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
    expect(groups.every(({ elements }) => elements.includes(byText(PAGE, 'Clear')))).toBeTrue();
    expect(new Set(groups.map(({ selectors }) => selectors[0])).size).toBe(groups.length);
  });

  it('of one look come first where some are left out', () => {
    const [first] = offeredOf(groups, 1);
    expect(groups.some(({ isOneLook }) => !isOneLook)).toBeTrue();
    expect(spoken(first.words)).toEqual(spoken(groups.find(({ isOneLook }) => isOneLook)?.words ?? first.words));
    expect(spoken(offeredOf(groups, groups.length).map(({ words }) => words))).toEqual(
      spoken(groups.map(({ words }) => words)),
    );
  });

  it('say what looks alike and is not taken', () => {
    const taken = new Set(PAGE.document.elements.filter(({ classes }) => classes.includes('one')));
    expect(lookAlikes([PAGE, OTHER], byText(PAGE, 'Clear'), lookOf, taken).map(({ ownText }) => ownText)).toEqual([
      'Log in',
      'More',
      'Back',
      'Clear',
    ]);
  });

  it('of a single element are none', () => {
    const alone = parsePage('<!doctype html><body><em class=a>x</em>');
    expect(groupsOf([alone], byText(alone, 'x'), () => '')).toEqual([]);
  });
});

describe('links in running text', () => {
  const page =
    parsePage(`<!doctype html><body><a href=home class=logo>Withy</a><nav><ul><li><a href=a>Trips and more of them</a></li></ul></nav><main><article class=card><h3><a href=b>Mill</a></h3><p>From the old ferry, <a href=c>down to the mill</a>, in four hours.</p></article>
<ul><li>Bring a hat, and see <a href=d>the list</a> of the rest.</li><li><a href=e>Only a link</a></li></ul><p><a href=f class=btn role=button>Book</a> a place while there is one</p><p><a href=g>Just this</a></p><dl><dd>Ask at <a href=h>the landing</a> before noon</dd></dl></main><footer><ul><li><a href=i>Terms</a></li><li><a href=j>Map</a></li></ul></footer>`);
  const hrefs = (elements: readonly ElementNode[]): string =>
    elements.map(({ attributes }) => attributes.get('href') ?? '').join('');

  it('are those in paragraphs, and those that words go on around', () =>
    expect(hrefs(page.document.elements.filter(isRunningLink))).toBe('cdgh'));

  it('are gathered by a selector that takes no other', () => {
    const found = runningLinks([page]);
    expect(found && [...hrefs(found.elements)].every((href) => 'cdgh'.includes(href))).toBeTrue();
    expect(found?.selector).toMatch(/dd/);
    expect((found?.elements.length ?? 0) + (found?.missed ?? 0)).toBe(4);
    expect(runningLinks([parsePage('<!doctype html><nav><a href=x>Menu</a></nav>')])).toBeNull();
  });
});
