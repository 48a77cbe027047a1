import { isMessage } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { lastingClasses } from '../selectors/class-names.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { SiteModel } from '../site/site-model.js';
import { selectorTargets } from '../sheet-text/selector-target.js';
import type { Override } from '../veneer/override.js';
import { colorOfValue, plainValuesIn, type OverrideValue } from '../veneer/override-value.js';
import { byRole } from './by-role.js';
import { kitCss } from './kit-css.js';
import { KIT_FORMAT, KIT_VERSION, type Kit, type KitRule } from './kit.js';

/** Longest markup that is kept, UTF-16 units. */
const MOST_MARKUP = 20_000;
const MOST_CLASSES = 400;

/**
 * A part's overrides as a kit: what was bound to a swatch is bound to the role it fills, so that it follows another palette.
 * @returns `null` for a part that has none, or is on no page.
 */
export function makeKit(site: SiteModel, partId: number, name: string, madeOn: string): Kit | null {
  const part = site.source.parts.find(({ id }) => id === partId);
  const overrides = site.overrides.filter((override) => override.partId === partId);
  const root = part && firstRoot(site, part.selector);
  if (!part || !root || overrides.length === 0) return null;
  const values = overrides.map(({ value }) => byRole(value, site.palette));
  const roles = new Set(
    values.flatMap((value) => plainValuesIn(value).flatMap((plain) => (plain.kind === 'role' ? [plain.role] : []))),
  );
  const ownCss = site.ownCss
    .filter((own) => own.partId === partId)
    .map(({ css }) => kitCss(css, site))
    .join('\n');
  return {
    format: KIT_FORMAT,
    version: KIT_VERSION,
    name,
    madeOn,
    root: part.selector,
    classes: classesIn(root).slice(0, MOST_CLASSES),
    markup: outline(root).slice(0, MOST_MARKUP),
    roles: Object.fromEntries(
      [...roles].flatMap((role) => {
        const color = colorOfValue({ kind: 'role', role, shade: 0 }, site.palette);
        return color ? [[role, hexOf(color)]] : [];
      }),
    ),
    rules: overrides.map((override, i) => ruleOf(override, values[i])),
    ...(ownCss === '' ? {} : { ownCss }),
  };
}

/** Classes in an element and all inside it, each once. */
export function classesIn(root: ElementNode): string[] {
  const found = new Set<string>();
  const waiting = [root];
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    for (const name of lastingClasses(element.classes)) found.add(name);
    waiting.push(...[...element.children].reverse());
  }
  return [...found];
}

function ruleOf({ selector, pseudo, state, property, important, widths }: Override, value: OverrideValue): KitRule {
  const targets = selectorTargets(selector);
  const target = !isMessage(targets) && targets.length === 1 ? targets[0] : null;
  const isPlain = target !== null && target.pseudo === pseudo && target.state === state;
  return {
    elements: isPlain ? target.elements : null,
    selector,
    pseudo,
    state,
    property,
    value,
    important,
    widths: widths ?? null,
  };
}

function firstRoot(site: SiteModel, selector: string): ElementNode | null {
  for (const page of site.closed.values()) {
    const [element] = matchedInAnyState(page, selector);
    if (element) return element;
  }
  return null;
}

/** Markup of an element: names, ids and classes, without texts and addresses, which are somebody's own. */
function outline(root: ElementNode): string {
  const lines: string[] = [];
  const waiting: { readonly element: ElementNode; readonly depth: number }[] = [{ element: root, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { element, depth } = next;
    const names = [
      element.localName,
      element.attributes.has('id') ? `#${element.attributes.get('id') ?? ''}` : '',
      ...element.classes.map((name) => `.${name}`),
    ];
    lines.push('  '.repeat(Math.min(depth, 20)) + names.join(''));
    waiting.push(...[...element.children].reverse().map((child) => ({ element: child, depth: depth + 1 })));
  }
  return lines.join('\n');
}
