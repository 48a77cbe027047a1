import { inner, message, type Message } from '../message/message.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import { matchesOf, type Match } from '../site/matches.js';
import { partOf, type SiteModel } from '../site/site-model.js';
import type { Override, Spot } from '../veneer/override.js';
import { colorOfValue, plainValuesIn } from '../veneer/override-value.js';
import { roleTold } from '../veneer/own-role.js';
import { houseTold } from '../veneer/house-shape.js';
import { rulesInVeneer } from '../resolve/rules-in-veneer.js';
import { ownCssProblem, type OwnCss } from '../veneer/own-css.js';
import type { Kit, KitRule } from './kit.js';
import { laidCss } from './kit-css.js';
import { classesIn } from './make-kit.js';

/** How far a kit is known again on a site. */
export interface KitFit {
  /** Where the part was found; `null` where nothing is like it. */
  readonly spot: Spot | null;
  readonly partId: number | null;
  /** Share of the kit's classes that are in what was found, 0–1. */
  readonly likeness: number;
  /** Rules that have something to match, of all. */
  readonly rules: number;
  readonly of: number;
}

/** A rule of a kit that has no place on a site. */
export interface KitMisfit {
  /** Empty for the kit's own CSS as a whole. */
  readonly selector: string;
  readonly property: string;
  readonly reason: Message;
}

/** A kit laid on a site. */
export interface LaidKit {
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  readonly misfits: readonly KitMisfit[];
  /** Rules that reach something outside of the part as well. */
  readonly wider: readonly KitMisfit[];
  /** All own CSS of the site with what the kit has of it; `null` where it has none, or none that is not there already. */
  readonly ownCss: readonly OwnCss[] | null;
}

/** A part is known again from this share of its classes on. */
export const LEAST_LIKENESS = 0.5;
const WIDTH = 1280;

/** Looks for the part that a kit was made for: where its own selector leads, else where most of its classes are. */
export function kitFit(site: SiteModel, kit: Kit): KitFit {
  const [best] = rootsOf(site, kit)
    .map((found) => ({ ...found, likeness: likenessOf(found.element, kit) }))
    .sort((a, b) => b.likeness - a.likeness);
  const rules = kit.rules.filter(({ elements, selector }) => matchesOf(site, elements ?? selector).length > 0).length;
  const isKnown = best !== undefined && best.likeness >= LEAST_LIKENESS;
  const page = best && site.pages.get(best.pageId);
  return {
    spot: isKnown ? { pageId: best.pageId, element: best.element.number } : null,
    partId: isKnown && page ? (partOf(site, page, best.element)?.id ?? null) : null,
    likeness: best?.likeness ?? 0,
    rules,
    of: kit.rules.length,
  };
}

/**
 * Lays a kit on a site, with the palette it has: each rule is planned anew, so that its selector wins there. What matches nothing, has no
 * role filled, or cannot win is listed.
 */
export function* layKitSteps(
  before: SiteModel,
  kit: Kit,
): Generator<{ readonly done: number; readonly total: number }, LaidKit> {
  let site = before;
  const put = new Map<string, Override>();
  const drop = new Set<string>();
  const misfits: KitMisfit[] = [];
  const wider: KitMisfit[] = [];
  const roots = new Set(rootsOf(site, kit).map(({ element }) => element));
  for (const [done, rule] of kit.rules.entries()) {
    yield { done, total: kit.rules.length };
    const miss = (reason: Message): void => {
      misfits.push({ selector: rule.selector, property: rule.property, reason });
    };
    const unfilled = unfilledIn(rule, site);
    if (unfilled !== null) {
      miss(unfilled);
      continue;
    }
    const matched = matchesOf(site, rule.elements ?? rule.selector);
    const [first] = matched;
    if (!first) {
      miss(message('kits.matches-nothing-pages-here'));
      continue;
    }
    const reach = reachOutside(matched, roots);
    if (reach !== null) wider.push({ selector: rule.selector, property: rule.property, reason: reach });
    const spot = { pageId: first.pageId, element: first.element.number };
    const plan = planned(site, rule, spot, matched.length);
    if (!plan.ok) {
      miss(plan.reason);
      continue;
    }
    for (const override of plan.put) put.set(override.id, override);
    for (const id of plan.drop) {
      put.delete(id);
      drop.add(id);
    }
    site = withOverrides(site, plan);
  }
  for (const id of put.keys()) drop.delete(id);
  const own = laidOwnCss(before, kit, roots);
  return {
    put: [...put.values()],
    drop: [...drop],
    misfits: [...misfits, ...own.misfits],
    wider: [...wider, ...own.wider],
    ownCss: own.ownCss,
  };
}

