import type { ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../color/backdrop.js';
import { applicableStates, canBeIn } from '../grid/applicable-states.js';
import { STATE_WORDS } from '../grid/rows.js';
import { LONGHANDS } from '../properties/longhands.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { statesTogether, type Place } from '../reach/threshold.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { pointerStates } from '../resolve/pointer-states.js';
import { StyleView } from '../resolve/style-view.js';
import { serializeColor } from '../values/serialize-color.js';
import { OVERRIDE_STATES, type Override, type OverrideState, type Spot } from '../veneer/override.js';
import { isInRange } from '../veneer/media.js';
import { colorOfValue } from '../veneer/override-value.js';
import { breakpointsOfSite, widthsToCheck } from './breakpoints.js';
import type { Finding } from './finding.js';
import { isBrandColor } from './brand-color.js';
import { clearingOf, hiddenStateFinding, leftBehindFinding } from './repairs.js';
import { placesOf } from './places.js';
import { dressSite, elementOf, pageOf, viewIn, type SiteModel } from './site-model.js';
import { showsText, wantedRatio } from './text-figures.js';
import { touchedOn } from './touched.js';

/** Longhands that follow another where nothing else is said: the text colour gives its own to many, the font size its measure. */
const FOLLOWERS: Readonly<Record<string, readonly string[]>> = {
  color: [...LONGHANDS].filter(([, { initial }]) => initial === 'currentcolor').map(([name]) => name).concat('caret-color', 'outline-color', 'box-shadow', 'text-shadow', 'fill', 'stroke'),
  'font-size': ['line-height', 'letter-spacing', 'padding-top', 'padding-right', 'padding-bottom', 'padding-left', 'width', 'max-width', 'border-top-width'],
};
const MOST_SPOTS = 200;

/** What a change does to the whole site. */
interface Effects {
  readonly reached: number;
  readonly missed: readonly Spot[];
  readonly spill: readonly Spot[];
  readonly compared: number;
  readonly elements: number;
  readonly states: readonly OverrideState[];
  readonly widths: readonly number[];
}

/**
 * Checks an override where it stands. Everything it can touch, on every page, in every state that applies and at every
 * width that a breakpoint sets apart, is resolved with it and without it, and compared.
 * @param width viewport width the page is shown at, CSS px.
 */
export function judgeOverride(site: SiteModel, override: Override, width: number): Finding[] {
  const page = pageOf(site, override.pageId);
  const element = elementOf(page, override.element);
  const without = dressSite(site, site.overrides.filter(({ id }) => id !== override.id), site.palette);
  const effects = effectsOf(site, without, override);
  const places = effects.reached + effects.missed.length;
  const over = `in ${effects.states.length} ${effects.states.length === 1 ? 'state' : 'states'}, at ${effects.widths.join(', ')} px`;
  const findings: Finding[] = [
    { standing: effects.missed.length === 0 ? 'holds' : 'fails', text: `reaches ${effects.reached} of ${places}`, basis: `${places} elements on all pages, in state ${STATE_WORDS[override.state].toLowerCase()}, at ${effects.widths.join(', ')} px: the override decides, and its value shows.`, spots: effects.missed },
    { standing: effects.spill.length === 0 ? 'holds' : 'fails', text: effects.spill.length === 0 ? 'no spill' : `spills to ${effects.spill.length}`, basis: `${effects.elements} elements that the rule can touch, ${over}: ${effects.compared} comparisons with and without the override. Nothing else can change.`, spots: effects.spill },
  ];
  const look = isInRange(width, override.widths) ? width : effects.widths[0];
  const parent = override.parent == null ? null : elementOf(page, override.parent);
  const view = viewIn(page, element, override.state, look, parent);
  const style = view.style(element, override.pseudo);
  if (showsText(style) && !override.pseudo.startsWith('-webkit-')) {
    const { ratio } = surroundingsOf(view, element, override.pseudo);
    const bar = wantedRatio(style);
    findings.push({ standing: ratio < bar ? 'fails' : 'holds', text: `${(Math.floor(ratio * 10) / 10).toFixed(1)} : 1`, basis: `Contrast of the text with what lies under it in state ${override.state}; ${bar} : 1 is asked.` });
  }
  const [longhand] = longhandsOfProperty(override.property);
  if (longhand === 'background-color') findings.push(...clearingOf(style, override, look));
  if (override.property === 'display' && style.resolved('display') === 'none') findings.push(hidingFinding(element));
  findings.push(...stateFindings(site, without, override, element, look));
  return findings;
}

function effectsOf(site: SiteModel, without: SiteModel, override: Override): Effects {
  const targets = override.isByHand ? null : placesOf(site, override);
  const longhands = longhandsOfProperty(override.property);
  const watched = [...new Set([...longhands, ...longhands.flatMap((longhand) => FOLLOWERS[longhand] ?? [])])];
  const isInherited = longhands.some((longhand) => longhand.startsWith('--') || (LONGHANDS.get(longhand)?.inherited ?? false));
  const wanted = colorOfValue(override.value, site.palette);
  const wantedText = wanted ? serializeColor(wanted) : null;
  const widths = widthsToCheck(breakpointsOfSite(site));
  const missed = new Map<string, Spot>();
  const spill = new Map<string, Spot>();
  const states = new Set<OverrideState>([override.state]);
  let reached = 0;
  let compared = 0;
  let elements = 0;
  for (const [pageId, after] of site.pages) {
    const before = pageOf(without, pageId);
    const own = targets?.filter((place) => place.page === after) ?? [];
    const { hits, touched } = touchedOn(after, [override.selector], own.map((place) => place.element));
    if (touched.length === 0) continue;
    elements += touched.length;
    const wantedHere: readonly Place[] = (targets ? own : [...hits].map((element) => ({ page: after, element }))).filter(({ element }) => canBeIn(element, override.state, override.pseudo));
    const targetSet = new Set([...own, ...wantedHere].map((place) => place.element));
    for (const hit of hits) for (const state of applicableStates(hit, override.pseudo)) states.add(state);
    const groups = [...states].map((state) => ({ state, states: state === override.state ? statesTogether(wantedHere, state) : statesTogether([...hits].map((element) => ({ page: after, element })), state) }));
    for (const width of widths) {
      for (const group of groups) {
        const viewAfter = new StyleView(after, { states: group.states, environment: { width } });
        const viewBefore = new StyleView(before, { states: group.states, environment: { width } });
        for (const element of touched) {
          if (targetSet.has(element) ? !isOthersChange(override) : isInherited && isUnder(element, targetSet)) continue;
          compared += 1;
          const a = viewAfter.style(element);
          const b = viewBefore.style(element);
          if (a.identity !== b.identity && watched.some((name) => a.resolved(name) !== b.resolved(name))) spill.set(`${pageId}/${element.number}`, { pageId, element: element.number });
        }
        if (group.state !== override.state || !isInRange(width, override.widths)) continue;
        for (const { element } of wantedHere) {
          const spot = { pageId, element: element.number };
          if (!takesHold(viewAfter.style(element, override.pseudo), override, longhands, wantedText)) missed.set(`${pageId}/${element.number}`, spot);
        }
      }
    }
    reached += wantedHere.filter(({ element }) => !missed.has(`${pageId}/${element.number}`)).length;
  }
  return { reached, missed: [...missed.values()].slice(0, MOST_SPOTS), spill: [...spill.values()].slice(0, MOST_SPOTS), compared, elements, states: OVERRIDE_STATES.filter((state) => states.has(state)), widths: widths.filter((width) => isInRange(width, override.widths)) };
}

/** Whether what shows on a target itself could still be a change nobody meant: an override of a pseudo-element leaves its element alone. */
function isOthersChange(override: Override): boolean {
  return override.pseudo !== '';
}

function takesHold(style: ElementStyle, override: Override, longhands: readonly string[], wantedText: string | null): boolean {
  if (override.property.startsWith('--')) return isVeneered(style, override.property);
  return longhands.every((longhand) => isVeneered(style, longhand) && (wantedText === null || style.resolved(longhand) === wantedText));
}

function isVeneered(style: ElementStyle, property: string): boolean {
  return style.seen(property).ranked(property)[0]?.block.rule?.sheet.name === VENEER_SHEET_NAME;
}

function isUnder(element: ElementNode, targets: ReadonlySet<ElementNode>): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (targets.has(node)) return true;
  return false;
}

