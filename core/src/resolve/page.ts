import type { PageLayout } from '../ground/page-layout.js';
import { rankLayers } from '../cascade/compare.js';
import { parseHtml } from '../dom/parse-html.js';
import type { Amendments } from '../dom/amendment.js';
import type { PageDocument, TreeRoot } from '../dom/tree.js';
import { switchClassesIn } from '../elsewhere/switch-classes.js';
import type { Problem } from '../problem.js';
import { collectSheets } from '../rules/collect-sheets.js';
import { flattenSheets, type FlatRules } from '../rules/flatten-sheets.js';
import type { LoadSheet, Sheet } from '../rules/sheet.js';
import type { RegisteredProperty, StyleRule } from '../rules/style-rule.js';
import { createSelectorIndex, type SelectorIndex } from '../selectors/rule-index.js';
import { ancestorBits } from '../selectors/ancestor-filter.js';
import type { ComplexSelector } from '../selectors/selector.js';
import { QUIRKS_SHEET, USER_AGENT_SHEETS } from '../user-agent/user-agent-sheet.js';

/** Where the veneer's `<link>` stands: it decides ties with sheets that come later. After a sheet a page does not have is the end of its head. */
export type VeneerPlace = 'head-end' | 'body-end' | `after:${string}`;

/** Path of the sheet a veneer follows; `null` when it stands at the end of head or body. */
export function sheetBefore(place: VeneerPlace): string | null {
  return place.startsWith('after:') ? place.slice('after:'.length) : null;
}

export const VENEER_SHEET_NAME = 'veneer.css';

export interface PageOptions {
  /** Path of the page within its site, e.g. `trips/index.html`. */
  readonly path?: string;
  readonly loadSheet?: LoadSheet;
  /** Text of the veneer. */
  readonly veneer?: string;
  readonly veneerPlace?: VeneerPlace;
  /** Attribute changes that open what the page hides. */
  readonly amendments?: Amendments;
}

/** An entry of the index: one selector of one rule. */
export interface RuleEntry {
  readonly rule: StyleRule;
  readonly selector: ComplexSelector;
  /** Bits of the names its ancestors must have. */
  readonly above: readonly number[];
}

/** How a selector reaches its element: directly, through a slot, or as a part. */
export type ReachKind = 'plain' | 'slotted' | 'part';

/** Rules of one page, indexed. Immutable; a new veneer makes a new page that shares the rest. */
export interface Page {
  readonly path: string;
  readonly document: PageDocument;
  readonly sheets: readonly Sheet[];
  readonly layerRanks: ReadonlyMap<string, number>;
  readonly registered: ReadonlyMap<string, RegisteredProperty>;
  readonly problems: readonly Problem[];
  /** Colour schemes the page says it supports, by `<meta name="color-scheme">`; empty when it says nothing. */
  readonly metaColorScheme: string;
  readonly veneerPlace: VeneerPlace;
  /** Place of the veneer in the order of appearance: rules from this number on come after it. */
  readonly veneerOrder: number;
  /** Rules of the veneer; empty without one. */
  readonly veneerRules: readonly StyleRule[];
  /** Where frames laid it out, by viewport width in CSS px; absent where none has. */
  readonly layouts?: ReadonlyMap<number, PageLayout>;
  /** @internal */
  readonly base: FlatRules;
  /** @internal */
  readonly indexes: readonly RuleIndexes[];
}

/** @internal Indexes of one set of rules by tree, way of reaching and pseudo-element; `null` is the tree of user-agent rules. */
export type RuleIndexes = ReadonlyMap<TreeRoot | null, ReadonlyMap<string, SelectorIndex<RuleEntry>>>;

let userAgentRules: FlatRules | null = null;
let quirksRules: FlatRules | null = null;

/**
 * Parses a page with its stylesheets.
 * @param html text of the page; no text is refused.
 */
