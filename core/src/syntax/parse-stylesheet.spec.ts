import type { BodyNode, RuleNode } from './nodes.js';
import { parseDeclarationList, parseStylesheet } from './parse-stylesheet.js';

/** A sheet in one line: what survived parsing. */
function outline(nodes: readonly (RuleNode | BodyNode)[]): string {
  return nodes
    .map((node) => {
      if (node.kind === 'declaration') return `${node.name}:${node.value}${node.important ? '!' : ''}`;
      const head = node.kind === 'at' ? `@${node.name}${node.prelude ? ` ${node.prelude}` : ''}` : node.prelude;
      return node.body === null ? head : `${head}{${outline(node.body)}}`;
    })
    .join(' ');
}

describe('parseStylesheet', () => {
  const rows: readonly (readonly [source: string, css: string, expected: string])[] = [
    ['plain', 'a { color: red; background: blue }', 'a{color:red background:blue}'],
    // CSS 2.2 §4.2, rules for handling parsing errors.
    ['CSS 2.2 §4.2 malformed declarations', 'p { color:green; color }', 'p{color:green}'],
    ['CSS 2.2 §4.2 malformed declarations', 'p { color:red;   color; color:green }', 'p{color:red color:green}'],
    ['CSS 2.2 §4.2 malformed declarations', 'p { color:green; color: }', 'p{color:green color:}'],
    [
      'CSS 2.2 §4.2 malformed declarations',
      'p { color:red;   color:; color:green }',
      'p{color:red color: color:green}',
    ],
    [
      'CSS 2.2 §4.2 malformed declarations',
      'p { color:green; color{;color:maroon} }',
      'p{color:green color{color:maroon}}',
    ],
    ['CSS 2.2 §4.2 malformed statements', 'p @here {color: red}\na {color: blue}', 'p @here{color:red} a{color:blue}'],
    [
      'CSS 2.2 §4.2 at-rules with unknown names',
      '@three-dee { @background-lighting { azimuth: 30deg } h1 { color: red } }\nh1 { color: blue }',
      '@three-dee{@background-lighting{azimuth:30deg} h1{color:red}} h1{color:blue}',
    ],
    ['CSS 2.2 §4.2 unexpected end', '@media screen { p { color: green', '@media screen{p{color:green}}'],
    ['CSS Syntax 3 §5.4.1, stray closing braces', '} a { color: red }', '} a{color:red}'],
    [
      'CSS Syntax 3 §2.2, bad value loses itself only',
      'a { color: red; @foo; background: blue }',
      'a{color:red @foo background:blue}',
    ],
    ['comments', '/* x */ a /* y */ { /* z */ color /* w */ : /* v */ red /* u */ ; }', 'a{color:red}'],
    [
      'importance',
      'a { color: red!important; width: 1px ! IMPORTANT; --x: a!important }',
      'a{color:red! width:1px! --x:a!}',
    ],
    ['names fold case, custom properties do not', 'a { COLOR: Red; --Foo: Bar }', 'a{color:Red --Foo:Bar}'],
    [
      'CSS Nesting 1 §2, a type selector nests without &',
      'a { color: red; b { color: blue } c:hover { top: 0 } left: 0 }',
      'a{color:red b{color:blue} c:hover{top:0} left:0}',
    ],
    ['nested at-rules', 'a { @media print { color: black; b { top: 0 } } }', 'a{@media print{color:black b{top:0}}}'],
    ['custom property with a block', 'a { --x: { a: b }; color: red }', 'a{--x:{ a: b } color:red}'],
    ['custom property where a rule stands', '--x:hover { color: red } a { top: 0 }', 'a{top:0}'],
    [
      'strings and urls keep braces to themselves',
      'a::before { content: "}"; background: url(a{b}.png) } b { top: 0 }',
      'a::before{content:"}" background:url(a{b}.png)} b{top:0}',
    ],
    [
      'semicolons inside brackets',
      'a { background: url("x;y"); width: calc(1px; 2px); top: 0 }',
      'a{background:url("x;y") width:calc(1px; 2px) top:0}',
    ],
    ['HTML comments at top level', '<!-- a { top: 0 } -->', 'a{top:0}'],
    ['empty', '', ''],
  ];
  for (const [source, css, expected] of rows) {
    it(`${source}: ${css.replace(/\s+/g, ' ').slice(0, 70)}`, () => {
      expect(outline(parseStylesheet(css).rules)).toBe(expected);
    });
  }

  it('keeps offsets that lead back to the text', () => {
    const css = 'a { color: red }\n@media print { b:hover { top: 0 } }';
    const [first, media] = parseStylesheet(css).rules;
    expect(css.slice(first.start, first.end)).toBe('a { color: red }');
    expect(css.slice(media.start, media.end)).toBe('@media print { b:hover { top: 0 } }');
    const declaration = first.body?.[0];
    expect(declaration && css.slice(declaration.start, declaration.end).trim()).toBe('color: red');
  });

  it('reports what it throws away with its place', () => {
    const { problems } = parseStylesheet('a { color: red; nonsense here; top: 0 }');
    expect(problems).toEqual([jasmine.objectContaining({ code: 'invalid-declaration', start: 16 })]);
  });

  it('bounds the depth of blocks and reads on after them', () => {
    const css = `${'a{'.repeat(5000)}${'}'.repeat(5000)} b { top: 0 }`;
    const { rules, problems } = parseStylesheet(css);
    expect(problems[0].code).toBe('too-deep');
    expect(outline(rules.slice(-1))).toBe('b{top:0}');
  });

  it('refuses a sheet over the bound', () => {
    expect(parseStylesheet(' '.repeat(16_000_001)).problems[0].code).toBe('too-large');
  });
});

describe('parseDeclarationList', () => {
  it('reads a style attribute and passes over rules', () => {
    const { declarations } = parseDeclarationList('color: red; b { top: 0 } left: 1px !important;');
    expect(outline(declarations)).toBe('color:red left:1px!');
  });
});
