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
  /** Whether trying its rules was given up on some page: those not tried count as used. */
  readonly isUntried: boolean;
  readonly pageIds: readonly number[];
}

const utf8 = new TextEncoder();

/** The stylesheets of all pages in the order of their first appearance, with the share of rules nothing needs. */
export function listSheets(site: SiteModel): SheetSummary[] {
  const sheets = new Map<string, Gathered>();
  const gathered = (name: string, text: string, origin: SheetSummary['origin']): Gathered => {
    let sheet = sheets.get(name);
    if (!sheet)
      sheets.set(
        name,
        (sheet = {
          origin,
          bytes: utf8.encode(text).length,
          pageIds: new Set(),
          rules: new Set(),
          used: new Set(),
          isUntried: false,
        }),
      );
    return sheet;
  };
  for (const [pageId, page] of site.pages) {
    const linked = new Set(page.sheets.map(({ name }) => name));
    const used = usedRules(page);
    for (const { name, text, tree } of page.sheets)
      gathered(
        name,
        text,
        tree.kind === 'shadow' ? 'shadow tree' : name.includes(' <style> ') ? 'in the page' : 'file',
      ).pageIds.add(pageId);
    for (const rule of page.base.rules) {
      const sheet = gathered(rule.sheet.name, rule.sheet.text, linked.has(rule.sheet.name) ? 'file' : 'imported');
      sheet.pageIds.add(pageId);
      sheet.rules.add(rule.start);
      if (used === null) sheet.isUntried = true;
      // Selectors too dear to try count as used: nobody shall delete a rule because it was hard to match.
      if (used === null || used.has(rule)) sheet.used.add(rule.start);
    }
  }
  return [...sheets]
    .filter(([name]) => name !== VENEER_SHEET_NAME)
    .map(([name, { pageIds, rules, used, ...sheet }]) => ({
      name,
      ...sheet,
      rules: rules.size,
      unused: rules.size - used.size,
      pageIds: [...pageIds],
    }));
}

interface Gathered {
  readonly origin: SheetSummary['origin'];
  readonly bytes: number;
  readonly pageIds: Set<number>;
  readonly rules: Set<number>;
  readonly used: Set<number>;
  isUntried: boolean;
}

/** Rules whose selector matches some element of the page as it stands or with every state on; `null` where trying them took more steps than the bound. */
function usedRules(page: Page): ReadonlySet<RuleEntry['rule']> | null {
  const used = new Set<RuleEntry['rule']>();
  const { document } = page;
  const budget = { steps: 20_000_000 };
  const contexts = [
    NO_STATES,
    ...CENSUS_STATES.filter((state) => state !== 'rest').map((state) => allInState(document, state)),
  ].map((states) => ({ states, hasAnswers: new Map() }));
  const byTree = page.indexes[1];
  try {
    for (const [tree, byKey] of byTree) {
      for (const index of byKey.values()) {
        for (const element of document.elements) {
          if (tree && element.root !== tree && element.shadowRoot !== tree && element.root.kind !== 'document')
            continue;
          for (const { rule, selector } of index.candidates(element)) {
            if (used.has(rule)) continue;
            const isMatch = contexts.some(({ states, hasAnswers }, i) => {
              const context: MatchContext = {
                document,
                states,
                tree: tree ?? document.root,
                scope: null,
                visitedLink: i > 0 && states.get(element)?.has('visited') ? element : null,
                hasAnswers,
                budget,
              };
              return matchesSelector(selector, element, context);
            });
            if (isMatch) used.add(rule);
          }
        }
      }
    }
  } catch (error) {
    if (!(error instanceof MatchBudgetError)) throw error;
    return null;
  }
  return used;
}
