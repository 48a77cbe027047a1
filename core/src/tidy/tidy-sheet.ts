import { hides, lostBy, lostWords } from '../hiding/hidden.js';
import { toEnd } from '../to-end.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { VENEER_SHEET_NAME, withVeneer } from '../resolve/page.js';
import { shortfallOf } from '../resolve/shortfall.js';
import { StyleView } from '../resolve/style-view.js';
import { veneerRules, writeRules } from '../veneer/compile-veneer.js';
import type { VeneerDeclaration, VeneerRule } from '../veneer/veneer-rule.js';
import { settingsThatMatter } from '../site/environments.js';
import { outcomeSpots, pseudosOf, sameOutcome, type OutcomeGround } from './same-outcome.js';
import { withSpecimen, inEachLighting, compileOptionsOf, type SiteModel } from '../site/site-model.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** The sheet as it leaves the product, and what was done to it. */
export interface TidySheet {
  readonly css: string;
  /** What it is written from, in order. */
  readonly rules: readonly VeneerRule[];
  /** Declarations left out because nothing changes without them: `selector { property }`. */
  readonly dropped: readonly string[];
  /** Rules that stand together with another of equal declarations. */
  readonly merged: number;
  /** Elements that were not read, for want of which nothing was done to it; 0 for none. */
  readonly unread: number;
}

/** How far the work is. */
export interface TidyProgress {
  readonly done: number;
  readonly total: number;
}

/** The sheet of a site, tidied at one go. */
export function tidySheet(site: SiteModel): TidySheet {
  return toEnd(tidySteps(site));
}

/**
 * Compiles the veneer and tidies it, step by step. Every rewrite is checked: the computed values of everything it can touch,
 * on every page, in every state and pair of states that the rules ask for, at every width that a breakpoint sets apart, are
 * the same before and after; a rewrite that changes one of them is not made.
 */
export function* tidySteps(of: SiteModel): Generator<TidyProgress, TidySheet> {
  // What only the specimen shows is there to be told as well.
  const site = withSpecimen(of);
  const compiled: readonly VeneerRule[] = veneerRules(site.overrides, compileOptionsOf(site));
  let rules = compiled;
  const longhands = [
    ...new Set(
      rules.flatMap(({ declarations }) => declarations.flatMap(({ property }) => longhandsOfProperty(property))),
    ),
  ];
  const ground: OutcomeGround = {
    pages: inEachLighting(site).flatMap((lit) => [...lit.closed.values()]),
    ...compileOptionsOf(site),
    settings: settingsThatMatter(site, longhands).settings,
  };
  const idle = idleDeclarations(ground, rules);
  const pairs = equalPairs(rules);
  const total = idle.length + pairs.length;
  let done = 0;
  const dropped: string[] = [];
  for (const { selector, media, property } of idle) {
    yield { done: done++, total };
    const without = rules.flatMap((rule): VeneerRule[] => {
      if (
        rule.selector !== selector ||
        rule.media !== media ||
        !rule.declarations.some((declaration) => declaration.property === property)
      )
        return [rule];
      const declarations = rule.declarations.filter((declaration) => declaration.property !== property);
      return declarations.length === 0 ? [] : [{ ...rule, declarations }];
    });
    if (!sameOutcome(ground, rules, without)) continue;
    rules = without;
    dropped.push(`${selector} { ${property} }`);
  }
  let merged = 0;
  for (let i = 0; i < rules.length; i += 1) {
    for (let j = i + 1; j < rules.length; j += 1) {
      if (!canStandTogether(rules[i], rules[j])) continue;
      yield { done: Math.min(total, done++), total };
      const joined = rules.flatMap((rule, at) =>
        at === j ? [] : at === i ? [{ ...rule, selector: `${rule.selector}, ${rules[j].selector}` }] : [rule],
      );
      if (!sameOutcome(ground, rules, joined)) continue;
      rules = joined;
      merged += 1;
      j -= 1;
    }
  }
  const noted = (all: readonly VeneerRule[]): VeneerRule[] => all.map((rule) => withNote(site, rule));
  const unread = ground.pages.reduce((sum, page) => sum + shortfallOf(page), 0);
  if (unread > 0)
    return { css: writeRules(noted(compiled), ground), rules: noted(compiled), dropped: [], merged: 0, unread };
  return { css: writeRules(noted(rules), ground), rules: noted(rules), dropped, merged, unread };
}

