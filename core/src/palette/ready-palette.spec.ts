import { roleEntries } from '../veneer/own-role.js';
import { colorOfCss } from '../veneer/palette.js';
import { hexOf } from '../color/read-notation.js';
import type { Color } from '../values/color.js';
import { readyPalette } from './ready-palette.js';

const colors = (...texts: string[]): Color[] => texts.map((text) => colorOfCss(text) as Color);

describe('readyPalette', () => {
  it('gives roles by lightness and strength', () => {
    const ready = readyPalette(colors('#0f4a48', '#f7f3e9', '#a0481f', '#111111', '#5c6b68'));
    expect(ready && Object.fromEntries(roleEntries(ready.roles).map(([role, color]) => [role, hexOf(color)]))).toEqual({
      ground: '#f7f3e9',
      ink: '#111111',
      accent: '#a0481f',
      'on-accent': '#f7f3e9',
      second: '#0f4a48',
      'on-second': '#f7f3e9',
    });
  });

  // Source of the ratios: WCAG 2.2, 1.4.3 and 1.4.11; #777 on white is the well-known 4.48 : 1.
  it('turns away what misses a ratio', () => {
    expect(readyPalette(colors('#ffffff', '#777777', '#8a2be2'))).toBeNull();
    expect(readyPalette(colors('#ffffff', '#000000', '#ffee00'))).toBeNull();
    expect(readyPalette(colors('#ffffff', '#000000'))).toBeNull();
    expect(readyPalette(colors('#ffffff', '#000000', '#8a2be2'))).not.toBeNull();
  });
});
