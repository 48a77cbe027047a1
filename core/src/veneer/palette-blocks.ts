import { cssOfValue } from './custom-property.js';
import { DARK_SCHEME, litRoot, type LightingSignal } from './lighting.js';
import type { Naming } from './naming.js';
import type { OverrideValue } from './override-value.js';
import { paletteIn, type Palette } from './palette.js';

/** The custom properties that the values of a sheet lean on, gathered while those are written. */
export class PaletteBlocks {
  readonly #light: Palette;
  readonly #inverted: Palette;
  readonly #properties = new Map<string, string>();
  readonly #lit = new Map<string, string>();

  constructor(palette: Palette) {
    this.#light = paletteIn(palette, 'light');
    this.#inverted = paletteIn(palette, 'inverted');
  }

  /** CSS of a value; what it leans on is kept. */
  write(value: OverrideValue, naming: Naming): string {
    if (this.#inverted.second) cssOfValue(value, this.#inverted, naming, (name, css) => this.#lit.set(name, css));
    return cssOfValue(value, this.#light, naming, (name, css) => this.#properties.set(name, css));
  }

  /** The palette's rules: what all roles and swatches in use come to, and what differs in the second lighting. */
  blocks(): string[] {
    const { second } = this.#light;
    const lit = [...this.#lit].filter(([name, css]) => this.#properties.get(name) !== css);
    return [
      ...(this.#properties.size > 0 ? [`/* Palette */\n${blockOf(':root', this.#properties)}`] : []),
      ...(lit.length === 0 || !second ? [] : [`/* Palette, inverted */\n${litBlock(second.told, lit)}`]),
    ];
  }
}

function litBlock(told: LightingSignal, lit: readonly (readonly [string, string])[]): string {
  if (told.kind === 'marker') return blockOf(litRoot(told), lit);
  return `@media ${DARK_SCHEME} {\n${blockOf(':root', lit, '  ')}\n}`;
}

function blockOf(selector: string, properties: Iterable<readonly [string, string]>, indent = ''): string {
  const lines = [...properties]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, css]) => `${indent}  ${name}: ${css};`);
  return `${indent}${selector} {\n${lines.join('\n')}\n${indent}}`;
}
