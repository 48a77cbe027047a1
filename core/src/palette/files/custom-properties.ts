import { message, type Message } from '../../message/message.js';
import type { BodyNode, RuleNode } from '../../syntax/nodes.js';
import { parseStylesheet } from '../../syntax/parse-stylesheet.js';
import { hexOf } from '../../color/read-notation.js';
import { colorOfValue } from '../../veneer/override-value.js';
import { namesOf } from '../../veneer/palette-names.js';
import type { Naming } from '../../veneer/naming.js';
import { colorOfCss, type Palette } from '../../veneer/palette.js';
import { withDistinctNames, type NamedColor, type PaletteFile } from './named-color.js';

const MAX_STEPS = 32;

/** Reads the custom properties of a stylesheet that hold colours, by themselves or through one another; other declarations are passed over. */
export function readCustomProperties(css: string): PaletteFile {
  const values = new Map<string, string>();
  const visit = (nodes: readonly (BodyNode | RuleNode)[]): void => {
    for (const node of nodes) {
      if (node.kind === 'declaration') {
        if (node.name.startsWith('--') && !values.has(node.name)) values.set(node.name, node.value.trim());
      } else if (node.kind === 'qualified') visit(node.body);
      else if (node.body) visit(node.body);
    }
  };
  visit(parseStylesheet(css).rules);
  if (values.size === 0)
    return {
      colors: [],
      problems: [{ where: message('file.file'), reason: message('file.holds-no-custom-property') }],
    };
  const colors: NamedColor[] = [];
  const problems: { where: Message | string; reason: Message }[] = [];
  for (const name of values.keys()) {
    const text = substitute(name, values);
    // One that only points to another gives it a job; it is no colour of its own.
    const target = /^var\(\s*(--[^\s,)]+)/.exec(values.get(name) ?? '')?.[1];
    if (text !== null && target !== undefined && values.has(target)) continue;
    if (text !== null && colorOfCss(text))
      colors.push({ name: name.slice(2).replace(/[-_]+/g, ' ').trim() || name, css: text });
    else if (text === null) problems.push({ where: name, reason: message('file.refers-itself-or-property') });
  }
  if (colors.length === 0)
    problems.push({ where: message('file.file'), reason: message('file.no-custom-property-holds') });
  return { colors: withDistinctNames(colors), problems };
}

/** Value with references to whole other properties replaced; `null` for a circle or a property that is not there. */
function substitute(name: string, values: ReadonlyMap<string, string>): string | null {
  let text = values.get(name) ?? null;
  for (let step = 0; text !== null && step < MAX_STEPS; step += 1) {
    const reference = /^var\(\s*(--[^\s,)]+)\s*(?:,([^()]*))?\)$/.exec(text);
    if (!reference) return text;
    text = values.get(reference[1]) ?? (reference[2]?.trim() || null);
  }
  return null;
}

/** Writes swatches and roles as custom properties on the root element. */
export function writeCustomProperties(palette: Palette, prefix: string, roleNames?: Naming['names']): string {
  const names = namesOf(palette, roleNames);
  const swatches = palette.swatches.flatMap(({ css }, i) => {
    const color = colorOfCss(css);
    return color ? [`  --${prefix}-${names.swatches[i]}: ${hexOf(color)};`] : [];
  });
  const roles = palette.roles.flatMap(({ role, swatchId, shade }) => {
    const base = palette.swatches.findIndex(({ id }) => id === swatchId);
    const color = colorOfValue({ kind: 'role', role, shade: 0 }, palette);
    if (base === -1 || !color) return [];
    return [
      `  --${prefix}-${names.roles.get(role) ?? role}: ${shade === 0 ? `var(--${prefix}-${names.swatches[base]})` : hexOf(color)};`,
    ];
  });
  return `:root {\n${[...swatches, ...(roles.length > 0 ? ['', '  /* roles */', ...roles] : [])].join('\n')}\n}\n`;
}
