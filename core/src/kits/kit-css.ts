import MagicString from 'magic-string';
import { sheetOptionsOf, type SiteModel } from '../site/site-model.js';
import { cssOfValue, valueOfCustomProperty } from '../veneer/custom-property.js';
import { colorOfValue, type PlainValue } from '../veneer/override-value.js';
import { customPropertyUses, paletteUses } from '../veneer/own-css.js';
import type { Palette } from '../veneer/palette.js';
import { hexOf } from '../color/read-notation.js';
import { plainByRole } from './by-role.js';

/** Colours in a kit's own CSS are named by role, whatever the site they come from calls them. */
const KIT_NAMING = { prefix: 'kit' };
const KIT_NAME = /^--kit-/;

/** Own CSS as a kit keeps it: what names a site's palette names roles instead. */
export function kitCss(css: string, { palette, source }: SiteModel): string {
  const edited = new MagicString(css);
  for (const { value, start, end } of paletteUses(css, palette, sheetOptionsOf(source)))
    if (end !== null) edited.update(start, end, inKit(plainByRole(value, palette), palette));
  return edited.toString();
}

function inKit(value: PlainValue, palette: Palette): string {
  if (value.kind !== 'literal') return cssOfValue(value, palette, KIT_NAMING);
  const color = colorOfValue(value, palette);
  return color ? hexOf(color) : value.css;
}

/** A kit's own CSS with another site's names, and the names in it that no role there fills. */
export function laidCss(
  css: string,
  { palette, source }: SiteModel,
): { readonly css: string; readonly unfilled: readonly string[] } {
  const naming = sheetOptionsOf(source);
  const edited = new MagicString(css);
  const unfilled = new Set<string>();
  for (const { name, start, end } of customPropertyUses(css)) {
    if (!KIT_NAME.test(name)) continue;
    const value = valueOfCustomProperty(name, palette, KIT_NAMING);
    if (!value) unfilled.add(name.replace(KIT_NAME, ''));
    // It names the palette's property also where the sheet has values: it is written as one when compiled.
    else if (end !== null) edited.update(start, end, cssOfValue(value, palette, { ...naming, asValues: false }));
  }
  return { css: edited.toString(), unfilled: [...unfilled] };
}
