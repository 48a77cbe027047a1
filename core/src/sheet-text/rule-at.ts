import type { Message } from '../message/message.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { matchesOf } from '../site/matches.js';
import { compileOptionsOf, partOf, type SiteModel } from '../site/site-model.js';
import { compareSpecificity, type Specificity } from '../selectors/selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { sectionsOf } from '../veneer/compile-veneer.js';
import type { OverrideState, Spot } from '../veneer/override.js';
import { glossOf } from '../verdict/gloss.js';
import { paletteLines } from './read-sheet.js';
import { ruleAsOverrides } from './rule-overrides.js';
import { ruleItemAt, sheetItems } from './sheet-items.js';

/** The rule that stands at a place in a sheet's text. */
export interface RuleAt {
  readonly selector: string;
  /** Conditions around it, outermost first. */
  readonly within: readonly string[];
  /** Greatest of its selectors; `null` where no browser reads one. */
  readonly specificity: Specificity | null;
  /** How many elements it styles in some state, on all pages. */
  readonly elements: number;
  /** Those elements, the first of them where there are very many. */
  readonly spots: readonly Spot[];
  readonly pages: number;
  /** State it is for, and the part its first match stands in. */
  readonly state: OverrideState;
  readonly partId: number | null;
  /** What it does, a sentence for each of its properties, for those who do not read CSS. */
  readonly gloss: readonly Message[];
  /** Why no override stands for it; `null` where one can. */
  readonly beyond: Message | null;
  /** Where it stands, UTF-16 units. */
  readonly start: number;
  readonly end: number;
}

const MOST_SPOTS = 400;
const MOST_GLOSSED = 6;

/** The rule at an offset in an edited sheet, and what it is for; `null` where none stands. */
export function ruleAt(site: SiteModel, text: string, offset: number): RuleAt | null {
  const head = paletteLines(site);
  if (text.startsWith(head) && offset <= head.length) return null;
  const { items } = sheetItems(text, sectionsOf(compileOptionsOf(site)));
  const item = ruleItemAt(items, offset);
  if (!item) return null;
  const { selector, within, start, end } = item;
  const shared = { selector, within, start, end };
  if (selectorProblem(selector) !== null)
    return {
      ...shared,
      specificity: null,
      elements: 0,
      spots: [],
      pages: 0,
      state: 'rest',
      partId: null,
      gloss: [],
      beyond: null,
    };
  const [strongest] = [...parseSelectorList(selector)].sort((a, b) => compareSpecificity(b.specificity, a.specificity));
  const found = matchesOf(site, selector);
  const first = found.at(0);
  const base = site.overrides.filter((override) => override.selector === selector);
  const read = ruleAsOverrides(item, { site, section: item.section, base, newId: () => 'looked-at' });
  return {
    ...shared,
    specificity: strongest?.specificity ?? null,
    elements: found.length,
    spots: found.slice(0, MOST_SPOTS).map(({ pageId, element }) => ({ pageId, element: element.number })),
    pages: new Set(found.map(({ pageId }) => pageId)).size,
    state: read.ok ? read.overrides[0].state : 'rest',
    partId: first === undefined ? null : (partOf(site, first.page, first.element)?.id ?? null),
    gloss: read.ok ? read.overrides.slice(0, MOST_GLOSSED).map((override) => glossOf(site, override)) : [],
    beyond: read.ok ? null : read.reason,
  };
}

/** Offsets of the rules of an edited sheet that style an element in some state, in order. */
export function rulesOn(site: SiteModel, text: string, { pageId, element }: Spot): number[] {
  const page = site.pages.get(pageId);
  if (!page) return [];
  return sheetItems(text, sectionsOf(compileOptionsOf(site))).items.flatMap(
    ({ selector, declarations, start, end }) => {
      if (declarations.length === 0 || selector === ':root' || selectorProblem(selector) !== null) return [];
      const isOn = matchedInAnyState(page, selector).some(({ number }) => number === element);
      return isOn ? [Math.max(start, text.indexOf(selector, start) < end ? text.indexOf(selector, start) : start)] : [];
    },
  );
}
