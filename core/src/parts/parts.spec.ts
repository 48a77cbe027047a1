import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { openParts, openSite } from '../site/site-model.js';
import { isHidden, proposeOpeners } from './propose-openers.js';
import { proposeParts, reachabilityOf } from './propose-parts.js';

const HTML = `<!doctype html><link rel=stylesheet href=a.css><body>
  <header id=masthead><nav aria-label="Main"><a href=#>x</a></nav></header>
  <main><form class="qs-root"><h2 class=qs-title>Book a canoe</h2><p class=qs-row><input class=qs-input></p></form><iframe title="Chat" src=x></iframe></main>
  <river-level><template shadowrootmode=open><b>1.2 m</b></template></river-level>
  <div class="drawer"><div class=drawer__box><p>Basket</p></div></div>
  <div id=news hidden role=dialog aria-label="newsletter"><p>Write to us</p></div>
  <div id=bar class=bar>We use cookies</div>
  <footer>f</footer>`;
const CSS =
  '.drawer { display: none } body.basket-open .drawer { display: block } .bar { position: fixed } .menu { opacity: 0 } .menu[data-open="yes"] { opacity: 1 }';
const loadSheet = (): string => CSS;
const page = parsePage(HTML, { loadSheet });

describe('proposeParts', () => {
  const parts = proposeParts(
    new Map([
      [1, page],
      [2, parsePage('<!doctype html><body><header id=masthead>h</header>', { loadSheet })],
    ]),
  );
  const find = (selector: string) => parts.find((part) => part.selector === selector);

  it('finds landmarks, forms, dialogs, frames, shadow roots, stems and fixed bars, named as people would', () => {
    expect(parts.map(({ name, kind, selector }) => [name, kind, selector])).toEqual([
      ['Header', 'theme', '#masthead'],
      ['Main', 'theme', 'nav'],
      ['Main content', 'theme', 'main'],
      ['Book a canoe', 'form', '.qs-root'],
      ['Chat', 'framed', 'iframe[title="Chat"]'],
      ['River level', 'shadow', 'river-level'],
      ['Drawer', 'pop-up', '.drawer'],
      ['Newsletter', 'pop-up', '#news'],
      ['Fixed bar', 'pop-up', '#bar'],
      ['Footer', 'theme', 'footer'],
    ]);
  });

  it('knows the pages each is on, and how to open what is hidden', () => {
    expect(find('#masthead')?.pageIds).toEqual([1, 2]);
    expect(find('#news')?.openers).toEqual([{ selector: '#news', act: 'drop-attribute', name: 'hidden', value: '' }]);
    expect(find('.qs-root')?.openers).toEqual([]);
  });

  it('finds menu, header and messages of pages that have no landmarks, by the names they go by, and leaves pieces alone', () => {
    const foreign = parsePage(
      '<!doctype html><body><div class="ui top header">Shop</div><div class="ui inverted menu"><a class=item href=1>a</a></div><div class="ui message">Saved</div><div class="ui message">Sent</div>' +
        '<div class=alert>x</div>'.repeat(9),
    );
    expect(proposeParts(new Map([[1, foreign]])).map(({ name, selector }) => [name, selector])).toEqual([
      ['Header', '.ui.top.header'],
      ['Menu', '.ui.inverted.menu'],
      ['Messages', '.message'],
    ]);
  });

  it('puts away what stands open, and shows it again', () => {
    const html = '<!doctype html><body><dialog class=d open>x</dialog><div class=bar style="position: fixed">y</div>';
    const parts = [
      { id: 1, name: 'D', kind: 'pop-up', selector: '.d', openers: [] },
      { id: 2, name: 'B', kind: 'pop-up', selector: '.bar', openers: [] },
    ];
    const site = openSite({
      pages: [{ id: 1, name: 'P', path: 'p.html', html }],
      stylesheets: {},
      parts,
      veneerPlace: 'head-end',
      prefix: 'b',
    });
    const hidden = (ids: readonly number[]): boolean[] => {
      const shown = openParts(site, ids).pages.get(1);
      return shown
        ? ['d', 'bar'].map((name) =>
            isHidden(new StyleView(shown), shown.document.elements.filter(({ classes }) => classes.includes(name))[0]),
          )
        : [];
    };
    expect([hidden([]), hidden([1]), hidden([1, 2]), hidden([])]).toEqual([
      [false, false],
      [true, false],
      [true, true],
      [false, false],
    ]);
  });

  it('takes hostile pages', () => {
    for (const html of [
      '',
      '<iframe>',
      '<form><form>',
      `<div id='a"] , *{}' role=dialog>x</div>`,
      '<nav></nav>'.repeat(300),
    ])
      expect(() => proposeParts(new Map([[1, parsePage(html)]]))).not.toThrow();
  });
});

describe('proposeOpeners', () => {
  const elementOf = (test: (name: string) => boolean, source = page) => {
    const found = source.document.elements.find(({ classes, id }) => classes.some(test) || (id !== null && test(id)));
    if (!found) throw new Error('not in the page');
    return found;
  };

  it('reads from the rules which class shows an element', () => {
    const drawer = elementOf((name) => name === 'drawer');
    expect(isHidden(new StyleView(page), drawer)).toBe(true);
    expect(proposeOpeners(page, new StyleView(page), drawer)).toEqual([
      { selector: 'body', act: 'add-class', name: 'basket-open', value: '' },
    ]);
  });

  it('reads attributes too, and says nothing where the sheets know no way', () => {
    const other = parsePage(
      '<!doctype html><link rel=stylesheet href=a.css><div class=menu>x</div><div class=never style="display:none">y</div>',
      { loadSheet },
    );
    expect(
      proposeOpeners(
        other,
        new StyleView(other),
        elementOf((name) => name === 'menu', other),
      ),
    ).toEqual([{ selector: '.menu', act: 'set-attribute', name: 'data-open', value: 'yes' }]);
    expect(
      proposeOpeners(
        other,
        new StyleView(other),
        elementOf((name) => name === 'never', other),
      ),
    ).toEqual([]);
  });
});

describe('openParts', () => {
  const site = openSite({
    pages: [{ id: 1, name: 'Home', path: 'index.html', html: HTML }],
    stylesheets: { 'a.css': CSS },
    veneerPlace: 'head-end',
    prefix: 'brand',
    parts: [
      {
        id: 1,
        name: 'Basket',
        kind: 'pop-up',
        selector: '.drawer',
        openers: [{ selector: 'body', act: 'add-class', name: 'basket-open', value: '' }],
      },
    ],
  });
  const displayIn = (model: typeof site) => {
    const opened = model.pages.get(1);
    const drawer = opened?.document.elements.find(({ classes }) => classes.includes('drawer'));
    return opened && drawer ? `${drawer.number} ${new StyleView(opened).style(drawer).resolved('display')}` : '';
  };

  it('resolves the page as it is when the part is open, with the same running numbers', () => {
    const [number] = displayIn(site).split(' ');
    expect(displayIn(site)).toBe(`${number} none`);
    expect(displayIn(openParts(site, [1]))).toBe(`${number} block`);
    expect(displayIn(openParts(openParts(site, [1]), []))).toBe(`${number} none`);
  });
});

describe('reachabilityOf', () => {
  it('tells framed, shadow and in page apart', () => {
    const kinds = new Set(
      page.document.elements
        .filter(({ localName }) => ['iframe', 'b', 'main', 'river-level'].includes(localName))
        .map((element) => `${element.localName} ${reachabilityOf(element)}`),
    );
    expect([...kinds].sort()).toEqual(['b shadow', 'iframe framed', 'main in page', 'river-level shadow']);
  });
});
