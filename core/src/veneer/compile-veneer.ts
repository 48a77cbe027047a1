import { OVERRIDE_STATES, REACHES, type Override } from './override.js';
import { customPropertyOf, type Palette } from './palette.js';

/** What the compiled sheet depends on besides the overrides. */
export interface CompileOptions {
  readonly palette: Palette;
  /** Parts in the order of their sections. */
  readonly parts: readonly { readonly id: number; readonly name: string }[];
  /** Prefix of the custom properties, without hyphens. */
  readonly prefix: string;
}

/**
 * Compiles overrides to CSS: custom properties first, then a section a part, one rule a selector,
 * rules of one element in the order link, visited, hover, focus, active.
 * The same overrides give the same bytes.
 */
export function compileVeneer(overrides: readonly Override[], options: CompileOptions): string {
  const { palette, parts, prefix } = options;
  const properties = new Map<string, string>();
  const declare = (override: Override): string => {
    const custom = customPropertyOf(override.value, palette, prefix);
    if (custom) properties.set(custom.name, custom.css);
    const value = custom ? `var(${custom.name})` : override.value.kind === 'literal' ? override.value.css : 'inherit';
    return `  ${override.property}: ${value}${override.important ? ' !important' : ''};`;
  };
  const sections = [...parts, { id: null, name: 'Everywhere' }].map(({ id, name }) => {
    const own = overrides.filter((override) => (parts.some((part) => part.id === override.partId) ? override.partId : null) === id);
    return { name, rules: rulesOf(own, declare) };
  }).filter(({ rules }) => rules.length > 0);
  if (sections.length === 0) return '';
  const root = [...properties].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, css]) => `  ${name}: ${css};`);
  return [
    ...(root.length > 0 ? [`/* Palette */\n:root {\n${root.join('\n')}\n}`] : []),
    ...sections.map(({ name, rules }) => `/* ${name.replaceAll('*/', '* /')} */\n${rules.join('\n')}`),
  ].join('\n\n') + '\n';
}

function rulesOf(overrides: readonly Override[], declare: (override: Override) => string): string[] {
  const bySelector = new Map<string, Override[]>();
  for (const override of [...overrides].sort(compareOverrides)) {
    const list = bySelector.get(override.selector);
    if (list) list.push(override);
    else bySelector.set(override.selector, [override]);
  }
  return [...bySelector].map(([selector, list]) => {
    // The last override of a property is the one that counts.
    const byProperty = new Map(list.map((override) => [override.property, override]));
    const lines = [...byProperty.values()].sort((a, b) => propertyRank(a.property) - propertyRank(b.property)).map(declare);
    return `${selector} {\n${lines.join('\n')}\n}`;
  });
}

/** By the element they were made on, in document order, so that its states stand together in their order. */
function compareOverrides(a: Override, b: Override): number {
  return a.pageId - b.pageId || a.element - b.element || REACHES.indexOf(b.reach) - REACHES.indexOf(a.reach) || (a.pseudo < b.pseudo ? -1 : a.pseudo > b.pseudo ? 1 : 0)
    || OVERRIDE_STATES.indexOf(a.state) - OVERRIDE_STATES.indexOf(b.state) || (a.selector < b.selector ? -1 : a.selector > b.selector ? 1 : 0);
}

const PROPERTY_ORDER = ['color', 'background-color', 'background-image', 'border-color', 'border-top-color', 'border-right-color', 'border-bottom-color', 'border-left-color'];

function propertyRank(property: string): number {
  const rank = PROPERTY_ORDER.indexOf(property);
  return rank === -1 ? PROPERTY_ORDER.length : rank;
}
