import type { Message } from '../message/message.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { compileOptionsOf, partOf, type SiteModel } from '../site/site-model.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { sectionsOf, type Section } from '../veneer/compile-veneer.js';
import { meaningKey } from './pair-rules.js';
import { headOf, sheetItems, type SheetItem } from './sheet-items.js';

/** An edited sheet with a snippet put in. */
export interface SnippetPut {
  readonly text: string;
  /** Rules that were put in, and those that stand there already. */
  readonly put: number;
  readonly twice: readonly string[];
}

/**
 * Puts the rules of an earlier sheet or a snippet into an edited sheet: each at the end of the section of the part it matches first, in
 * the order they come. What stands there already by the letter is left out.
 * @returns why it cannot be, where the snippet is not whole.
 */
export function putInSnippet(site: SiteModel, text: string, snippet: string): SnippetPut | Message {
  const problem = wholenessProblem(snippet);
  if (problem !== null) return problem;
  const sections = sectionsOf(compileOptionsOf(site));
  const known = new Set(
    sheetItems(text, sections)
      .items.filter(({ beyond }) => beyond === null)
      .map(meaningKey),
  );
  const { items } = sheetItems(snippet, []);
  const bySection = new Map<number | null, string[]>();
  const twice: string[] = [];
  let put = 0;
  for (const top of tops(items)) {
    const isThere = top.every((item) => item.beyond === null && known.has(meaningKey(item)));
    if (isThere) {
      twice.push(...top.map(({ selector }) => selector));
      continue;
    }
    put += top.length;
    const section = sectionFor(site, top);
    const css = snippet.slice(top[0].top.start, top[0].top.end);
    bySection.set(section, [...(bySection.get(section) ?? []), css]);
  }
  let after = text;
  for (const section of sections) {
    const css = bySection.get(section.id);
    if (css) after = withRules(after, section, sections, css.join('\n'));
  }
  return { text: after, put, twice };
}

function tops(items: readonly SheetItem[]): [SheetItem, ...SheetItem[]][] {
  const found: [SheetItem, ...SheetItem[]][] = [];
  for (const item of items) {
    const last = found.at(-1);
    if (last?.[0].top.start === item.top.start) last.push(item);
    else found.push([item]);
  }
  return found;
}

function sectionFor(site: SiteModel, items: readonly SheetItem[]): number | null {
  for (const { selector } of items) {
    if (selector === '' || selectorProblem(selector) !== null) continue;
    for (const page of site.pages.values()) {
      const element = matchedInAnyState(page, selector).at(0);
      if (element) return partOf(site, page, element)?.id ?? null;
    }
  }
  return null;
}

/** Text with rules at the end of a section, which is begun where it is not there. */
function withRules(text: string, section: Section, sections: readonly Section[], css: string): string {
  const { heads, items } = sheetItems(text, sections);
  const head = heads.get(section.id);
  const later = sections.slice(sections.findIndex(({ id }) => id === section.id) + 1);
  if (head !== undefined) {
    const own = items.filter((item) => item.section === section.id);
    const end = own.at(-1)?.top.end ?? head;
    return `${text.slice(0, end)}\n${css}${text.slice(end)}`;
  }
  const next = later.flatMap(({ id, ...own }) => {
    const at = heads.get(id);
    return at === undefined ? [] : [at - headOf({ id, ...own }).length];
  })[0];
  const written = `${headOf(section)}\n${css}`;
  if (next === undefined) return `${text.trimEnd()}${text.trim() === '' ? '' : '\n\n'}${written}\n`;
  return `${text.slice(0, next)}${written}\n\n${text.slice(next)}`;
}