/** A rule that hides something says so in the sheet, with what is lost by it. */
function withNote(site: SiteModel, rule: VeneerRule): VeneerRule {
  const isHiding = rule.declarations.some(
    ({ property, value }) => value.kind === 'literal' && hides(property, value.css),
  );
  if (!isHiding) return rule;
  return { ...rule, note: `hides ${lostWords(lostBy(site, rule.selector))}, for screen readers and the keyboard too` };
}

/** Places of a declaration that may change nothing. */
interface Idle {
  readonly selector: string;
  readonly media: string | null;
  readonly property: string;
}

/** Declarations that nowhere win with a value the page does not have anyway; each is still to be tested by leaving it out. */
function idleDeclarations(ground: OutcomeGround, rules: readonly VeneerRule[]): Idle[] {
  const css = writeRules(rules, ground);
  const useful = new Set<string>();
  const keyOf = (selector: string, media: string | null, longhand: string): string =>
    `${media ?? ''}|${selector}|${longhand}`;
  const longhands = [
    ...new Set(
      rules.flatMap(({ declarations }) => declarations.flatMap(({ property }) => longhandsOfProperty(property))),
    ),
  ];
  const pseudos = pseudosOf(rules);
  const dressed = new Map(ground.pages.map((page) => [page, withVeneer(page, css)]));
  for (const { page, touched, states, environment, share } of outcomeSpots(ground, rules)) {
    const after = new StyleView(dressed.get(page) ?? page, { states, environment, share });
    const before = new StyleView(page, { states, environment, share });
    for (const element of touched) {
      for (const pseudo of pseudos) {
        const style = after.style(element, pseudo);
        if (!style.blocks.some(({ rule }) => rule?.sheet.name === VENEER_SHEET_NAME) && style.seen('color') === style)
          continue;
        for (const longhand of longhands) {
          const rule = style.seen(longhand).ranked(longhand)[0]?.block.rule;
          if (rule?.sheet.name !== VENEER_SHEET_NAME) continue;
          if (style.resolved(longhand) !== before.style(element, pseudo).resolved(longhand))
            useful.add(
              keyOf(rule.selectorText, rule.conditions.find(({ kind }) => kind === 'media')?.text ?? null, longhand),
            );
        }
      }
    }
  }
  return rules.flatMap(({ selector, media, supports, declarations }) =>
    declarations.flatMap(({ property }): Idle[] => {
      // An engine guard that this engine does not pass tells nothing about the engines that do.
      if (supports !== null || property.startsWith('--')) return [];
      return longhandsOfProperty(property).some((longhand) => useful.has(keyOf(selector, media, longhand)))
        ? []
        : [{ selector, media, property }];
    }),
  );
}

function equalPairs(rules: readonly VeneerRule[]): number[] {
  return rules.flatMap((rule, i) =>
    rules.slice(i + 1).flatMap((other, k) => (canStandTogether(rule, other) ? [k] : [])),
  );
}

/** Selectors that an engine may not know would take the whole list down with them. */
const UNSURE = /::-webkit-|:user-invalid|::part|:has\(/;
/** A list longer than this is no longer read at a glance. */
const MOST_SELECTORS = 8;

function canStandTogether(a: VeneerRule, b: VeneerRule): boolean {
  return (
    a.partId === b.partId &&
    a.media === b.media &&
    a.supports === null &&
    b.supports === null &&
    sameDeclarations(a.declarations, b.declarations) &&
    !UNSURE.test(a.selector) &&
    !UNSURE.test(b.selector) &&
    selectorsIn(a.selector).length + selectorsIn(b.selector).length <= MOST_SELECTORS
  );
}

function sameDeclarations(a: readonly VeneerDeclaration[], b: readonly VeneerDeclaration[]): boolean {
  return (
    a.length === b.length &&
    a.every(
      ({ property, value, important }, i) =>
        property === b[i].property &&
        important === b[i].important &&
        JSON.stringify(value) === JSON.stringify(b[i].value),
    )
  );
}
