import type { Naming } from '../../veneer/naming.js';
import { readCustomProperties, writeCustomProperties } from './custom-properties.js';
import { readDesignTokens, writeDesignTokens } from './design-tokens.js';
import { readGpl, writeGpl } from './gpl.js';
import type { PaletteFile } from './named-color.js';
import type { Palette } from '../../veneer/palette.js';

/** Formats a palette is read from and written to. A new one is one more row. */
export const PALETTE_FORMATS = [
  {
    name: 'Design tokens',
    extension: '.tokens.json',
    mediaType: 'application/design-tokens+json',
    write: (palette: Palette) => writeDesignTokens(palette),
  },
  {
    name: 'GIMP palette',
    extension: '.gpl',
    mediaType: 'text/plain',
    write: (palette: Palette, { title }: PaletteTitle) => writeGpl(palette, title),
  },
  {
    name: 'CSS custom properties',
    extension: '.css',
    mediaType: 'text/css',
    write: (palette: Palette, { prefix, names }: PaletteTitle) => writeCustomProperties(palette, prefix, names),
  },
] as const;

export interface PaletteTitle extends Pick<Naming, 'names'> {
  readonly title: string;
  /** Prefix of custom properties, e.g. `brand`. */
  readonly prefix: string;
}

/** Reads a palette file by what is in it; the name only decides where the content does not. */
export function readPaletteFile(name: string, text: string): PaletteFile {
  const start = text.replace(/^\ufeff/, '').trimStart();
  if (start.startsWith('GIMP Palette') || /\.gpl$/i.test(name)) return readGpl(text.trimStart());
  if (start.startsWith('{') && !/\.css$/i.test(name)) return readDesignTokens(text);
  if (/\.json$|\.tokens$/i.test(name)) return readDesignTokens(text);
  return readCustomProperties(text);
}
