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
import { widthsThatMatter } from './breakpoints.js';
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
/** Most elements of a finding that are handed over to be outlined; all are counted. */
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

/** How far a check is. */
export interface VerdictProgress {
  readonly page: number;
  readonly pages: number;
}

/** Checks an override where it stands, at one go. */
export function judgeOverride(site: SiteModel, override: Override, width: number): Finding[] {
  const steps = judgeSteps(site, override, width);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/**
 * Checks an override where it stands, page by page. Everything it can touch, on every page, in every state that applies and
 * at every width that a breakpoint sets apart for it, is resolved with it and without it, and compared.
 * @param width viewport width the page is shown at, CSS px.
 */
export function* judgeSteps(site: SiteModel, override: Override, width: number): Generator<VerdictProgress, Finding[]> {
  const page = pageOf(site, override.pageId);
  const element = elementOf(page, override.element);
  const without = dressSite(site, site.overrides.filter(({ id }) => id !== override.id), site.palette);
  const effects = yield* effectsOf(site, without, override);
  const places = effects.reached + effects.missed.length;
  const { states, widths } = effects;
  const over = `in ${states.length} ${states.length === 1 ? 'state' : 'states'}, at ${widths.join(', ')} px${widths.length === 1 ? ', the widths at which no rule of the site makes a difference to it left out' : ''}`;
  const findings: Finding[] = [
    { standing: effects.missed.length === 0 ? 'holds' : 'fails', text: `reaches ${effects.reached} of ${places}`, basis: `${places} elements on all pages, in state ${STATE_WORDS[override.state].toLowerCase()}, at ${widths.join(', ')} px: the override decides, and its value shows.`, spots: effects.missed.slice(0, MOST_SPOTS) },
    { standing: effects.spill.length === 0 ? 'holds' : 'fails', text: effects.spill.length === 0 ? 'no spill' : `spills to ${effects.spill.length}`, basis: `${effects.elements} elements that the rule can touch, ${over}: ${effects.compared} comparisons with and without the override. Nothing else can change.`, spots: effects.spill.slice(0, MOST_SPOTS) },
  ];
  const look = isInRange(width, override.widths) ? width : widths[0];
  const parent = override.parent == null ? null : elementOf(page, override.parent);
  const view = viewIn(page, element, override.state, look, parent);
  const style = view.style(element, override.pseudo);
  findings.push(...contrastFinding(view, style, override));
  const [longhand] = longhandsOfProperty(override.property);
  if (longhand === 'background-color') findings.push(...clearingOf(style, override, look));
  if (override.property === 'display' && style.resolved('display') === 'none') findings.push(hidingFinding(element));
  findings.push(...stateFindings(site, without, override, element, look));
  return findings;
}

function contrastFinding(view: StyleView, style: ElementStyle, { state, pseudo }: Override): Finding[] {
  if (!showsText(style) || pseudo.startsWith('-webkit-')) return [];
  const { ratio } = surroundingsOf(view, style.element, pseudo);
  const bar = wantedRatio(style);
  const isAsked = state !== 'disabled';
  return [{
    standing: isAsked && ratio < bar ? 'fails' : 'holds', text: `${(Math.floor(ratio * 10) / 10).toFixed(1)} : 1`,
    basis: `Contrast of the text with what lies under it in state ${STATE_WORDS[state].toLowerCase()}; ${isAsked ? `${bar} : 1 is asked` : 'WCAG 2.2 asks none of a control that is off'}.`,
  }];
}

/** One page of the comparison, and what it adds up to. */
interface Tally {
  readonly missed: Map<string, Spot>;
  readonly spill: Map<string, Spot>;
  readonly states: Set<OverrideState>;
  reached: number;
  compared: number;
  elements: number;
}

/** What an override sets, and what follows from it. */
interface Watch {
  readonly longhands: readonly string[];
  readonly watched: readonly string[];
  readonly isInherited: boolean;
  readonly wantedText: string | null;
  readonly widths: readonly number[];
}

function* effectsOf(site: SiteModel, without: SiteModel, override: Override): Generator<VerdictProgress, Effects> {
  const targets = override.isByHand ? null : placesOf(site, override);
  const longhands = longhandsOfProperty(override.property);
  const watched = [...new Set([...longhands, ...longhands.flatMap((longhand) => FOLLOWERS[longhand] ?? [])])];
  const wanted = colorOfValue(override.value, site.palette);
  const watch: Watch = {
    longhands, watched, isInherited: longhands.some((longhand) => longhand.startsWith('--') || (LONGHANDS.get(longhand)?.inherited ?? false)), wantedText: wanted ? serializeColor(wanted) : null,
    // A range of widths makes a breakpoint of its own.
    widths: [...new Set([...widthsThatMatter(site, watched), ...(override.widths ? widthsThatMatter(site, watched, override.widths) : [])])],
  };
  const tally: Tally = { missed: new Map(), spill: new Map(), states: new Set([override.state]), reached: 0, compared: 0, elements: 0 };
  let done = 0;
  for (const [pageId, after] of site.pages) {
    comparePage(pageId, after, pageOf(without, pageId), override, targets?.filter((place) => place.page === after) ?? null, watch, tally);
    done += 1;
    yield { page: done, pages: site.pages.size };
  }
  const { missed, spill, states, reached, compared, elements } = tally;
  return { reached, missed: [...missed.values()], spill: [...spill.values()], compared, elements, states: OVERRIDE_STATES.filter((state) => states.has(state)), widths: watch.widths.filter((width) => isInRange(width, override.widths)) };
}

function comparePage(pageId: number, after: Page, before: Page, override: Override, own: readonly Place[] | null, { longhands, watched, isInherited, wantedText, widths }: Watch, tally: Tally): void {
  const { hits, touched } = touchedOn(after, [override.selector], (own ?? []).map((place) => place.element));
  if (touched.length === 0) return;
  tally.elements += touched.length;
  const wantedHere: readonly Place[] = (own ?? [...hits].map((element) => ({ page: after, element }))).filter(({ element }) => canBeIn(element, override.state, override.pseudo));
  const targetSet = new Set([...own ?? [], ...wantedHere].map((place) => place.element));
  for (const hit of hits) for (const state of applicableStates(hit, override.pseudo)) tally.states.add(state);
  const groups = [...tally.states].map((state) => ({ state, states: state === override.state ? statesTogether(wantedHere, state) : statesTogether([...hits].map((element) => ({ page: after, element })), state) }));
  for (const width of widths) {
    for (const group of groups) {
      const viewAfter = new StyleView(after, { states: group.states, environment: { width } });
      const viewBefore = new StyleView(before, { states: group.states, environment: { width } });
      for (const element of touched) {
        if (targetSet.has(element) ? !isOthersChange(override) : isInherited && isUnder(element, targetSet)) continue;
        tally.compared += 1;
        const [a, b] = [viewAfter.style(element), viewBefore.style(element)];
        if (watched.some((name) => a.resolved(name) !== b.resolved(name))) tally.spill.set(`${pageId}/${element.number}`, { pageId, element: element.number });
      }
      if (group.state !== override.state || !isInRange(width, override.widths)) continue;
      for (const { element } of wantedHere) {
        if (!takesHold(viewAfter.style(element, override.pseudo), override, longhands, wantedText)) tally.missed.set(`${pageId}/${element.number}`, { pageId, element: element.number });
      }
    }
  }
  tally.reached += wantedHere.filter(({ element }) => !tally.missed.has(`${pageId}/${element.number}`)).length;
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
