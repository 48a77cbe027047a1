import { inBothLightings } from './both-lightings.js';
import { mediaOf } from './media.js';
import { PaletteBlocks } from './palette-blocks.js';
import { OVERRIDE_STATES, REACHES, type Override } from './override.js';
import type { Palette } from './palette.js';
import { propertyRank } from './property-order.js';
import type { VeneerDeclaration, VeneerRule } from './veneer-rule.js';
import { engineGuardOf, standardScrollbars } from './scrollbars.js';
import type { SheetOptions } from './sheet-options.js';

/** What the compiled sheet depends on besides the overrides. */
export interface CompileOptions extends SheetOptions {
  readonly palette: Palette;
  /** Parts in the order of their sections. */
  readonly parts: readonly { readonly id: number; readonly name: string }[];
}

/**
 * Compiles overrides to CSS: custom properties first, then a section a part, one rule a selector,
 * rules of one element in the order link, visited, hover, focus, active, those for some widths after those for all.
 * The same overrides give the same bytes.
 */
export function compileVeneer(overrides: readonly Override[], options: CompileOptions): string {
  return writeRules(veneerRules(overrides, options), options);
}

/** The same without the custom properties that the palette comes to, such as one rule is looked at by itself. */
export function compileRules(overrides: readonly Override[], options: CompileOptions): string {
  return textOf(veneerRules(overrides, options), options).rules;
}

/** The rules overrides come to, in the order they are written. */
export function veneerRules(
  overrides: readonly Override[],
  { parts, hoverOnly }: Pick<CompileOptions, 'parts' | 'hoverOnly'>,
): VeneerRule[] {
  return [...parts, { id: null, name: 'Everywhere' }].flatMap(({ id, name }) => {
    const own = overrides.filter(
      (override) => (parts.some((part) => part.id === override.partId) ? override.partId : null) === id,
    );
    return rulesOf(own, name, hoverOnly ?? false);
  });
}

/** Text of rules that stand in order, under the custom properties they lean on. */
export function writeRules(rules: readonly VeneerRule[], options: Omit<CompileOptions, 'parts'>): string {
  if (rules.length === 0) return '';
  const { blocks, rules: text } = textOf(rules, options);
  return [...blocks, text].join('\n\n') + '\n';
}

function textOf(
  rules: readonly VeneerRule[],
  { palette, ...naming }: Omit<CompileOptions, 'parts'>,
): { readonly blocks: readonly string[]; readonly rules: string } {
  const properties = new PaletteBlocks(palette);
  const lines: string[] = [];
  let section: string | null = null;
  let around: readonly string[] = [];
  const close = (): void => {
    for (let depth = around.length - 1; depth >= 0; depth -= 1) lines.push(`${'  '.repeat(depth)}}`);
    around = [];
  };
  for (const rule of inBothLightings(rules, palette, naming)) {
    if (rule.section !== section) {
      close();
      lines.push(...(section === null ? [] : ['']), `/* ${rule.section.replaceAll('*/', '* /')} */`);
      section = rule.section;
    }
    const wanted = [
      ...(rule.supports === null ? [] : [`@supports ${rule.supports}`]),
      ...(rule.media === null ? [] : [`@media ${rule.media}`]),
    ];
    if (wanted.join() !== around.join()) {
      close();
      wanted.forEach((condition, depth) => lines.push(`${'  '.repeat(depth)}${condition} {`));
      around = wanted;
    }
    const indent = '  '.repeat(around.length);
    const declare = ({ property, value, important }: VeneerDeclaration): string => {
      const css = properties.write(value, naming);
      return `${indent}  ${property}: ${css}${important ? ' !important' : ''};`;
    };
    lines.push(`${indent}${rule.selector} {`, ...rule.declarations.map(declare), `${indent}}`);
  }
  close();
  return { blocks: properties.blocks().map(escapeEndTags), rules: escapeEndTags(lines.join('\n')) };
}

/** `</` written so that no `<style>` ends in it; in strings and names an escape means the character. Source: CSS Syntax 3 §4.3.7. */
export function escapeEndTags(css: string): string {
  return css.replaceAll('</', '<\\/');
}

function rulesOf(overrides: readonly Override[], section: string, hoverOnly: boolean): VeneerRule[] {
  const byPlace = new Map<string, Override[]>();
  for (const override of [...overrides].sort(compareOverrides)) {
    const key = `${engineGuardOf(override, overrides) ?? ''}|${mediaOf(override, hoverOnly) ?? ''}|${override.selector}`;
    const list = byPlace.get(key);
    if (list) list.push(override);
    else byPlace.set(key, [override]);
  }
  const rules = [...byPlace.values()].map((list): VeneerRule => {
    // The last override of a property is the one that counts.
    const byProperty = new Map(list.map((override) => [override.property, override]));
    const [first] = list;
    return {
      section,
      selector: first.selector,
      media: mediaOf(first, hoverOnly),
      isForWidths: first.widths != null,
      supports: engineGuardOf(first, overrides),
      declarations: [...byProperty.values()]
        .sort((a, b) => propertyRank(a.property) - propertyRank(b.property) || (a.property < b.property ? -1 : 1))
        .map(({ property, value, important }) => ({ property, value, important })),
    };
  });
  return [
    ...rules.filter(({ isForWidths, supports }) => !isForWidths && supports === null),
    ...rules.filter(({ supports }) => supports !== null),
    ...standardScrollbars(overrides, section),
    ...rules.filter(({ isForWidths, supports }) => isForWidths && supports === null),
  ];
}

/** By the element they were made on, in document order, so that its states stand together in their order. */
function compareOverrides(a: Override, b: Override): number {
  return (
    (a.widths ? 1 : 0) - (b.widths ? 1 : 0) ||
    (b.widths?.max ?? Infinity) - (a.widths?.max ?? Infinity) ||
    (a.widths?.min ?? 0) - (b.widths?.min ?? 0) ||
    a.pageId - b.pageId ||
    a.element - b.element ||
    REACHES.indexOf(b.reach) - REACHES.indexOf(a.reach) ||
    (a.pseudo < b.pseudo ? -1 : a.pseudo > b.pseudo ? 1 : 0) ||
    OVERRIDE_STATES.indexOf(a.state) - OVERRIDE_STATES.indexOf(b.state) ||
    (a.selector < b.selector ? -1 : a.selector > b.selector ? 1 : 0) ||
    (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
  );
}
