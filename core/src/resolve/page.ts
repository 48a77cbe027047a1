import type { PageLayout } from './page-layout.js';
import type { MediaEnvironment } from '../conditions/environment.js';
import { rankLayers } from '../cascade/compare.js';
import { parseHtml } from '../dom/parse-html.js';
import type { Amendments } from '../dom/amendment.js';
import type { PageDocument } from '../dom/tree.js';
import type { Problem } from '../problem.js';
import { collectSheets } from '../rules/collect-sheets.js';
import { flattenSheets, type FlatRules } from '../rules/flatten-sheets.js';
import type { LoadSheet, Sheet } from '../rules/sheet.js';
import type { RegisteredProperty, StyleRule } from '../rules/style-rule.js';
import { indexRules, type RuleIndexes } from './index-rules.js';
import { isInBody, rulesOf } from './shared-rules.js';
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
  readonly environment?: Partial<MediaEnvironment>;
}

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
  /** What differs from a desktop screen wherever this page is looked at. */
  readonly environment: Partial<MediaEnvironment>;
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
  const { flat: base, sheets: named, index, switchClasses, layerRanks } = rulesOf(parsed, collected.sheets, loadSheet);
  const document: PageDocument = { ...parsed, switchClasses };
  const toSheet = ({ namespace, text }: (typeof USER_AGENT_SHEETS)[number]): Sheet => ({
    name: 'browser default',
    origin: 'user-agent',
    text,
    media: '',
    tree: document.root,
    owner: null,
    disabled: false,
    title: '',
    namespace,
  });
  userAgentRules ??= flattenSheets(USER_AGENT_SHEETS.map(toSheet), () => null);
  if (document.quirks)
    quirksRules ??= flattenSheets(
      [...USER_AGENT_SHEETS, { namespace: 'html' as const, text: QUIRKS_SHEET }].map(toSheet),
      () => null,
    );
  const page: Page = {
    path,
    document,
    sheets: collected.sheets,
    layerRanks,
    registered: base.registered,
    problems: [...collected.problems, ...base.problems],
    metaColorScheme:
      document.elements
        .find(
          ({ localName, attributes }) =>
            localName === 'meta' && attributes.get('name')?.toLowerCase() === 'color-scheme',
        )
        ?.attributes.get('content')
        ?.toLowerCase() ?? '',
    veneerPlace,
    environment: options.environment ?? {},
    veneerOrder: veneerOrderIn(named, base, veneerPlace),
    veneerRules: [],
    base,
    indexes: [indexRules((document.quirks ? (quirksRules ?? userAgentRules) : userAgentRules).rules, document), index],
  };
  return options.veneer === undefined ? page : withVeneer(page, options.veneer);
}

/** The page with another veneer; its document, sheets and their index are shared, not rebuilt. */
export function withVeneer(page: Page, css: string): Page {
  const sheet: Sheet = {
    name: VENEER_SHEET_NAME,
    origin: 'author',
    text: css,
    media: '',
    tree: page.document.root,
    owner: null,
    disabled: false,
    title: '',
  };
  const flat = flattenedOnce(sheet, page.document.quirks);
  // Between two whole numbers there is room for any number of rules.
  const rules = flat.rules.map((rule, i) => ({
    ...rule,
    sheet,
    order: page.veneerOrder - 1 + (i + 1) / (flat.rules.length + 1),
  }));
  return {
    ...page,
    layerRanks: rankLayers([...page.base.layers, ...flat.layers.filter((name) => !page.base.layers.includes(name))]),
    problems: [...page.problems.filter((problem) => problem.loc?.source !== VENEER_SHEET_NAME), ...flat.problems],
    veneerRules: rules,
    indexes: [page.indexes[0], page.indexes[1], indexRules(rules, page.document)],
  };
}

const flattened = new Map<boolean, { readonly text: string; readonly flat: FlatRules }>();

/** The rules of a veneer, read once for all pages of a site. */
function flattenedOnce(sheet: Sheet, quirks: boolean): FlatRules {
  const last = flattened.get(quirks);
  if (last?.text === sheet.text) return last.flat;
  const flat = flattenSheets([sheet], () => null, quirks);
  if (sheet.text !== '') flattened.set(quirks, { text: sheet.text, flat });
  return flat;
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
  const index = base.rules.findIndex((rule) => isInBody(rule.sheet));
  return index === -1 ? base.rules.length : index;
}

/** The page with a layout, beside those it has for other widths. */
export function withLayout(page: Page, layout: PageLayout): Page {
  return { ...page, layouts: new Map([...(page.layouts ?? []), [layout.width, layout]]) };
}