/** States of the target that the override covers, or leaves as the theme has them. */
function stateFindings(site: SiteModel, without: SiteModel, override: Override, element: ElementNode, width: number): Finding[] {
  const page = pageOf(site, override.pageId);
  const bare = pageOf(without, override.pageId);
  const [longhand] = longhandsOfProperty(override.property);
  if (longhand.startsWith('--')) return [];
  const styleIn = (on: Page, state: OverrideState): ElementStyle => new StyleView(on, { states: pointerStates(on.document, element, state), environment: { width } }).style(element, override.pseudo);
  const restBefore = styleIn(bare, 'rest').resolved(longhand);
  const now = styleIn(page, override.state).resolved(longhand);
  return applicableStates(element, override.pseudo).flatMap((state): Finding[] => {
    if (state === override.state) return [];
    const after = styleIn(page, state);
    const before = styleIn(bare, state).resolved(longhand);
    const hadOwn = before !== restBefore;
    const value = after.resolved(longhand);
    if (override.state === 'rest' && hadOwn && value === now && isVeneered(after, longhand)) return [hiddenStateFinding(site, override, state, before, width)];
    const color = after.color(longhand);
    const isPaint = color !== null && (color.alpha ?? 0) > 0;
    if (isPaint && value !== now && !isVeneered(after, longhand) && !isBrandColor(color, site.palette)) return [leftBehindFinding(site, override, state, color, width)];
    return [];
  });
}

/** What goes when an element is hidden. */
function hidingFinding(element: ElementNode): Finding {
  const controls: string[] = [];
  const walk = (node: ElementNode): void => {
    if (['a', 'button', 'input', 'select', 'textarea', 'form'].includes(node.localName)) controls.push(node.localName);
    node.children.forEach(walk);
  };
  walk(element);
  return {
    standing: controls.length > 0 ? 'fails' : 'look', text: controls.length > 0 ? `hides ${controls.length} that people use` : 'hidden from everyone',
    basis: `display: none also takes it from screen readers and the keyboard${controls.length > 0 ? `; in it: ${[...new Set(controls)].join(', ')}` : ''}.`,
  };
}
