import { inBothLightings } from './both-lightings.js';
import { mediaOf } from './media.js';
import { PaletteBlocks } from './palette-blocks.js';
import { writeOwnCss, type OwnCss } from './own-css.js';
import type { OverrideValue } from './override-value.js';
import { OVERRIDE_STATES, REACHES, type Override } from './override.js';
import type { Palette } from './palette.js';
import { compareProperties } from './property-order.js';
import type { VeneerRule } from './veneer-rule.js';
import { engineGuardOf, standardScrollbars } from './scrollbars.js';
import type { SheetOptions } from './sheet-options.js';

/** What the compiled sheet depends on besides the overrides. */
export interface CompileOptions extends SheetOptions {
  readonly palette: Palette;
  /** Parts in the order of their sections. */
  readonly parts: readonly Section[];
  /** What no override can say, at the end of its section. */
  readonly ownCss?: readonly OwnCss[];
}

/** A section of the sheet: a part's, or the last one, of what is in none. */
export interface Section {
  readonly id: number | null;
  readonly name: string;
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
  return writtenSheet(veneerRules(overrides, options), options).rules;
}

/** Sections in their order, what is in no part last. */
export function sectionsOf({ parts }: Pick<CompileOptions, 'parts'>): readonly Section[] {
  return [...parts, { id: null, name: 'Everywhere' }];
}

/** The section of a part; of one that is gone, the last. */
export function sectionOf(partId: number | null, { parts }: Pick<CompileOptions, 'parts'>): number | null {
  return parts.some(({ id }) => id === partId) ? partId : null;
}

/** The rules overrides come to, in the order they are written. */
export function veneerRules(
  overrides: readonly Override[],
  { parts, hoverOnly, isByLetters }: Pick<CompileOptions, 'parts' | 'hoverOnly' | 'isByLetters'>,
): VeneerRule[] {
  return sectionsOf({ parts }).flatMap(({ id }) => {
    const own = overrides.filter((override) => sectionOf(override.partId, { parts }) === id);
    return rulesOf(own, id, { hoverOnly: hoverOnly ?? false, isByLetters: isByLetters ?? false });
  });
}

/** Text of rules that stand in order, under the custom properties they lean on, with what the designer wrote by hand. */
export function writeRules(rules: readonly VeneerRule[], options: CompileOptions): string {
  const { blocks, rules: text } = writtenSheet(rules, options);
  return text === '' ? '' : [...blocks, text].join('\n\n') + '\n';
}

/** A rule as it stands in a sheet. */
export interface WrittenRule {
  readonly rule: VeneerRule;
  /** Offset of its selector in the text of the rules, UTF-16 units. */
  readonly start: number;
}

/** A sheet as it is written, and where in it what stands. */
export interface WrittenSheet {
  /** The custom properties that the palette comes to, a rule a lighting. */
  readonly blocks: readonly string[];
  /** All that follows them. */
  readonly rules: string;
  /** Every rule, in order, those among them that the second lighting brings about. */
  readonly written: readonly WrittenRule[];
}

/** The parts of a sheet's text. */
export function writtenSheet(rules: readonly VeneerRule[], options: CompileOptions): WrittenSheet {
  const { palette, parts, ownCss = [], ...naming } = options;
  const properties = new PaletteBlocks(palette);
  const write = (value: OverrideValue): string => properties.write(value, naming);
  const lit = inBothLightings(rules, palette, naming);
  const written: WrittenRule[] = [];
  let text = '';
  for (const { id, name } of sectionsOf({ parts })) {
    const inSection = lit.filter(({ partId }) => sectionOf(partId, { parts }) === id);
    const own = ownCss.filter(({ partId, css }) => css !== '' && sectionOf(partId, { parts }) === id);
    if (inSection.length + own.length === 0) continue;
    text += `${text === '' ? '' : '\n\n'}/* ${name.replaceAll('*/', '* /').replaceAll('</', '< /')} */`;
    const section = writtenSection(inSection, write, text.length);
    written.push(...section.written);
    text += section.text;
    for (const { css } of own) text += `\n${escapeEndTags(writeOwnCss(css, palette, naming, write))}`;
  }
  return { blocks: properties.blocks().map(escapeEndTags), rules: text, written };
}

/** Rules of one section, those under the same conditions together. @param at offset of the section's text in the sheet. */
function writtenSection(
  rules: readonly VeneerRule[],
  write: (value: OverrideValue) => string,
  at: number,
): { readonly text: string; readonly written: readonly WrittenRule[] } {
  let text = '';
  let around: readonly string[] = [];
  const written: WrittenRule[] = [];
  const line = (css: string): void => {
    text += `\n${escapeEndTags(css)}`;
  };
  const close = (): void => {
    for (let depth = around.length - 1; depth >= 0; depth -= 1) line(`${'  '.repeat(depth)}}`);
    around = [];
  };
  for (const rule of rules) {
    const wanted = [
      ...(rule.supports === null ? [] : [`@supports ${rule.supports}`]),
      ...(rule.media === null ? [] : [`@media ${rule.media}`]),
    ];
    if (wanted.join() !== around.join()) {
      close();
      wanted.forEach((condition, depth) => line(`${'  '.repeat(depth)}${condition} {`));
      around = wanted;
    }
    const indent = '  '.repeat(around.length);
    if (rule.note) line(`${indent}/* ${rule.note.replaceAll('*/', '* /')} */`);
    written.push({ rule, start: at + text.length + 1 + indent.length });
    line(`${indent}${rule.selector} {`);
    for (const { property, value, important } of rule.declarations)
      line(`${indent}  ${property}: ${write(value)}${important ? ' !important' : ''};`);
    line(`${indent}}`);
  }
  close();
  return { text, written };
}

/** `</` written so that no `<style>` ends in it; in strings and names an escape means the character. Source: CSS Syntax 3 §4.3.7. */
export function escapeEndTags(css: string): string {
  return css.replaceAll('</', '<\\/');
}

function rulesOf(
  overrides: readonly Override[],
  partId: number | null,
  { hoverOnly, isByLetters }: Required<Pick<SheetOptions, 'hoverOnly' | 'isByLetters'>>,
): VeneerRule[] {
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
    const idsOf = (property: string): string[] =>
      list.filter((override) => override.property === property).map(({ id }) => id);
    return {
      partId,
      selector: first.selector,
      media: mediaOf(first, hoverOnly),
      isForWidths: first.widths != null,
      supports: engineGuardOf(first, overrides),
      declarations: [...byProperty.values()]
        .sort((a, b) => compareProperties(a.property, b.property, isByLetters))
        .map(({ property, value, important }) => ({ property, value, important, from: idsOf(property) })),
    };
  });
  return [
    ...rules.filter(({ isForWidths, supports }) => !isForWidths && supports === null),
    ...rules.filter(({ supports }) => supports !== null),
    ...standardScrollbars(overrides, partId),
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