export function parsePage(html: string, options: PageOptions = {}): Page {
  const { path = '', loadSheet = () => null, veneerPlace = 'head-end' } = options;
  const parsed = parseHtml(html, options.amendments);
  const collected = collectSheets(parsed, path, loadSheet);
  const base = flattenSheets(collected.sheets, loadSheet, parsed.quirks);
  const document: PageDocument = { ...parsed, switchClasses: switchClassesIn(base.rules) };
  const toSheet = ({ namespace, text }: (typeof USER_AGENT_SHEETS)[number]): Sheet => ({
    name: 'browser default', origin: 'user-agent', text, media: '', tree: document.root, owner: null, disabled: false, title: '', namespace,
  });
  userAgentRules ??= flattenSheets(USER_AGENT_SHEETS.map(toSheet), () => null);
  if (document.quirks) quirksRules ??= flattenSheets([...USER_AGENT_SHEETS, { namespace: 'html' as const, text: QUIRKS_SHEET }].map(toSheet), () => null);
  const page: Page = {
    path,
    document,
    sheets: collected.sheets,
    layerRanks: rankLayers(base.layers),
    registered: base.registered,
    problems: [...collected.problems, ...base.problems],
    metaColorScheme: document.elements.find(({ localName, attributes }) => localName === 'meta' && attributes.get('name')?.toLowerCase() === 'color-scheme')?.attributes.get('content')?.toLowerCase() ?? '',
    veneerPlace,
    veneerOrder: veneerOrderIn(collected.sheets, base, veneerPlace),
    veneerRules: [],
    base,
    indexes: [indexRules((document.quirks ? quirksRules ?? userAgentRules : userAgentRules).rules, document), indexRules(base.rules, document)],
  };
  return options.veneer === undefined ? page : withVeneer(page, options.veneer);
}

/** The page with another veneer; its document, sheets and their index are shared, not rebuilt. */
export function withVeneer(page: Page, css: string): Page {
  const sheet: Sheet = { name: VENEER_SHEET_NAME, origin: 'author', text: css, media: '', tree: page.document.root, owner: null, disabled: false, title: '' };
  const flat = flattenSheets([sheet], () => null, page.document.quirks);
  // Between two whole numbers there is room for any number of rules.
  const rules = flat.rules.map((rule, i) => ({ ...rule, order: page.veneerOrder - 1 + (i + 1) / (flat.rules.length + 1) }));
  return {
    ...page,
    layerRanks: rankLayers([...page.base.layers, ...flat.layers.filter((name) => !page.base.layers.includes(name))]),
    problems: [...page.problems.filter((problem) => problem.loc?.source !== VENEER_SHEET_NAME), ...flat.problems],
    veneerRules: rules,
    indexes: [page.indexes[0], page.indexes[1], indexRules(rules, page.document)],
  };
}

function veneerOrderIn(sheets: readonly Sheet[], base: FlatRules, place: VeneerPlace): number {
  if (place === 'body-end') return base.rules.length;
  const path = sheetBefore(place);
  const at = path === null ? -1 : sheets.findLastIndex(({ name, tree }) => name === path && tree.kind === 'document');
  if (at === -1) return firstRuleInBody(base);
  // What a sheet imports has its owner too.
  const later = new Set(sheets.slice(at + 1).map(({ owner }) => owner));
  const index = base.rules.findIndex((rule) => later.has(rule.sheet.owner));
  return index === -1 ? base.rules.length : index;
}

function firstRuleInBody(base: FlatRules): number {
  const isInBody = (sheet: Sheet): boolean => {
    for (let node = sheet.owner; node; node = node.parent) if (node.localName === 'head') return false;
    return sheet.owner !== null;
  };
  const index = base.rules.findIndex((rule) => isInBody(rule.sheet));
  return index === -1 ? base.rules.length : index;
}

function indexRules(rules: readonly StyleRule[], document: PageDocument): RuleIndexes {
  const groups = new Map<TreeRoot | null, Map<string, { selector: ComplexSelector; entry: RuleEntry }[]>>();
  for (const rule of rules) {
    const tree = rule.sheet.origin === 'user-agent' ? null : rule.sheet.tree;
    let byKey = groups.get(tree);
    if (!byKey) groups.set(tree, (byKey = new Map()));
    for (const selector of rule.selectors) {
      const key = indexKey(selector);
      const list = byKey.get(key);
      const item = { selector, entry: { rule, selector, above: ancestorBits(selector) } };
      if (list) list.push(item);
      else byKey.set(key, [item]);
    }
  }
  return new Map([...groups].map(([tree, byKey]) => [tree, new Map([...byKey].map(([key, entries]) => [key, createSelectorIndex(entries, document.quirks)]))]));
}

/** @internal Key of a selector: how it reaches, then its pseudo-element. */
export function indexKey(selector: ComplexSelector): string {
  const names = selector.pseudoElements.map(({ name }) => name);
  const kind: ReachKind = names[0] === 'slotted' ? 'slotted' : names[0] === 'part' ? 'part' : 'plain';
  return `${kind}:${(kind === 'plain' ? names : names.slice(1)).join('::')}`;
}
