import type { Message } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import { lastingClasses } from '../selectors/class-names.js';
import { compileOptionsOf, type SiteModel } from '../site/site-model.js';
import { customPropertyOf } from '../veneer/custom-property.js';
import { colorOfValue, valueTold, type PlainValue } from '../veneer/override-value.js';

/** A colour of the palette as it is named in the sheet. */
export interface PaletteWord {
  /** Custom property: `--brand-accent`. */
  readonly name: string;
  readonly hex: string;
  /** `Accent, 12 darker`. */
  readonly words: Message;
}

/** What can be written in the sheet of a site, for completion. */
export interface SheetWords {
  readonly palette: readonly PaletteWord[];
  /** Custom properties of the site itself. */
  readonly properties: readonly string[];
  /** Classes on its pages that are worth leaning on, the commonest first. */
  readonly classes: readonly string[];
  readonly ids: readonly string[];
}

const MOST_WORDS = 2000;

/** Gathers what can be written in the sheet of a site. */
export function sheetWords(site: SiteModel): SheetWords {
  const classes = new Map<string, number>();
  const ids = new Set<string>();
  const properties = new Set<string>();
  for (const { document, base } of site.closed.values()) {
    for (const element of document.elements) {
      for (const name of lastingClasses(element.classes)) classes.set(name, (classes.get(name) ?? 0) + 1);
      const id = element.attributes.get('id');
      if (id) ids.add(id);
    }
    for (const { declarations } of base.rules)
      for (const { name } of declarations) if (name.startsWith('--')) properties.add(name);
  }
  return {
    palette: paletteWords(site),
    properties: [...properties].sort().slice(0, MOST_WORDS),
    classes: [...classes]
      .sort(([a, most], [b, least]) => least - most || (a < b ? -1 : 1))
      .map(([name]) => name)
      .slice(0, MOST_WORDS),
    ids: [...ids].sort().slice(0, MOST_WORDS),
  };
}

/** Roles and swatches, and shades of them that overrides use. */
function paletteWords(site: SiteModel): PaletteWord[] {
  const { palette } = site;
  const values: readonly PlainValue[] = [
    ...palette.roles.map(({ role }): PlainValue => ({ kind: 'role', role, shade: 0 })),
    ...palette.swatches.map(({ id }): PlainValue => ({ kind: 'swatch', swatchId: id, shade: 0 })),
    ...site.overrides.flatMap(({ value }) => (value.kind === 'role' || value.kind === 'swatch' ? [value] : [])),
  ];
  const found = new Map<string, PaletteWord>();
  for (const value of values) {
    const whole: PlainValue = value.kind === 'literal' ? value : { ...value, alpha: 1 };
    const property = customPropertyOf(whole, palette, compileOptionsOf(site));
    const color = colorOfValue(whole, palette);
    if (property && color && !found.has(property.name))
      found.set(property.name, { name: property.name, hex: hexOf(color), words: valueTold(site, whole) });
  }
  return [...found.values()];
}
