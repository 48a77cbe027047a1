import { flattenSheets } from '../rules/flatten-sheets.js';
import { parsePage, VENEER_SHEET_NAME } from '../resolve/page.js';
import { textBetween, tokenizeCss } from '../syntax/tokens.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { cssOfValue } from '../veneer/custom-property.js';
import { inBothLightings } from '../veneer/both-lightings.js';
import { PaletteBlocks } from '../veneer/palette-blocks.js';
import { escapeEndTags, veneerRules, type CompileOptions } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';

/**
 * Reads a compiled sheet as a browser would and compares it with what was to be written: the same rules in the same
 * order, each with the same declarations.
 * @returns the selector of the first rule that is not as it should be; `null` when all are.
 */
export function readBackDifference(
  css: string,
  overrides: readonly Override[],
  options: CompileOptions,
): string | null {
  const { palette, ...naming } = options;
  const wanted = inBothLightings(veneerRules(overrides, options), palette, naming);
  const blocks = new PaletteBlocks(palette);
  for (const { declarations } of wanted) for (const { value } of declarations) blocks.write(value, naming);
  // The palette stands first, a rule a lighting.
  const own = rulesIn(css).slice(wanted.length === 0 ? 0 : blocks.blocks().length);
  for (let i = 0; i < wanted.length; i += 1) {
    const rule = wanted[i];
    const declarations = rule.declarations.map(
      ({ property, value, important }) =>
        `${property}: ${escapeEndTags(cssOfValue(value, palette, naming, () => undefined))}${important ? ' !important' : ''}`,
    );
    if (
      own[i]?.selector !== asRead(escapeEndTags(rule.selector)) ||
      own[i].declarations.join(';') !== declarations.join(';')
    )
      return rule.selector;
  }
  return own.length > wanted.length
    ? own[wanted.length].selector
    : wholenessProblem(css) === null
      ? null
      : (wanted[wanted.length - 1]?.selector ?? ':root');
}

/** A selector's text as the parser keeps it. */
function asRead(selector: string): string {
  const tokens = tokenizeCss(selector);
  return textBetween(tokens, 0, tokens.count);
}

function rulesIn(css: string): { readonly selector: string; readonly declarations: readonly string[] }[] {
  const { document } = parsePage('');
  const sheet = {
    name: VENEER_SHEET_NAME,
    origin: 'author' as const,
    text: css,
    media: '',
    tree: document.root,
    owner: null,
    disabled: false,
    title: '',
  };
  return flattenSheets([sheet], () => null).rules.map(({ selectorText, declarations }) => ({
    selector: selectorText,
    declarations: declarations.map(
      ({ name, value, important }) => `${name}: ${value}${important ? ' !important' : ''}`,
    ),
  }));
}
