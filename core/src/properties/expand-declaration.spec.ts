import { browserLonghands } from '../testing/browser-reference.js';
import { LONGHANDS, VISITED_LONGHANDS, canonicalName } from './longhands.js';
import { expandDeclaration, settleSubstituted } from './expand-declaration.js';
import { SHORTHANDS } from './shorthands.js';

/** Longhands of a declaration as `name: value`; the reason when it is thrown away. */
function expanded(property: string, value: string): Record<string, string> | string {
  const expansion = expandDeclaration(property, value);
  if (!expansion.valid) return expansion.code;
  return Object.fromEntries(
    expansion.longhands.map((longhand) => [
      longhand.property,
      longhand.value.kind === 'wide' ? longhand.value.keyword : longhand.value.text,
    ]),
  );
}

describe('expandDeclaration', () => {
  // Source: the "Value" and "Initial" lines of each shorthand's definition; expected values worked out from them.
  const rows: readonly (readonly [property: string, value: string, some: Readonly<Record<string, string>>])[] = [
    [
      'background',
      'red',
      {
        'background-color': 'red',
        'background-image': 'none',
        'background-repeat': 'repeat',
        'background-clip': 'border-box',
      },
    ],
    ['background', 'none', { 'background-color': 'transparent', 'background-image': 'none' }],
    [
      'background',
      'url(a.png) no-repeat center / cover, linear-gradient(red, blue) #fff',
      {
        'background-color': '#fff',
        'background-image': 'url(a.png), linear-gradient(red,blue)',
        'background-repeat': 'no-repeat, repeat',
        'background-size': 'cover, auto',
      },
    ],
    [
      'background',
      'content-box rgb(0 0 0 / 50%)',
      { 'background-origin': 'content-box', 'background-clip': 'content-box' },
    ],
    [
      'border',
      '1px solid red',
      {
        'border-top-width': '1px',
        'border-left-style': 'solid',
        'border-bottom-color': 'red',
        'border-image-source': 'none',
      },
    ],
    [
      'border',
      'solid',
      { 'border-top-width': 'medium', 'border-top-style': 'solid', 'border-top-color': 'currentcolor' },
    ],
    [
      'border-left',
      'thick double',
      { 'border-left-width': 'thick', 'border-left-style': 'double', 'border-left-color': 'currentcolor' },
    ],
    [
      'border-color',
      'red blue',
      {
        'border-top-color': 'red',
        'border-right-color': 'blue',
        'border-bottom-color': 'red',
        'border-left-color': 'blue',
      },
    ],
    [
      'border-width',
      '1px 2px 3px',
      {
        'border-top-width': '1px',
        'border-right-width': '2px',
        'border-bottom-width': '3px',
        'border-left-width': '2px',
      },
    ],
    ['border-inline-start-color', 'red', { 'border-left-color': 'red' }],
    ['border-block', '1px solid red', { 'border-top-color': 'red', 'border-bottom-color': 'red' }],
    ['outline', '2px dotted', { 'outline-width': '2px', 'outline-style': 'dotted' }],
    ['outline', 'auto', { 'outline-style': 'auto' }],
    [
      'border-radius',
      '1px 2px / 3px',
      {
        'border-top-left-radius': '1px 3px',
        'border-top-right-radius': '2px 3px',
        'border-bottom-left-radius': '2px 3px',
      },
    ],
    [
      'font',
      'italic bold 12px/1.5 Georgia, serif',
      {
        'font-style': 'italic',
        'font-weight': 'bold',
        'font-size': '12px',
        'line-height': '1.5',
        'font-family': 'Georgia, serif',
      },
    ],
    ['font', '0/0 a', { 'font-size': '0', 'line-height': '0', 'font-family': 'a' }],
    ['font', '700 0 b, c', { 'font-weight': '700', 'font-size': '0', 'line-height': 'normal', 'font-family': 'b, c' }],
    ['font', '600 1rem sans-serif', { 'font-weight': '600', 'font-size': '1rem', 'line-height': 'normal' }],
    [
      'text-decoration',
      'underline dotted red',
      { 'text-decoration-line': 'underline', 'text-decoration-style': 'dotted', 'text-decoration-color': 'red' },
    ],
    ['text-decoration', 'none', { 'text-decoration-line': 'none', 'text-decoration-color': 'currentcolor' }],
    ['list-style', 'none', { 'list-style-type': 'none', 'list-style-image': 'none' }],
    ['list-style', 'square inside', { 'list-style-type': 'square', 'list-style-position': 'inside' }],
    ['columns', '3 auto', { 'column-count': '3', 'column-width': 'auto' }],
    [
      'padding',
      '1px 2px 3px 4px',
      { 'padding-top': '1px', 'padding-right': '2px', 'padding-bottom': '3px', 'padding-left': '4px' },
    ],
    ['-webkit-box-shadow', 'none', { 'box-shadow': 'none' }],
    ['border', 'inherit', { 'border-top-color': 'inherit', 'border-image-source': 'inherit' }],
  ];
  for (const [property, value, some] of rows) {
    it(`${property}: ${value}`, () => {
      const own = expanded(property, value) as Record<string, string>;
      expect(own).toEqual(jasmine.objectContaining(some));
      const reference = browserLonghands(`${property}: ${value}`, Object.keys(some));
      if (!reference) return;
      for (const [name, text] of Object.entries(some)) {
        // The engine writes the declared value its own way; declaring ours alone must come to the same.
        const ours = browserLonghands(`${name}: ${text}`, [name]);
        // Flow-relative declarations are read back under their own names only.
        if (reference[name] === '') continue;
        const theirs = reference[name].replace('initial', LONGHANDS.get(name)?.initial ?? '');
        expect(ours?.[name])
          .withContext(name)
          .toBe(browserLonghands(`${name}: ${theirs}`, [name])?.[name]);
      }
    });
  }

  const thrownAway: readonly (readonly [property: string, value: string, code: string])[] = [
    ['color', '', 'invalid-declaration'],
    ['color', 'nonsense', 'invalid-declaration'],
    ['color', 'red blue', 'invalid-declaration'],
    ['color', 'rgb(1, 2)', 'invalid-declaration'],
    ['color', '#12345', 'invalid-declaration'],
    ['colour', 'red', 'unknown-property'],
    ['width', '-1px', 'invalid-declaration'],
    ['border', '1px 2px', 'invalid-declaration'],
    ['background', 'red blue', 'invalid-declaration'],
    ['font', '12px', 'invalid-declaration'],
    ['all', 'red', 'invalid-declaration'],
    ['opacity', 'red', 'invalid-declaration'],
    ['background-color', 'linear-gradient(red, blue)', 'invalid-declaration'],
    ['background', 'rgb(from red r g)', 'invalid-declaration'],
    ['border-color', 'hsl(1 2 3 4)', 'invalid-declaration'],
  ];
  for (const [property, value, code] of thrownAway) {
    it(`throws away ${property}: ${value}`, () => {
      expect(expanded(property, value)).toBe(code);
      const reference = browserLonghands(`${property}: ${value}`, [property]);
      if (reference) expect(reference[property]).toBe('');
    });
  }

  it('waits for variables, shorthands too', () => {
    expect(expandDeclaration('background', 'var(--x) no-repeat')).toEqual(jasmine.objectContaining({ valid: true }));
    expect(settleSubstituted('background-color', 'background', 'red no-repeat')).toEqual({
      kind: 'value',
      text: 'red',
    });
    expect(settleSubstituted('background-color', 'background', 'nonsense')).toBeNull();
    expect(settleSubstituted('color', null, 'inherit')).toEqual({ kind: 'wide', keyword: 'inherit' });
  });

  it('sets every longhand with all but direction', () => {
    const own = expanded('all', 'unset') as Record<string, string>;
    expect(Object.keys(own).length).toBe(LONGHANDS.size - 1);
    expect(own['direction']).toBeUndefined();
  });
});

describe('the property tables', () => {
  it('name only longhands that exist', () => {
    for (const [name, { longhands }] of SHORTHANDS)
      for (const longhand of longhands)
        expect(LONGHANDS.has(longhand)).withContext(`${name} sets ${longhand}`).toBe(true);
    for (const longhand of VISITED_LONGHANDS) expect(LONGHANDS.get(longhand)?.kind).withContext(longhand).toBe('color');
  });

  it('hold initial values that their own grammar takes', () => {
    for (const [name, { initial }] of LONGHANDS) {
      // Chromium writes these two initial values in its own way.
      if (name === 'font-family' || name === '-webkit-tap-highlight-color' || name === 'font-variant') continue;
      expect(expandDeclaration(name, initial).valid).withContext(`${name}: ${initial}`).toBe(true);
    }
  });

  it('know aliases and flow-relative names', () => {
    expect(canonicalName('-webkit-border-radius')).toBe('border-radius');
    expect(canonicalName('margin-inline-end')).toBe('margin-right');
    expect(canonicalName('border-start-end-radius')).toBe('border-top-right-radius');
    expect(canonicalName('inset-block-start')).toBe('top');
    expect(canonicalName('max-inline-size')).toBe('max-width');
  });
});
