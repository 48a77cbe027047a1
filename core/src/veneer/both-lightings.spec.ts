import { readBackDifference } from '../site/read-back.js';
import { compileRules, compileVeneer, type CompileOptions } from './compile-veneer.js';
import type { LightingSignal } from './lighting.js';
import type { Override } from './override.js';
import { readMarker } from './read-marker.js';

const PARTS = [{ id: 1, name: 'Booking form' }];

function options(told: LightingSignal | null, asValues = false): CompileOptions {
  return {
    prefix: 'or',
    asValues,
    parts: PARTS,
    palette: {
      swatches: [
        { id: 1, name: 'Paper', css: '#ffffff' },
        { id: 2, name: 'Ink', css: '#101010' },
      ],
      roles: [
        { role: 'ground', swatchId: 1, shade: 0 },
        { role: 'ink', swatchId: 2, shade: 0 },
      ],
      second: told && {
        told,
        roles: [
          { role: 'ground', swatchId: 2, shade: 0 },
          { role: 'ink', swatchId: 1, shade: 0 },
        ],
      },
    },
  };
}

function override(some: Partial<Override>): Override {
  return {
    id: JSON.stringify(some),
    partId: 1,
    pageId: 1,
    element: 1,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'role', role: 'ink', shade: 0 },
    selector: '.a',
    important: false,
    ...some,
  };
}

const OVERRIDES = [
  override({ selector: '.a' }),
  override({
    selector: '.a::before',
    pseudo: 'before',
    property: 'background-color',
    value: { kind: 'role', role: 'ground', shade: 0 },
  }),
  override({ selector: '.a:hover', state: 'hover', value: { kind: 'literal', css: 'red' } }),
  override({ selector: '.a', property: 'background-color', value: { kind: 'swatch', swatchId: 1, shade: 0 } }),
];

function compiled(told: LightingSignal | null, asValues: boolean): string {
  const css = compileVeneer(OVERRIDES, options(told, asValues));
  expect(readBackDifference(css, OVERRIDES, options(told, asValues))).toBeNull();
  return css;
}

const LIGHT = [
  '/* Palette */',
  ':root {',
  '  --or-ground: #ffffff;',
  '  --or-ink: #101010;',
  '  --or-paper: #ffffff;',
  '}',
];
const RULES = [
  '',
  '/* Booking form */',
  '.a {',
  '  color: var(--or-ink);',
  '  background-color: var(--or-paper);',
  '}',
  '.a:hover {',
  '  color: red;',
  '}',
  '.a::before {',
  '  background-color: var(--or-ground);',
  '}',
  '',
];

describe('a sheet for two lightings', () => {
  it('defines once more what differs, under what tells the second one', () => {
    const inverted = (...block: string[]): string =>
      [...LIGHT, '', '/* Palette, inverted */', ...block, ...RULES].join('\n');
    expect(compiled(null, false)).toBe([...LIGHT, ...RULES].join('\n'));
    expect(compiled({ kind: 'scheme' }, false)).toBe(
      inverted(
        '@media (prefers-color-scheme: dark) {',
        '  :root {',
        '    --or-ground: #101010;',
        '    --or-ink: #ffffff;',
        '  }',
        '}',
      ),
    );
    const properties = ['  --or-ground: #101010;', '  --or-ink: #ffffff;', '}'];
    expect(compiled({ kind: 'marker', on: 'html', attribute: 'class', value: 'night' }, false)).toBe(
      inverted('html.night {', ...properties),
    );
    expect(compiled({ kind: 'marker', on: 'body', attribute: 'data-light', value: 'out' }, false)).toBe(
      inverted(':root:has(> body[data-light="out"]) {', ...properties),
    );
  });

  it('gives its rules by themselves too, whatever the palette comes to', () => {
    for (const told of [null, { kind: 'scheme' }] as const)
      expect(compileRules(OVERRIDES, options(told))).toBe(RULES.slice(1, -1).join('\n'));
    expect(compileRules([], options(null))).toBe('');
  });

  it('has plain values twice, those of the second lighting as specific as those of the first', () => {
    expect(compiled({ kind: 'scheme' }, true)).toBe(
      [
        '/* Booking form */',
        '.a {',
        '  color: #101010;',
        '  background-color: #ffffff;',
        '}',
        '.a:hover {',
        '  color: red;',
        '}',
        '.a::before {',
        '  background-color: #ffffff;',
        '}',
        '@media (prefers-color-scheme: dark) {',
        '  .a {',
        '    color: rgb(255, 255, 255);',
        '  }',
        '  .a::before {',
        '    background-color: rgb(16, 16, 16);',
        '  }',
        '}',
        '',
      ].join('\n'),
    );
    expect(compiled({ kind: 'marker', on: 'html', attribute: 'class', value: 'night' }, true)).toContain(
      '.a:where(html.night, html.night *)::before {',
    );
  });
});

describe('readMarker', () => {
  it('reads one class or attribute of root or body', () => {
    const read = (text: string): string => {
      const reading = readMarker(text);
      return reading.ok ? `${reading.marker.on} ${reading.marker.attribute} ${reading.marker.value}` : 'no';
    };
    expect(
      ['.night', 'html.night', ':root.night', 'body.night', 'body[data-light="out"]', '[data-dark]'].map(read),
    ).toEqual([
      'html class night',
      'html class night',
      'html class night',
      'body class night',
      'body data-light out',
      'html data-dark ',
    ]);
    expect(
      [
        '',
        'html',
        'html.a.b',
        'main.night',
        'html .night',
        '.a, .b',
        '#night',
        'html:hover.a',
        'body:root.night',
        '.a::before',
        '[class="night"]',
        '[a^="b"]',
        '..',
        '{',
      ].map(read),
    ).toEqual(Array<string>(14).fill('no'));
  });
});
