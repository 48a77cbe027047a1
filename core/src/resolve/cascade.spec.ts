import { spoken } from '@upper-veneer/words';
import { expectLikeBrowser } from '../testing/expect-like-browser.js';
import { explain } from './explain.js';
import { parsePage } from './page.js';
import { pointerStates } from '../elsewhere/pointer-states.js';
import { StyleView } from './style-view.js';

const COLORS = [
  'color',
  'background-color',
  'border-top-color',
  'outline-color',
  'text-decoration-color',
  'fill',
  'caret-color',
];
const OTHERS = [
  'display',
  'font-size',
  'font-weight',
  'line-height',
  'opacity',
  'visibility',
  'border-top-width',
  'border-top-style',
  'text-decoration-line',
  'font-family',
  'border-top-left-radius',
];

/** Resolved value of the element with class `t`. */
function resolved(html: string, property: string, pseudo = ''): string {
  const page = parsePage(html);
  const target = page.document.elements.find((element) => element.classes.includes('t'));
  if (!target) throw new Error('The row has no .t');
  return new StyleView(page).style(target, pseudo).resolved(property);
}

describe('the cascade', () => {
  // Each row names the standard whose rule or example it is; in Karma every element is compared with Chromium.
  const rows: readonly (readonly [source: string, html: string, property: string, expected: string])[] = [
    [
      'Cascading 5 §6.1 order of appearance',
      '<style>.t{color:red}.t{color:lime}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.1 specificity',
      '<style>p.t{color:lime}.t{color:red}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.1 importance',
      '<style>.t{color:lime!important}p.t{color:red}</style><p class=t style="color:blue">',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.1 element-attached',
      '<style>#i.t{color:red}</style><p class=t id=i style="color:lime">',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.4 layers, outside wins',
      '<style>.t{color:lime}@layer a{#i{color:red}}</style><p class=t id=i>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.4 layers, later wins',
      '<style>@layer a,b;@layer b{.t{color:lime}}@layer a{#i{color:red}}</style><p class=t id=i>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.4 layers, important reversed',
      '<style>@layer a,b;@layer b{.t{color:red!important}}@layer a{.t{color:lime!important}}.t{color:blue!important}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.4 nested layers',
      '<style>@layer a{.t{color:lime}@layer b{#i{color:red}}}</style><p class=t id=i>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §6.4 anonymous layers',
      '<style>@layer{.t{color:red}}@layer{.t{color:lime}}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §7.3.4 revert-layer',
      '<style>@layer a{.t{color:lime}}@layer b{.t{color:red;color:revert-layer}}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §7.3.3 revert',
      '<style>b.t{font-weight:100;font-weight:revert}</style><b class=t>',
      'font-weight',
      '700',
    ],
    ['Cascading 5 §7.3 initial', '<style>body{color:red}.t{color:initial}</style><p class=t>', 'color', 'rgb(0, 0, 0)'],
    [
      'Cascading 5 §7.3 unset inherits',
      '<style>body{color:lime}.t{color:red;color:unset}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 5 §7.3 inherit',
      '<style>body{background-color:lime}.t{background-color:inherit}</style><p class=t>',
      'background-color',
      'rgb(0, 255, 0)',
    ],
    ['Cascading 5 §3.2 all', '<style>.t{color:red;all:initial}</style><p class=t>', 'display', 'inline'],
    [
      'Cascading 6 §2.5 scope',
      '<style>@scope(.s){.t{color:lime}}</style><div class=s><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 6 §2.5 scope limit',
      '<style>.t{color:lime}@scope(.s) to (.l){p.t{color:red}}</style><div class=s><div class=l><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Cascading 6 §2.4 proximity',
      '<style>@scope(.near){p{color:lime}}@scope(.far){p{color:red}}</style><div class=far><div class=near><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    ['Cascading 6 §2.5 :scope', '<style>@scope(.t){:scope{color:lime}}</style><p class=t>', 'color', 'rgb(0, 255, 0)'],
    [
      'Nesting 1 §3 &',
      '<style>.s{& .t{color:lime}.t{background-color:lime}}</style><div class=s><p class=t>',
      'background-color',
      'rgb(0, 255, 0)',
    ],
    ['Nesting 1 §3 relative', '<style>.s{> .t{color:lime}}</style><div class=s><p class=t>', 'color', 'rgb(0, 255, 0)'],
    [
      'Nesting 1 §4 declarations after rules keep their place',
      '<style>.t{color:red;@media all{color:blue}color:lime}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Nesting 1 §3.2 specificity of a list',
      '<style>#i,.s{& .t{color:lime}}.s .t.t{color:red}</style><div class=s><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Conditional 3 §2 nested conditions',
      '<style>@media screen{@supports(color:red){@media(min-width:1px){.t{color:lime}}}}@media print{.t{color:red}}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Syntax 3 §2.2 one bad selector drops the rule',
      '<style>.t{color:lime}.t,:unknown{color:red}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Syntax 3 §2.2 one bad declaration drops itself',
      '<style>.t{color:lime;color:nonsense;opacity:.5}</style><p class=t>',
      'opacity',
      '0.5',
    ],
    ['Variables 1 §3', '<style>.t{--c:lime;color:var(--c)}</style><p class=t>', 'color', 'rgb(0, 255, 0)'],
    [
      'Variables 1 §3.1 invalid at computed-value time',
      '<style>body{color:lime}.t{color:red;color:var(--none)}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Variables 1 §3.1 cycles',
      '<style>.t{--a:var(--b);--b:var(--a);color:var(--a,lime)}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Variables 1 §3 in shorthands',
      '<style>.t{--w:2px;border:var(--w) solid lime}</style><p class=t>',
      'border-top-width',
      '2px',
    ],
    [
      'Variables 1 §3 empty fallback',
      '<style>.t{color:lime;background-color:var(--x,)}</style><p class=t>',
      'background-color',
      'rgba(0, 0, 0, 0)',
    ],
    [
      'Properties and Values 1 §2.4 not inherited',
      '<style>@property --c{syntax:"<color>";inherits:false;initial-value:lime}body{--c:red}.t{color:var(--c)}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Color 4 §9.2 currentcolor inherits as keyword',
      '<style>body{color:red;border-color:currentcolor}.t{color:lime;border:1px solid;border-color:inherit}</style><p class=t>',
      'border-top-color',
      'rgb(0, 255, 0)',
    ],
    [
      'Color 4 §9.2 color: currentcolor inherits',
      '<style>body{color:lime}.t{color:currentcolor}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Color Adjustment 1 §2 light-dark()',
      '<style>.t{color-scheme:dark;color:light-dark(red,lime)}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Backgrounds 3 §4.3 no style, no width',
      '<style>.t{border-width:5px}</style><p class=t>',
      'border-top-width',
      '0px',
    ],
    [
      'Fonts 4 §2.5 em against the parent',
      '<style>body{font-size:20px}.t{font-size:1.5em;border:1em solid}</style><p class=t>',
      'border-top-width',
      '30px',
    ],
    [
      'Fonts 4 §2.2 bolder',
      '<style>body{font-weight:300}.t{font-weight:bolder}</style><p class=t>',
      'font-weight',
      '400',
    ],
    [
      'CSS 2.2 §10.8 numbers inherit as numbers',
      '<style>body{line-height:1.5}.t{font-size:30px}</style><p class=t>',
      'line-height',
      '45px',
    ],
    [
      'Values 4 §10 calc()',
      '<style>.t{border:calc(1px + 2px) solid;font-size:clamp(10px,2vw,40px)}</style><p class=t>',
      'font-size',
      '25.6px',
    ],
    [
      'Display 3 §2.7 blockification',
      '<style>.s{display:flex}.t{display:inline}</style><div class=s><span class=t>',
      'display',
      'block',
    ],
    [
      'HTML §15 bgcolor under any rule',
      '<style>td{background-color:lime}</style><table bgcolor=red><tr><td class=t bgcolor=red>',
      'background-color',
      'rgb(0, 255, 0)',
    ],
    ['HTML §15 font color', '<font color="#0f0"><p class=t>', 'color', 'rgb(0, 255, 0)'],
    ['HTML §2.3.6 legacy colours', '<body bgcolor=chucknorris><p class=t>', 'color', 'rgb(0, 0, 0)'],
    ['HTML §15 headings and lists', '<ul><li><h2 class=t>h<small>s</small></h2>', 'font-size', '24px'],
    ['HTML §15 monospace', '<p><code class=t>c</code>', 'font-size', '13px'],
    [
      'HTML §15 buttons and fields',
      '<button class=t>b</button><input><input disabled><textarea></textarea><select></select>',
      'background-color',
      'rgb(239, 239, 239)',
    ],
    [
      'Scoping 1 §3.3 :host under the document',
      '<style>.t{color:lime}</style><x-a class=t><template shadowrootmode=open><style>:host{color:red;background-color:lime}p{color:lime}</style><p></p><slot></slot></template><b></b></x-a>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Scoping 1 §3.3 :host important over the document',
      '<style>.t{color:red!important}</style><x-a class=t><template shadowrootmode=open><style>:host{color:lime!important}</style></template></x-a>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Scoping 1 §3.4 ::slotted()',
      '<x-a><template shadowrootmode=open><style>::slotted(b){background-color:lime}slot{color:lime}</style><slot></slot></template><b class=t></b></x-a>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Scoping 1 §4 custom properties cross',
      '<style>x-a{--c:lime}</style><x-a class=t><template shadowrootmode=open><style>p{color:var(--c)}</style><p></p></template></x-a>',
      'color',
      'rgb(0, 0, 0)',
    ],
    [
      'Shadow Parts 1 §3 ::part()',
      '<style>x-a::part(l){color:lime}</style><x-a class=t><template shadowrootmode=open><style>p{color:red}</style><p part=l></p></template></x-a>',
      'color',
      'rgb(0, 0, 0)',
    ],
    [
      'alternate and media-bound sheets',
      '<style>.t{color:lime}</style><style media=print>.t{color:red}</style><style media="(min-width: 9999px)">.t{color:red}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'rules kept out of the cascade',
      '<style>.t{color:lime}@keyframes k{from{color:red}}@font-face{font-family:f;src:url(x)}@starting-style{.t{color:red}}</style><p class=t>',
      'color',
      'rgb(0, 255, 0)',
    ],
    [
      'Box Shadow and gradients name colours',
      '<style>.t{color:lime;box-shadow:0 1px 2px}</style><p class=t>',
      'box-shadow',
      'rgb(0, 255, 0) 0px 1px 2px 0px',
    ],
  ];
  for (const [source, body, property, expected] of rows) {
    it(source, async () => {
      const html = `<!doctype html>${body}`;
      expect(resolved(html, property)).toBe(expected);
      await expectLikeBrowser(html, [...COLORS, ...OTHERS, 'box-shadow']);
    });
  }

  it('gives pseudo-elements what they inherit', async () => {
    const html =
      '<!doctype html><style>p{color:lime;--c:blue}.t::before{content:"x";background-color:var(--c)}.t::after{content:none}</style><p class=t>';
    expect(resolved(html, 'color', 'before')).toBe('rgb(0, 255, 0)');
    expect(resolved(html, 'background-color', 'before')).toBe('rgb(0, 0, 255)');
    await expectLikeBrowser(html, COLORS, 'before');
    const page = parsePage(html);
    const target = page.document.elements[page.document.elements.length - 1];
    expect(new StyleView(page).generates(target, 'before')).toBe(true);
    expect(new StyleView(page).generates(target, 'after')).toBe(false);
  });

  it('follows imports with their conditions and stops cycles', () => {
    const files = new Map([
      ['css/a.css', '@import "b.css" layer(low); @import url(c.css) print; p { color: blue }'],
      ['css/b.css', '@import "a.css"; #i { color: red }'],
      ['css/c.css', 'p { color: red }'],
    ]);
    const page = parsePage('<!doctype html><link rel=stylesheet href=css/a.css><p id=i>', {
      loadSheet: (path) => files.get(path) ?? null,
    });
    expect(new StyleView(page).styleAt(page.document.elements.length - 1).resolved('color')).toBe('rgb(0, 0, 255)');
    expect(page.problems.map(({ code }) => code)).toEqual(['import-cycle']);
  });

  it('follows imports that never end only so far, and says so', () => {
    const page = parsePage('<!doctype html><link rel=stylesheet href=a/a.css><p>x', {
      loadSheet: () => '@import "b/c.css"; p { color: rgb(1, 2, 3) }',
    });
    expect(page.problems.map(({ code }) => code)).toEqual(['too-deep']);
    expect(new StyleView(page).styleAt(4).resolved('color')).toBe('rgb(1, 2, 3)');
  });

  it('reports what it does not decide', () => {
    const page = parsePage(
      '<!doctype html><link rel=stylesheet href=gone.css><style>@container (min-width: 1px) { p { color: red } } @nonsense x; p:unknown { top: 0 }</style><p>',
    );
    expect(page.problems.map(({ code }) => code)).toEqual([
      'missing-sheet',
      'undecided-condition',
      'unsupported-at-rule',
      'invalid-selector',
    ]);
    expect(page.problems[3].loc?.start).toEqual(jasmine.objectContaining({ line: 1 }));
  });
});

describe('states', () => {
  const html =
    '<!doctype html><style>a:link{color:rgb(1,1,1)}a:visited{color:rgb(2,2,2);background-color:rgb(9,9,9);font-size:99px}a:hover{color:rgb(3,3,3)}a:active{color:rgb(4,4,4)}p:hover b{color:rgb(5,5,5)}' +
    'p:focus-within{color:rgb(6,6,6)}i{color:rgba(7,7,7,.5)}a:visited i{color:rgb(8,8,8)}label:hover{color:rgb(11,11,11)}input:hover{color:rgb(12,12,12)}</style><p><a href=x>l<i>i</i></a><b>b</b><label for=f>l</label><input id=f></p>';
  const page = parsePage(html);
  const find = (name: string) =>
    page.document.elements.find(({ localName }) => localName === name) ?? page.document.rootElement;
  const colorIn = (state: Parameters<typeof pointerStates>[2], on: string, of = on): string =>
    new StyleView(page, { states: pointerStates(page.document, find(on), state) }).style(find(of)).resolved('color');

  it('answers hover, active and focus as a pointer and the keyboard bring them about', () => {
    expect(colorIn('rest', 'a')).toBe('rgb(1, 1, 1)');
    expect(colorIn('hover', 'a')).toBe('rgb(3, 3, 3)');
    expect(colorIn('active', 'a')).toBe('rgb(4, 4, 4)');
    expect(colorIn('hover', 'a', 'b')).toBe('rgb(5, 5, 5)');
    expect(colorIn('focus', 'a', 'p')).toBe('rgb(6, 6, 6)');
    expect(colorIn('hover', 'label', 'input')).toBe('rgb(12, 12, 12)');
  });

  // HTML §"visited" and Selectors 4 §8.2: colours only, the alpha of the unvisited colour, nothing else to be learned.
  it('shows visited links as browsers permit', () => {
    const view = new StyleView(page, { states: pointerStates(page.document, find('a'), 'visited') });
    expect(view.style(find('a')).resolved('color')).toBe('rgb(2, 2, 2)');
    expect(view.style(find('a')).resolved('font-size')).toBe('16px');
    expect(view.style(find('a')).resolved('background-color')).toBe('rgba(9, 9, 9, 0)');
    expect(view.style(find('i')).resolved('color')).toBe('rgba(8, 8, 8, 0.5)');
    expect(explain(view, find('a'), 'color').plies[0].source.selector).toBe('a:visited');
  });
});

describe('explain', () => {
  const page = parsePage(
    '<!doctype html><style>\n@layer low { p { color: red } }\np { color: blue }\n.t { color: green }\n.t { color: nonsense }\n#i { color: lime !important }\n</style><p class=t id=i style="color: black"><b></b></p>',
  );
  const [target, child] = page.document.elements.slice(-2);

  it('stacks the plies with the one reason each lies under the one above', () => {
    const { plies, resolved: value } = explain(new StyleView(page), target, 'color');
    expect(value).toBe('rgb(0, 255, 0)');
    expect(
      plies.map((ply) => [ply.value, ply.source.kind, ply.source.at?.line ?? null, ply.under?.criterion ?? null]),
    ).toEqual([
      ['lime', 'rule', 6, null],
      ['black', 'style-attribute', null, 'importance'],
      ['green', 'rule', 4, 'attachment'],
      ['blue', 'rule', 3, 'specificity'],
      ['red', 'rule', 2, 'layer'],
    ]);
  });

  it('names the ancestor a value is inherited from, and what was thrown away', () => {
    const inherited = explain(new StyleView(page), child, 'color');
    expect(inherited.inheritedFrom).toBe(target);
    expect(inherited.plies[0].value).toBe('lime');
    expect(spoken(explain(new StyleView(page), target, 'color').discarded.map(({ reason }) => reason))).toEqual([
      '"nonsense" is no value of "color"',
    ]);
    expect(explain(new StyleView(page), target, 'opacity').isInitial).toBe(true);
  });
});