/** How far matches reach out of the part, in words; `null` where they do not, or where it is not known again. */
function reachOutside(matched: readonly Match[], roots: ReadonlySet<ElementNode>): Message | null {
  const outside = matched.filter(({ element }) => !lineageOf(element).some((node) => roots.has(node)));
  return roots.size > 0 && outside.length > 0
    ? message('kits.reaches-outside-part', { outside: outside.length })
    : null;
}

/** The site's own CSS with the kit's in the section of the part; colours of roles that are not filled here keep all of it out. */
function laidOwnCss(
  site: SiteModel,
  kit: Kit,
  roots: ReadonlySet<ElementNode>,
): Pick<LaidKit, 'ownCss' | 'misfits' | 'wider'> {
  const nothing = { ownCss: null, misfits: [], wider: [] };
  if (kit.ownCss === undefined || kit.ownCss === '') return nothing;
  const miss = (reason: Message, selector = ''): KitMisfit => ({ selector, property: '', reason });
  const { css, unfilled } = laidCss(kit.ownCss, site);
  const problem = ownCssProblem(css);
  if (problem !== null) return { ...nothing, misfits: [miss(message('kits.none-laid', { problem }))] };
  if (unfilled.length > 0) return { ...nothing, misfits: [miss(message('kits.no-swatch-fills-here', { unfilled }))] };
  const [misfits, wider]: KitMisfit[][] = [[], []];
  for (const { selectorText } of rulesInVeneer(css)) {
    const matched = matchesOf(site, selectorText);
    const reach = reachOutside(matched, roots);
    if (matched.length === 0) misfits.push(miss(message('kits.own-css-matches-nothing'), selectorText));
    else if (reach !== null) wider.push(miss(message('kits.own-css-reaching', { reach }), selectorText));
  }
  const { partId } = kitFit(site, kit);
  const [own, others] = [
    site.ownCss.filter((other) => other.partId === partId),
    site.ownCss.filter((other) => other.partId !== partId),
  ];
  const before = own.map((other) => other.css).join('\n');
  if (before.includes(css)) return { ownCss: null, misfits, wider };
  return { ownCss: [...others, { partId, css: before === '' ? css : `${before}\n${css}` }], misfits, wider };
}

function planned(site: SiteModel, rule: KitRule, spot: Spot, matches: number): ReturnType<typeof planOverride> {
  const { elements, selector, pseudo, state, property, value, important, widths } = rule;
  if (elements !== null)
    return planOverride(site, {
      ...spot,
      pseudo,
      state,
      property,
      value,
      widths,
      width: WIDTH,
      ...(matches === 1 ? { reach: 'one' as const } : { reach: 'group' as const, group: elements }),
    });
  // What hangs on another element is kept as it was written.
  const override: Override = {
    ...spot,
    id: `kit ${selector} ${property} ${widths?.min ?? ''} ${widths?.max ?? ''}`.slice(0, 80),
    partId: null,
    pseudo,
    reach: 'alike',
    state,
    property,
    value,
    selector,
    important,
    isByHand: true,
    ...(widths ? { widths } : {}),
  };
  return { ok: true, put: [override], drop: [], specificity: [0, 0, 0] };
}

/** What of a rule's value the palette here does not have; `null` for nothing. */
function unfilledIn({ value }: KitRule, { palette }: SiteModel): Message | null {
  if (value.kind === 'house')
    return palette.shape?.[value.part] ? null : message('kits.house-has-no-here', { part: houseTold(value.part) });
  const role = plainValuesIn(value).find((plain) => plain.kind === 'role' && !colorOfValue(plain, palette));
  return role?.kind === 'role' ? message('kits.no-swatch-fills-role', { role: inner(roleTold(role.role)) }) : null;
}

/** Elements that may be the part: where the kit's own selector leads, else those that bear a class of its root. */
function rootsOf(site: SiteModel, kit: Kit): Match[] {
  const own = matchesOf(site, kit.root);
  if (own.some(({ element }) => likenessOf(element, kit) >= LEAST_LIKENESS)) return own;
  const [lead] = kit.classes;
  return lead === undefined ? [] : matchesOf(site, `.${CSS_NAME.test(lead) ? lead : 'x'}`);
}

/** Class names that need no escape in a selector. */
const CSS_NAME = /^-?[a-z_][\w-]*$/i;

function likenessOf(element: ElementNode, { classes }: Kit): number {
  if (classes.length === 0) return 0;
  const here = new Set(classesIn(element));
  return classes.filter((name) => here.has(name)).length / classes.length;
}
