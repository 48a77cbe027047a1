import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { isCurrent } from '../selectors/current-marker.js';
import { isFocusable } from '../selectors/element-states.js';
import { variablesIn } from '../values/variables-in.js';
import { textsOver } from '../verdict/legibility.js';
import type { ProofSettings } from '../match/proof-settings.js';
import { changedRules } from '../rules/changed-rules.js';
import type { Override } from '../veneer/override.js';
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
    const changed = telling(kept.page, page);
    if (!changed) return null;
    const selectors = new Set([
      ...changed.map(({ selectorText }) => selectorText),
      ...changedOverrides(kept.site, site).map(({ selector }) => selector),
    ]);
    if (selectors.size === 0) return { found: kept.found, changed: null };
    const told = toldBy(page, [...selectors]);
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
    const opened = isKnown ? dressSite(known.site, site.overrides, site.palette, site) : openParts(site, partIds);
    this.#opened.set(lighting, { from: site.closed, parts: partIds.join(), site: opened });
    return opened;
  }
}

/** Elements that rules with these selectors can tell on: those they match in some state and all inside, and what is held against those. */
function toldBy(page: Page, selectors: readonly string[]): ReadonlySet<ElementNode> {
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

/** Longhands by which a box is moved, or casts a shadow on what it does not hold: what else they tell on is not told by its selector. */
const FAR_REACHING =
  /^(?:box-shadow|filter|position|z-index|transform|translate|scale|rotate|float|inset|top|right|bottom|left)$/;

/**
 * Rules that came or went, and tell on what they match alone. A custom property that comes or goes tells only on rules that use it, which
 * change with it. `null` where one has another value or is one the page itself follows, and where a rule reaches further than its matches.
 */
function telling(before: Page, after: Page): readonly StyleRule[] | null {
  const { gone, come } = changedRules(before.veneerRules, after.veneerRules);
  const [valuesBefore, valuesAfter] = [customValues(gone), customValues(come)];
  const used = usedOn(after);
  for (const [key, { name, value }] of valuesBefore)
    if (used.has(name) || (valuesAfter.get(key)?.value ?? value) !== value) return null;
  for (const { name } of valuesAfter.values()) if (used.has(name)) return null;
  const changed = [...gone, ...come].filter(({ declarations }) => declarations.some(({ name }) => !isCustom(name)));
  const isFar = changed.some(({ declarations }) =>
    declarations.some(({ name }) => isCustom(name) || FAR_REACHING.test(name)),
  );
  return isFar ? null : changed;
}

function isCustom(name: string): boolean {
  return name.startsWith('--');
}

const overridesChanged = new WeakMap<SiteModel, WeakMap<SiteModel, readonly Override[]>>();

/** Overrides that say something else, or are there in one site alone: their reach or value may tell though their rule is the same. */
function changedOverrides(before: SiteModel, after: SiteModel): readonly Override[] {
  let byAfter = overridesChanged.get(before);
  if (!byAfter) overridesChanged.set(before, (byAfter = new WeakMap()));
  let changed = byAfter.get(after);
  if (!changed) {
    const texts = (site: SiteModel): Map<string, Override> =>
      new Map(site.overrides.map((override) => [JSON.stringify(override), override]));
    const [old, now] = before.overrides === after.overrides ? [new Map(), new Map()] : [texts(before), texts(after)];
    const only = (own: Map<string, Override>, other: Map<string, Override>): Override[] =>
      [...own].flatMap(([text, override]) => (other.has(text) ? [] : [override]));
    byAfter.set(after, (changed = [...only(old, now), ...only(now, old)]));
  }
  return changed;
}

/** Values of custom properties by what they are set on. */
function customValues(rules: readonly StyleRule[]): Map<string, { readonly name: string; readonly value: string }> {
  return new Map(
    rules.flatMap(({ selectorText, conditions, declarations }) =>
      declarations
        .filter(({ name }) => isCustom(name))
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
