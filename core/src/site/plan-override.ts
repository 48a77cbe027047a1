import { surroundingsOf } from '../color/backdrop.js';
import { describeShade } from '../color/shade.js';
import type { ElementNode } from '../dom/tree.js';
import { writeSelector } from '../reach/write-selector.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { pointerStates } from '../resolve/pointer-states.js';
import type { Specificity } from '../selectors/selector.js';
import { serializeColor } from '../values/serialize-color.js';
import { OVERRIDE_STATES, type Override, type OverrideState, type Reach } from '../veneer/override.js';
import { colorOfValue, type OverrideValue } from '../veneer/palette.js';
import { isBrandColor, longhandsOf, statesOf, type GridRowName } from './inspect.js';
import type { Standing } from './standing.js';
import { dressSite, elementOf, pageOf, partOf, placesInReach, viewIn, type SiteModel } from './site-model.js';
import { showsText, wantedRatio } from './text-figures.js';

/** What the designer asks for. */
export interface OverrideWish {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly reach: Reach;
  readonly state: OverrideState;
  readonly row: GridRowName;
  readonly value: OverrideValue;
  readonly width: number;
}

/** What is to be written, or why it cannot be. */
export type OverridePlan =
  | { readonly ok: true; readonly put: readonly Override[]; readonly drop: readonly string[]; readonly specificity: Specificity }
  | { readonly ok: false; readonly reason: string };

/** Plans the overrides that fulfil a wish: their selector wins on every target. */
export function planOverride(site: SiteModel, wish: OverrideWish): OverridePlan {
  const page = pageOf(site, wish.pageId);
  const element = elementOf(page, wish.element);
  const style = viewIn(page, element, wish.state, wish.width).style(element, wish.pseudo);
  const longhands = longhandsOf(wish.row, style);
  // Four sides of one colour are written as one; fewer are written side by side, so that the others keep theirs.
  const properties = wish.row === 'edge' && longhands.length === 4 ? ['border-color'] : longhands;
  const before = sameTarget(site, wish, element);
  const drop = before.filter(({ property, state }) => state === wish.state && (properties.includes(property) || isRowProperty(wish.row, property)));
  const targets = placesInReach(site, wish.pageId, element, wish.reach);
  const written = writeSelector({
    lead: { page, element }, targets, pages: [...site.pages.values()], everywhere: wish.reach === 'everywhere', pseudo: wish.pseudo, state: wish.state, longhands,
    isReplaced: (selector) => drop.some((override) => override.selector.split(', ').includes(selector)),
    // Rules of one element stand together in the order of their states.
    isWrittenBefore: (selector) => site.overrides.some((override) => override.selector.split(', ').includes(selector) && override.pageId === wish.pageId && override.element === wish.element
      && override.pseudo === wish.pseudo && override.reach === wish.reach && OVERRIDE_STATES.indexOf(override.state) < OVERRIDE_STATES.indexOf(wish.state)),
    environment: { width: wish.width },
  });
  if (!written.ok) return written;
  const partId = partOf(site, page, element)?.id ?? null;
  const put = properties.map((property): Override => ({
    id: drop.find((override) => override.property === property)?.id ?? `${wish.pageId}-${wish.element}-${wish.pseudo || 'element'}-${wish.reach}-${wish.state}-${property}`,
    partId: wish.reach === 'everywhere' ? null : partId,
    pageId: wish.pageId, element: wish.element, pseudo: wish.pseudo, reach: wish.reach, state: wish.state, property, value: wish.value,
    selector: written.selector, important: written.important,
  }));
  return { ok: true, put, drop: drop.filter(({ id }) => !put.some((override) => override.id === id)).map(({ id }) => id), specificity: written.specificity };
}

/** Overrides already made for the same thing: the same element, or one alike it for a wider reach. */
function sameTarget(site: SiteModel, wish: OverrideWish, element: ElementNode): Override[] {
  return site.overrides.filter((override) => {
    if (override.pseudo !== wish.pseudo) return false;
    if (override.pageId === wish.pageId && override.element === wish.element) return true;
    if (override.reach === 'one') return false;
    const page = site.pages.get(override.pageId);
    const made = page?.document.elements[override.element];
    if (!made || override.reach !== wish.reach) return false;
    return placesInReach(site, override.pageId, made, override.reach).some((place) => place.element === element);
  });
}

function isRowProperty(row: GridRowName, property: string): boolean {
  return row === 'text' ? property === 'color' : row === 'fill' ? property === 'background-color' : /^border-(?:(?:top|right|bottom|left)-)?color$/.test(property);
}

/** Overrides that decide one cell. */
export function overridesOfCell(site: SiteModel, wish: Pick<OverrideWish, 'pageId' | 'element' | 'pseudo' | 'state' | 'row'>): Override[] {
  const element = elementOf(pageOf(site, wish.pageId), wish.element);
  return site.overrides.filter((override) => {
    if (override.pseudo !== wish.pseudo || override.state !== wish.state || !isRowProperty(wish.row, override.property)) return false;
    const page = site.pages.get(override.pageId);
    const made = page?.document.elements[override.element];
    if (!made) return false;
    return (override.pageId === wish.pageId && override.element === wish.element) || placesInReach(site, override.pageId, made, override.reach).some((place) => place.element === element);
  });
}

/** One line of the verdict. */
export interface Finding {
  readonly standing: Standing;
  readonly text: string;
  /** What it was computed from. */
  readonly basis: string;
}

/**
 * Checks an override where it stands: the site is resolved with and without it, every element of every page in the
 * override's state compared.
 */
