import { rulesInVeneer } from '../resolve/rules-in-veneer.js';
import { textBetween, tokenizeCss } from '../syntax/tokens.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { inBothLightings } from '../veneer/both-lightings.js';
import { PaletteBlocks } from '../veneer/palette-blocks.js';
import { writeOwnCss } from '../veneer/own-css.js';
import type { OverrideValue } from '../veneer/override-value.js';
import { escapeEndTags, sectionOf, sectionsOf, veneerRules, type CompileOptions } from '../veneer/compile-veneer.js';
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
  const { palette, ownCss = [], ...naming } = options;
  const lit = inBothLightings(veneerRules(overrides, options), palette, naming);
  const blocks = new PaletteBlocks(palette);
  const write = (value: OverrideValue): string => blocks.write(value, naming);
  const wanted = sectionsOf(options).flatMap(({ id }) => [
    ...lit
      .filter(({ partId }) => sectionOf(partId, options) === id)
      .map(({ selector, declarations }) => ({
        selector,
        read: asRead(escapeEndTags(selector)),
        declarations: declarations.map(
          ({ property, value, important }) =>
            `${property}: ${escapeEndTags(write(value))}${important ? ' !important' : ''}`,
        ),
      })),
    ...ownCss
      .filter(({ partId }) => sectionOf(partId, options) === id)
      .flatMap(({ css }) => rulesIn(escapeEndTags(writeOwnCss(css, palette, naming, write))))
      .map((rule) => ({ ...rule, read: rule.selector })),
  ]);
  // The palette stands first, a rule a lighting.
  const own = rulesIn(css).slice(css === '' ? 0 : blocks.blocks().length);
  for (let i = 0; i < wanted.length; i += 1) {
    const { selector, read, declarations } = wanted[i];
    if (own[i]?.selector !== read || own[i].declarations.join(';') !== declarations.join(';')) return selector;
  }
  if (own.length > wanted.length) return own[wanted.length].selector;
  return wholenessProblem(css) === null ? null : (wanted[wanted.length - 1]?.selector ?? ':root');
}

/** A selector's text as the parser keeps it. */
function asRead(selector: string): string {
  const tokens = tokenizeCss(selector);
  return textBetween(tokens, 0, tokens.count);
}

function rulesIn(css: string): { readonly selector: string; readonly declarations: readonly string[] }[] {
  return rulesInVeneer(css).map(({ selectorText, declarations }) => ({
    selector: selectorText,
    declarations: declarations.map(
      ({ name, value, important }) => `${name}: ${value}${important ? ' !important' : ''}`,
    ),
  }));
}
