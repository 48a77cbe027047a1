import { isMessage, message, type Message } from '../message/message.js';
import { OVERRIDABLE } from '../grid/rows.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchesOf, type Match } from '../site/matches.js';
import { compileOptionsOf, partOf, type SiteModel } from '../site/site-model.js';
import type { DeclarationNode } from '../syntax/nodes.js';
import { cssOfValue } from '../veneer/custom-property.js';
import type { Override, Spot } from '../veneer/override.js';
import { isScrollbarPart } from '../veneer/scrollbars.js';
import { valueProblem } from '../veneer/value-problem.js';
import { writtenValue } from '../veneer/written-value.js';
import { changingIn, selectorTargets, type SelectorTarget } from './selector-target.js';
import type { SheetItem } from './sheet-items.js';
import { writtenConditions } from './written-widths.js';

/** A rule as overrides, or why none stand for it. */
export type RuleAsOverrides =
  | {
      readonly ok: true;
      readonly overrides: readonly Override[];
      /** Declarations that no override can say, and why of the first. */
      readonly rest: readonly DeclarationNode[];
      readonly reason: Message | null;
    }
  | { readonly ok: false; readonly reason: Message };

/** Longest selector that gathers a group, UTF-16 units. */
const LONGEST_GROUP = 600;

/** What a written rule is read by. */
export interface RuleReading {
  readonly site: SiteModel;
  /** Section it stands in; `undefined` where it stands before all of them. */
  readonly section: number | null | undefined;
  /** Overrides of the rule it stands in place of; empty for a new one. */
  readonly base: readonly Override[];
  /** Gives ids that no override has. */
  readonly newId: () => string;
}

/** Reads a rule as the overrides that compile to it. What stays as it was keeps its override whole. */
export function ruleAsOverrides(item: SheetItem, reading: RuleReading): RuleAsOverrides {
  const no = (reason: Message): RuleAsOverrides => ({ ok: false, reason });
  if (item.beyond !== null) return no(item.beyond);
  if (item.declarations.length === 0) return no(message('sheet.says-nothing'));
  const conditions = writtenConditions(item.within);
  if (typeof conditions === 'string') return no(message('sheet.stands-under', { conditions }));
  const problem = selectorProblem(item.selector);
  if (problem !== null) return no(message('sheet.dropped-selector', { problem }));
  const { values, rest, reason } = readDeclarations(item.declarations, reading);
  if (values.length === 0) return no(reason ?? message('sheet.says-nothing'));
  const targets = targetsOf(item.selector, reading);
  if (isMessage(targets)) return no(targets);
  const overrides: Override[] = [];
  for (const target of targets) {
    const isHover = target.state === 'hover' || target.state === 'parent-hover';
    if (isHover && (reading.site.source.hoverOnly ?? false) !== conditions.isHoverOnly)
      return no(message(conditions.isHoverOnly ? 'sheet.hover-only' : 'sheet.hover-without'));
    if (!isHover && conditions.isHoverOnly) return no(message('sheet.hover-only'));
    const made = overridesFor(target, values, conditions.widths, reading);
    if (isMessage(made)) return no(made);
    overrides.push(...made);
  }
  return { ok: true, overrides, rest, reason };
}

type ReadValue = Pick<Override, 'property' | 'value' | 'important'>;