export function judgeOverride(site: SiteModel, override: Override, width: number): Finding[] {
  const page = pageOf(site, override.pageId);
  const element = elementOf(page, override.element);
  const targets = placesInReach(site, override.pageId, element, override.reach);
  const without = dressSite(site, site.overrides.filter(({ id }) => id !== override.id), site.palette);
  const wanted = colorOfValue(override.value, site.palette);
  const wantedText = wanted ? serializeColor(wanted) : null;
  const targetSet = new Set(targets.map((place) => place.element));
  const longhand = override.property === 'border-color' ? 'border-top-color' : override.property;
  let reached = 0;
  for (const place of targets) {
    const style = viewIn(place.page, place.element, override.state, width).style(place.element, override.pseudo);
    if (wantedText === null || style.resolved(longhand) === wantedText) reached += 1;
  }
  let spill = 0;
  let compared = 0;
  for (const [id, after] of site.pages) {
    const before = pageOf(without, id);
    const targetsHere = targets.filter((place) => place.page === after);
    const states = statesTogether(after, targetsHere.map((place) => place.element), override.state);
    const viewAfter = new StyleView(after, { states, environment: { width } });
    const viewBefore = new StyleView(before, { states, environment: { width } });
    for (const node of after.document.elements) {
      if (isUnder(node, targetSet)) continue;
      compared += 1;
      if (viewAfter.style(node).resolved(longhand) !== viewBefore.style(node).resolved(longhand)) spill += 1;
    }
  }
  const surroundings = surroundingsOf(viewIn(page, element, override.state, width), element, override.pseudo);
  const ratio = surroundings.ratio;
  const pages = new Set(targets.map((place) => place.page)).size;
  const findings: Finding[] = [
    {
      standing: reached === targets.length ? 'holds' : 'fails',
      text: `reaches ${reached} of ${targets.length}`,
      basis: `${targets.length} elements on ${pages} pages resolved in state ${override.state} at ${width} px; specificity of the rule is what it takes.`,
    },
    { standing: spill === 0 ? 'holds' : 'fails', text: spill === 0 ? 'no spill' : `spills to ${spill}`, basis: `${longhand} of ${compared} other elements compared with and without the override.` },
  ];
  const style = viewIn(page, element, override.state, width).style(element, override.pseudo);
  if (showsText(style)) {
    const bar = wantedRatio(style);
    findings.push({ standing: ratio < bar ? 'fails' : 'holds', text: `${(Math.floor(ratio * 10) / 10).toFixed(1)} : 1`, basis: `Contrast of the text with what lies under it in state ${override.state}; ${bar} : 1 is asked.` });
  }
  const image = style.computed('background-image');
  if (longhand === 'background-color' && image.kind === 'text' && image.text !== 'none') {
    findings.push({ standing: 'look', text: 'a gradient or picture covers this fill', basis: image.text });
  }
  for (const state of statesOf(element)) {
    if (state === override.state) continue;
    const other = viewIn(page, element, state, width).style(element, override.pseudo);
    const color = other.color(longhand);
    if (color && (color.alpha ?? 0) > 0 && other.resolved(longhand) !== style.resolved(longhand) && !isBrandColor(color, site.palette) && !isVeneered(other, longhand)) {
      findings.push({ standing: 'look', text: `${STATE_WORDS[state]} still ${serializeColor(color)}`, basis: `In state ${state} a declaration of the page still decides ${longhand}.` });
    }
  }
  return findings;
}

const STATE_WORDS: Readonly<Record<OverrideState, string>> = { rest: 'rest', visited: 'visited', hover: 'hover', focus: 'focus', active: 'pressed' };

function isVeneered(style: ReturnType<StyleView['style']>, property: string): boolean {
  return style.seen(property).ranked(property)[0]?.block.rule?.sheet.name === VENEER_SHEET_NAME;
}

function statesTogether(page: Page, elements: readonly ElementNode[], state: OverrideState): Map<ElementNode, Set<string>> {
  const all = new Map<ElementNode, Set<string>>();
  for (const element of elements) {
    for (const [node, names] of pointerStates(page.document, element, state)) {
      const set = all.get(node) ?? new Set<string>();
      for (const name of names) set.add(name);
      all.set(node, set);
    }
  }
  return all;
}

function isUnder(element: ElementNode, targets: ReadonlySet<ElementNode>): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (targets.has(node)) return true;
  return false;
}

/** What the override does, for those who do not read CSS. */
export function glossOf(site: SiteModel, override: Override, elementWord: string): string {
  const color = override.value.kind === 'literal' ? override.value.css : valueWords(site, override.value);
  const when: Readonly<Record<OverrideState, string>> = { rest: 'At rest', visited: 'Once visited', hover: 'When the pointer is over it', focus: 'When the keyboard is on it', active: 'While it is pressed' };
  const what = override.property === 'color' ? 'text' : override.property === 'background-color' ? 'fill' : 'edge';
  const element = elementOf(pageOf(site, override.pageId), override.element);
  const places = placesInReach(site, override.pageId, element, override.reach);
  const pages = new Set(places.map((place) => place.page)).size;
  return `${when[override.state]}, the ${elementWord}’s ${what} becomes ${color}, on ${pages} ${pages === 1 ? 'page' : 'pages'}.`;
}

/** A value in words: `Accent, 12 darker`. */
export function valueWords(site: Pick<SiteModel, 'palette'>, value: OverrideValue): string {
  if (value.kind === 'literal') return value.css;
  const base = value.kind === 'role' ? value.role.replace('-', ' ') : site.palette.swatches.find(({ id }) => id === value.swatchId)?.name ?? 'a lost swatch';
  const name = base.charAt(0).toUpperCase() + base.slice(1);
  return [name, describeShade(value.shade)].filter((part) => part !== '').join(', ');
}

