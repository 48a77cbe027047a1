import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { isCurrent } from '../selectors/current-marker.js';
import { isFocusable } from '../selectors/element-states.js';
import { variablesIn } from '../values/variables-in.js';
import { textsOver } from '../verdict/legibility.js';
import type { ProofSettings } from '../match/proof-settings.js';
import { touchedOn } from '../selectors/touched.js';
import type { StyleRule } from '../rules/style-rule.js';
import { dressSite, openParts, type SiteModel } from '../site/site-model.js';
import type { PageFound } from './page-pass.js';

interface Kept {
  readonly site: SiteModel;
  readonly page: Page;
  readonly at: string;
  readonly found: PageFound;
}

interface Known {
  readonly found: PageFound;
  readonly changed: ReadonlySet<ElementNode> | null;
}

/** Share of a page from which all of it is looked at again. */
const MOST_AGAIN = 0.6;

/** What was found of each page last, taken over as long as nothing that changed can tell on it. */
export class ProofMemo {
  readonly #kept = new Map<string, Kept>();
  readonly #opened = new Map<
    string,
    { readonly from: SiteModel['closed']; readonly parts: string; readonly site: SiteModel }
  >();

  /** What was found of a page, and which of its elements may come out otherwise now, if any; `null` where all of it may. */
  known(site: SiteModel, pageId: number, layer: string, page: Page, at: ProofSettings): Known | null {
    const kept = this.#kept.get(keyOf(site, pageId, layer));
    if (
      !kept ||
      kept.at !== JSON.stringify(at.settings) ||
      kept.page.document !== page.document ||
      kept.page.base !== page.base ||
      kept.page.layouts !== page.layouts ||
      JSON.stringify(kept.site.palette) !== JSON.stringify(site.palette) ||
      kept.site.exceptions !== site.exceptions ||
      kept.site.source.parts !== site.source.parts
    )
      return null;
    const changed = changedRules(kept.page.veneerRules, page.veneerRules, usedOn(page));
    if (!changed) return null;
    if (changed.length === 0) return { found: kept.found, changed: null };
    const told = toldByRules(page, changed);
    if (told.size > MOST_AGAIN * page.document.elements.length) return null;
    return { found: kept.found, changed: told.size === 0 ? null : told };
  }

  keep(site: SiteModel, pageId: number, layer: string, page: Page, at: ProofSettings, found: PageFound): void {
    this.#kept.set(keyOf(site, pageId, layer), { site, page, at: JSON.stringify(at.settings), found });
  }

  /** Another that knows the same, so that a trial leaves this one as it is. */
  fork(): ProofMemo {
    const other = new ProofMemo();
    for (const [key, kept] of this.#kept) other.#kept.set(key, kept);
    for (const [key, opened] of this.#opened) other.#opened.set(key, opened);
    return other;
  }

  /** The site with its hidden parts opened; its pages are read once. */
  opened(site: SiteModel, partIds: readonly number[]): SiteModel {
    const lighting = site.palette.lighting ?? 'light';
    const known = this.#opened.get(lighting);
    const isKnown = known?.from === site.closed && known.parts === partIds.join();
    const opened = isKnown
      ? dressSite(known.site, site.overrides, site.palette, site.exceptions)
      : openParts(site, partIds);
    this.#opened.set(lighting, { from: site.closed, parts: partIds.join(), site: opened });
    return opened;
  }
}

/** Elements that changed rules can tell on: those they match in some state and all inside, and what is held against those. */
function toldByRules(page: Page, rules: readonly StyleRule[]): ReadonlySet<ElementNode> {
  const selectors = [...new Set(rules.map(({ selectorText }) => selectorText))];
  const touched = new Set(touchedOn(page, selectors).touched);
  if (touched.size === 0) return touched;
  const { elements } = page.document;
  const told = new Set(touched);
  // A control answers by what is in it.
  for (const element of touched)
    for (let node = element.flatParent; node; node = node.flatParent) if (isFocusable(node)) told.add(node);
  // These are held against others of their kind.
  for (const element of elements) if (isCurrent(element) || element.attributes.has('disabled')) told.add(element);
  for (const layout of page.layouts?.values() ?? [])
    textsOver(layout, elements, touched).forEach((text) => told.add(text));
  return told;
}

function keyOf(site: SiteModel, pageId: number, layer: string): string {
  return `${site.palette.lighting ?? 'light'}|${pageId}|${layer}`;
}

/**
 * Rules that are in one veneer and not in the other; those of a sheet read anew are told by what they say. A custom property that comes or
 * goes tells only on rules that use it, which change with it; `null` where one has another value, which tells on whatever follows it.
 */
function changedRules(
  before: readonly StyleRule[],
  after: readonly StyleRule[],
  used: ReadonlySet<string>,
): StyleRule[] | null {
  const textOf = ({ selectorText, declarations, conditions }: StyleRule): string =>
    JSON.stringify([
      selectorText,
      declarations.map(({ name, value, important }) => [name, value, important]),
      conditions.map(({ text }) => text),
    ]);
  const [old, now] = [new Set(before.map(textOf)), new Set(after.map(textOf))];
  const [gone, come] = [
    before.filter((rule) => !now.has(textOf(rule))),
    after.filter((rule) => !old.has(textOf(rule))),
  ];
  const [valuesBefore, valuesAfter] = [customValues(gone), customValues(come)];
  for (const [key, { value }] of valuesBefore) if ((valuesAfter.get(key)?.value ?? value) !== value) return null;
  // One that the page itself follows is the theme's.
  for (const { name } of [...valuesBefore.values(), ...valuesAfter.values()]) if (used.has(name)) return null;
  const isOfProperties = ({ declarations }: StyleRule): boolean =>
    declarations.every(({ name }) => name.startsWith('--'));
  const changed = [...gone, ...come];
  // A rule that sets one beside other things is an override of the theme's, and reaches whatever follows it.
  const isMixed = changed.some(
    (rule) => !isOfProperties(rule) && rule.declarations.some(({ name }) => name.startsWith('--')),
  );
  return isMixed ? null : changed.filter((rule) => !isOfProperties(rule));
}

/** Values of custom properties by what they are set on. */
function customValues(rules: readonly StyleRule[]): Map<string, { readonly name: string; readonly value: string }> {
  return new Map(
    rules.flatMap(({ selectorText, conditions, declarations }) =>
      declarations
        .filter(({ name }) => name.startsWith('--'))
        .map(({ name, value }) => [
          `${conditions.map(({ text }) => text).join()}|${selectorText}|${name}`,
          { name, value },
        ]),
    ),
  );
}

const usedByPage = new WeakMap<Page['base'], ReadonlySet<string>>();

/** Custom properties that a page's own rules and attributes follow. */
function usedOn({ base, document }: Page): ReadonlySet<string> {
  let used = usedByPage.get(base);
  if (!used) {
    const values = [
      ...base.rules.flatMap(({ declarations }) => declarations.map(({ value }) => value)),
      ...document.elements.map(({ attributes }) => attributes.get('style') ?? ''),
    ];
    used = new Set(values.flatMap((value) => (value.includes('var(') ? variablesIn(value) : [])));
    usedByPage.set(base, used);
  }
  return used;
}