/** Declarations as overrides have them, and those that none can have, with the reason of the first. */
function readDeclarations(
  declarations: readonly DeclarationNode[],
  { site, base }: RuleReading,
): { readonly values: ReadValue[]; readonly rest: DeclarationNode[]; readonly reason: Message | null } {
  const options = compileOptionsOf(site);
  const values: ReadValue[] = [];
  const rest: DeclarationNode[] = [];
  let reason: Message | null = null;
  const read = ({ name, value: css, important }: DeclarationNode): ReadValue | Message => {
    if (declarations.filter((other) => other.name === name).length > 1) return message('sheet.says-twice', { name });
    if (!OVERRIDABLE.has(name) && !name.startsWith('--')) return message('sheet.no-override-can', { name });
    const old = base.findLast(({ property }) => property === name);
    const isSame = old && cssOfValue(old.value, site.palette, options) === css;
    const value = isSame ? old.value : writtenValue(css, site.palette, options);
    if (!value) return message('sheet.own-way', { name });
    const problem = valueProblem(name, value, site.palette);
    return problem === null ? { property: name, value, important } : message('plain', { text: problem });
  };
  for (const declaration of declarations) {
    const value = read(declaration);
    if (!isMessage(value)) values.push(value);
    else {
      reason ??= value;
      rest.push(declaration);
    }
  }
  return { values, rest, reason };
}

/** What a selector asks for; one that asks as the rule before it did keeps that one's state, whatever it hangs on. */
function targetsOf(selector: string, { base }: RuleReading): readonly SelectorTarget[] | Message {
  const [lead] = base;
  if (lead && changingIn(lead.selector).join() === changingIn(selector).join()) {
    const kept: SelectorTarget = { elements: selector, pseudo: lead.pseudo, state: lead.state, selector };
    if (lead.selector === selector) return [kept];
    const targets = selectorTargets(selector);
    if (isMessage(targets)) return [kept];
    return targets.length === 1 && targets[0].pseudo === lead.pseudo ? [{ ...targets[0], state: lead.state }] : targets;
  }
  return selectorTargets(selector);
}

function overridesFor(
  target: SelectorTarget,
  values: readonly ReadValue[],
  widths: Override['widths'],
  { site, section, base, newId }: RuleReading,
): Override[] | Message {
  const [lead] = base;
  const isSame = lead?.selector === target.selector;
  const matches = isSame ? [] : matchesOf(site, target.elements).map(spotOf);
  if (!isSame && matches.length === 0) return message('sheet.matches-nothing');
  if (!isSame && target.elements.length > LONGEST_GROUP) return message('sheet.too-long');
  if (!isSame && isScrollbarPart(target.pseudo)) return message('sheet.scrollbar-part');
  const spot =
    matches.find(({ pageId, element }) => pageId === lead?.pageId && element === lead.element) ?? matches.at(0);
  const partId = section === undefined ? (spot ? partAt(site, spot) : null) : section;
  return values.map(({ property, value, important }): Override => {
    const old = base.findLast((override) => override.property === property);
    const shared = {
      property,
      value,
      important,
      partId,
      ...(widths || old?.widths ? { widths } : {}),
      id: old?.id ?? newId(),
    };
    if (old && isSame) return { ...old, ...shared };
    if (isSame && lead) {
      // What these say is of one property alone.
      const like = { ...lead, meant: null, through: null };
      return { ...like, ...shared };
    }
    return {
      ...shared,
      pageId: spot?.pageId ?? 0,
      element: spot?.element ?? 0,
      pseudo: target.pseudo,
      state: target.state,
      selector: target.selector,
      isByHand: true,
      ...reachOf(target, matches, old ?? lead),
    };
  });
}

/** How far a selector written by hand reaches: what it matches is what is meant. */
function reachOf(
  { elements, state }: SelectorTarget,
  matches: readonly Spot[],
  kept: Override | undefined,
): Pick<Override, 'reach' | 'group' | 'parent'> {
  const parent = kept?.state === state ? kept.parent : null;
  // What hangs on another element's state is gathered as it was.
  if (kept && changingIn(elements).length > 0) return { reach: kept.reach, group: kept.group, parent };
  return matches.length === 1 ? { reach: 'one', parent } : { reach: 'group', group: elements, parent };
}

function spotOf({ pageId, element }: Match): Spot {
  return { pageId, element: element.number };
}

function partAt(site: SiteModel, { pageId, element }: Spot): number | null {
  const page = site.pages.get(pageId);
  const node = page?.document.elements[element];
  return page && node ? (partOf(site, page, node)?.id ?? null) : null;
}
