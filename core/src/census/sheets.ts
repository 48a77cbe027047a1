import { NO_STATES, MatchBudgetError, type MatchContext } from '../selectors/match-context.js';
import { matchesSelector } from '../selectors/match-selector.js';
import type { RuleEntry } from '../resolve/index-rules.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import type { SiteModel } from '../site/site-model.js';
import { CENSUS_STATES, allInState } from './census-states.js';

/** A stylesheet of the site. */
export interface SheetSummary {
  readonly name: string;
  /** How it comes into its pages. */
  readonly origin: 'file' | 'in the page' | 'imported' | 'shadow tree';
  /** UTF-8 bytes. */
  readonly bytes: number;
  readonly rules: number;
  /** Rules that match no element of any page in any state, at any width. */
  readonly unused: number;
  readonly pageIds: readonly number[];
}

const utf8 = new TextEncoder();

/** The stylesheets of all pages in the order of their first appearance, with the share of rules nothing needs. */
export function listSheets(site: SiteModel): SheetSummary[] {
  const sheets = new Map<string, { -readonly [K in keyof Omit<SheetSummary, 'pageIds' | 'rules' | 'unused'>]: SheetSummary[K] } & { readonly pageIds: Set<number>; readonly rules: Set<number>; readonly used: Set<number> }>();
  for (const [pageId, page] of site.pages) {
    const linked = new Set(page.sheets.map(({ name }) => name));
    const used = usedRules(page);
    for (const { name, text, tree } of page.sheets) {
      if (!sheets.has(name)) sheets.set(name, { name, origin: tree.kind === 'shadow' ? 'shadow tree' : name.includes(' <style> ') ? 'in the page' : 'file', bytes: utf8.encode(text).length, pageIds: new Set(), rules: new Set(), used: new Set() });
      sheets.get(name)?.pageIds.add(pageId);
    }
    for (const rule of page.base.rules) {
      const { name, text } = rule.sheet;
      let sheet = sheets.get(name);
      if (!sheet) sheets.set(name, (sheet = { name, origin: linked.has(name) ? 'file' : 'imported', bytes: utf8.encode(text).length, pageIds: new Set(), rules: new Set(), used: new Set() }));
      sheet.pageIds.add(pageId);
      sheet.rules.add(rule.start);
      if (used.has(rule)) sheet.used.add(rule.start);
    }
  }
  return [...sheets.values()].filter(({ name }) => name !== VENEER_SHEET_NAME).map(({ pageIds, rules, used, ...sheet }) => ({ ...sheet, rules: rules.size, unused: rules.size - used.size, pageIds: [...pageIds] }));
}

/** Rules whose selector matches some element of the page as it stands or with every state on. */
function usedRules(page: Page): ReadonlySet<RuleEntry['rule']> {
  const used = new Set<RuleEntry['rule']>();
  const { document } = page;
  const budget = { steps: 20_000_000 };
  const contexts = [NO_STATES, ...CENSUS_STATES.filter((state) => state !== 'rest').map((state) => allInState(document, state))].map((states) => ({ states, hasAnswers: new Map() }));
  const byTree = page.indexes[1];
  try {
    for (const [tree, byKey] of byTree) {
      for (const index of byKey.values()) {
        for (const element of document.elements) {
          if (tree && element.root !== tree && element.shadowRoot !== tree && element.root.kind !== 'document') continue;
          for (const { rule, selector } of index.candidates(element)) {
            if (used.has(rule)) continue;
            const isMatch = contexts.some(({ states, hasAnswers }, i) => {
              const context: MatchContext = { document, states, tree: tree ?? document.root, scope: null, visitedLink: i > 0 && states.get(element)?.has('visited') ? element : null, hasAnswers, budget };
              return matchesSelector(selector, element, context);
            });
            if (isMatch) used.add(rule);
          }
        }
      }
    }
  } catch (error) {
    // Selectors too dear to try count as used: nobody shall delete a rule because it was hard to match.
    if (!(error instanceof MatchBudgetError)) throw error;
    return new Set(page.base.rules);
  }
  return used;
}
