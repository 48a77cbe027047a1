import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { compositeOver } from '../color/contrast.js';
import { applicableStates } from '../grid/applicable-states.js';
import { cellOf, longhandsOfRow, rowsFor, winnerOf, type GridCell } from '../grid/cell.js';
import { ROW_PROPERTIES, type GridRowName } from '../grid/rows.js';
import { kindOf } from '../selectors/alike.js';
import { isGeneratedClass, isLastingId } from '../selectors/class-names.js';
import { RATIOS, contrastRatio } from '../color/contrast.js';
import { breakpointsOfSite } from '../site/breakpoints.js';
import { isBrandColor } from '../palette/brand-color.js';
import { iconKindOf, type IconKind } from './icon-kind.js';
import { counterpartsOf } from '../site/counterparts.js';
import { placesOf } from '../site/places.js';
import { reaches } from '../plan/plan-override.js';
import { hexOf } from '../color/read-notation.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { StyleView } from '../resolve/style-view.js';
import { VENEER_SHEET_NAME, withVeneer, type Page } from '../resolve/page.js';
import { relationOf, type Carrier } from '../elsewhere/carriers.js';
import { tellersOf, type Teller } from '../elsewhere/tellers.js';
import { REACHES, isSwitchState, type OverrideState, type OverrideTarget, type Reach } from '../veneer/override.js';
import { WHITE } from '../values/color.js';
import { plainName, shortName } from '../selectors/describe-element.js';
import type { Standing } from '../color/standing.js';
import { isExcepted } from '../site/exceptions.js';
import { isHidden } from '../parts/propose-openers.js';
import type { Reachability } from '../parts/part.js';
import { reachabilityOf } from '../parts/propose-parts.js';
import { elementOf, pageOf, partOf, viewIn, type SiteModel } from '../site/site-model.js';
import { unreadPages, type UnreadPage } from '../site/unread.js';
import { ringOf } from '../verdict/legibility.js';
import { tellingParent } from '../verdict/telling-parent.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';

const EDGE_SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** One step of the lineage. */
export interface LineageStep {
  readonly element: number;
  readonly pseudo: string;
  readonly label: string;
  /** Hex of the fill it paints itself; `null` when it paints none. */
  readonly fill: string | null;
  /** Whether a gradient or picture paints over the fill. */
  readonly hasImage: boolean;
}

/** Figures for one tile of the state strip. */
export interface StripTile {
  readonly state: OverrideState;
  /** Contrast of the text on its ground; `null` when there is no text. */
  readonly ratio: number | null;
  /** Ratio asked for: 4.5, or 3 for large text. */
  readonly wanted: number;
  /** Contrast of a control's edge with what lies around it, 3 is asked; `null` without an edge to judge. */
  readonly edgeRatio: number | null;
  /** Contrast of the focus ring with what lies around, 3 is asked; `null` without a ring. */
  readonly ringRatio: number | null;
  /** CSS of the text as painted, to be held against a picture under it; `null` where none lies there. */
  readonly overPicture: string | null;
  readonly standing: Standing;
  /** What is wrong, or how it differs from rest. */
  readonly note: string;
  /** What the figures were computed from. */
  readonly basis: string;
}

export interface ReachCount {
  readonly reach: Reach;
  readonly elements: number;
  readonly pages: number;
  /** The elements, to be outlined: page id, running number and what people call it. */
  readonly places: readonly { readonly pageId: number; readonly element: number; readonly name: string }[];
}

/** All the Bench shows of one target. */
export interface Inspection {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly name: string;
  readonly selector: string;
  readonly partId: number | null;
  readonly lineage: readonly LineageStep[];
  /** Steps down from the target: generated pseudo-elements, then children, its selected text last. */
  readonly below: readonly LineageStep[];
  readonly states: readonly OverrideState[];
  readonly grid: readonly { readonly row: GridRowName; readonly cells: readonly GridCell[] }[];
  readonly strip: readonly StripTile[];
  readonly reach: readonly ReachCount[];
  /** Names of it that a tool has made and the next build may change: no selector leans on them. */
  readonly avoided: readonly string[];
  /** What its icon is made of; `null` for what is none. */
  readonly icon: IconKind | null;
  /** How far CSS gets into it. */
  readonly reachability: Reachability;
  /** Widths at which rules of the site begin to hold, CSS px. */
  readonly breakpoints: readonly number[];
  /** The ancestor whose hover is among the states. */
  readonly parent: number | null;
  /** The element whose being switched or locked is among the states; `null` where nothing around tells. */
  readonly carrier: CarrierView | null;
  /** Others that tell on it, each by one state of theirs. */
  readonly otherCarriers: readonly { readonly element: number; readonly words: string }[];
  /** States that it can be in and that neither the page nor an override of ours tells apart; listed when asked for. */
  readonly quietStates: readonly OverrideState[];
  /** Pages of which something was not read: what is said here of all matches leaves it out. */
  readonly unread: readonly UnreadPage[];
}

/** An element whose state tells on the target. */
export interface CarrierView {
  readonly element: number;
  readonly name: string;
  readonly relation: Carrier['relation'];
  /** What is so in each of its states: `input.tick is checked`. */
  readonly words: Readonly<Partial<Record<OverrideState, string>>>;
  /** The same, for the head of a column. */
  readonly heads: Readonly<Partial<Record<OverrideState, string>>>;
}

/** What tells on an element by the page's own rules, and by ours: a state that an override hides is still there to be given a look. */
function allTellers(page: Page, element: ElementNode, pseudo: string, width: number): Teller[] {
  const own = tellersOf(withVeneer(page, ''), element, pseudo, { width });
  const ours =
    page.veneerRules.length === 0
      ? []
      : tellersOf(page, element, pseudo, { width }).filter(
          (teller) => !own.some((other) => other.element === teller.element && other.state === teller.state),
        );
  return [...own, ...ours];
}

/** States that most pages leave as they are at rest. */
const QUIET_STATES: ReadonlySet<OverrideState> = new Set(['valid', 'indeterminate', 'read-only', 'autofilled']);

/** Quiet states that the page or an override tells from rest. */
function askedStates(
  site: SiteModel,
  page: Page,
  element: ElementNode,
  pseudo: string,
  rest: StyleView,
  width: number,
): Set<OverrideState> {
  const calm = rest.style(element, pseudo);
  return new Set(
    applicableStates(element, pseudo).filter((state) => {
      if (!QUIET_STATES.has(state)) return false;
      const style = viewIn(page, element, state, width).style(element, pseudo);
      const isTold = [
        'color',
        'background-color',
        'border-top-color',
        'box-shadow',
        'background-image',
        'opacity',
      ].some((property) => style.resolved(property) !== calm.resolved(property));
      return (
        isTold ||
        site.overrides.some(
          (override) => override.state === state && override.pseudo === pseudo && reaches(site, override, element),
        )
      );
    }),
  );
}

/** What narrows the reach, and the parent whose state is looked at. */
export type InspectionScope = Pick<OverrideTarget, 'pages' | 'spared' | 'parent' | 'group'> & {
  /** The element whose being switched is looked at; the nearest that tells when absent. */
  readonly carrier?: number | null;
  /** Whether states that nothing tells from rest are listed too. */
  readonly isWhole?: boolean;
};

/** Inspects an element or pseudo-element at a viewport width in CSS px. */
export function inspect(
  site: SiteModel,
  pageId: number,
  number: number,
  pseudo: string,
  width: number,
  scope: InspectionScope = {},
): Inspection {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const rest = viewIn(page, element, 'rest', width);
  const parent =
    scope.parent == null ? tellingParent(page, element, pseudo, width, rest) : elementOf(page, scope.parent);
  const tellers = allTellers(page, element, pseudo, width);
  const carrier = (scope.carrier == null ? null : elementOf(page, scope.carrier)) ?? tellers.at(0)?.element ?? null;
  const switches = tellers.filter((teller) => teller.element === carrier);
  const asked = askedStates(site, page, element, pseudo, rest, width);
  const ownStates = applicableStates(element, pseudo).filter(
    (state) => !QUIET_STATES.has(state) || scope.isWhole || asked.has(state),
  );
  const parentStates: OverrideState[] =
    parent?.localName === 'form' ? ['parent-hover', 'parent-invalid'] : parent ? ['parent-hover'] : [];
  const states = [...ownStates, ...switches.map(({ state }) => state), ...parentStates];
  const views = new Map(
    states.map((state) => [state, viewIn(page, element, state, width, isSwitchState(state) ? carrier : parent)]),
  );
  const restStyle = rest.style(element, pseudo);
  const styles = states.map((state) => views.get(state)?.style(element, pseudo) ?? restStyle);
  const ids = new Map([...site.pages].map(([id, candidate]) => [candidate, id]));
  const cellsOf = (row: GridRowName, part: ElementStyle | null): GridCell[] =>
    states.map((state, i) => cellOf(row, state, part ?? styles[i], part ?? restStyle));
  return {
    pageId,
    element: number,
    pseudo,
    name: plainName(element, pseudo),
    selector: pathName(element, pseudo),
    partId: partOf(site, page, element)?.id ?? null,
    lineage: [
      ...lineageOf(element).map((node) => step(rest, node, '')),
      ...(pseudo === '' ? [] : [step(rest, element, pseudo)]),
    ],
    below:
      pseudo === ''
        ? [
            ...pseudosBelow(rest, element).map((name) => step(rest, element, name)),
            ...(element.shadowRoot?.children ?? []).map((child) => step(rest, child, '')),
            ...element.children.map((child) => step(rest, child, '')),
            ...(element.localName === 'html' || element.ownText.trim() !== ''
              ? [step(rest, element, 'selection')]
              : []),
          ]
        : [],
    states,
    grid: rowsFor(element, pseudo, styles).map((row) => ({
      row,
      cells: cellsOf(row, partStyle(page, element, row, width)),
    })),
    strip: states.map((state) => tileOf(site, views.get(state) ?? rest, rest, element, pseudo, state)),
    reach: REACHES.filter((reach) => reach !== 'group' || scope.group).map((reach) => {
      const places =
        reach === 'one' && !scope.pages
          ? counterpartsOf(site, pageId, number)
          : placesOf(site, {
              pageId,
              element: number,
              reach,
              group: scope.group,
              pages: scope.pages,
              spared: scope.spared,
            });
      return {
        reach,
        elements: places.length,
        pages: new Set(places.map((place) => place.page)).size,
        places: places.map((place) => ({
          pageId: ids.get(place.page) ?? 0,
          element: place.element.number,
          name: plainName(place.element).slice(0, 60),
        })),
      };
    }),
    avoided: [
      ...element.classes.filter(isGeneratedClass).map((name) => `.${name}`),
      ...(element.id && !isLastingId(element.id) ? [`#${element.id}`] : []),
    ],
    icon: iconKindOf(rest, element, pseudo),
    reachability: reachabilityOf(element),
    breakpoints: breakpointsOfSite(site),
    parent: parent?.number ?? null,
    carrier: carrier && {
      element: carrier.number,
      name: shortName(carrier),
      relation: relationOf(element, carrier)?.relation ?? 'self',
      words: Object.fromEntries(switches.map(({ state, words }) => [state, words])),
      heads: Object.fromEntries(switches.map(({ state, flip }) => [state, flip.short])),
    },
    otherCarriers: [
      ...new Map(
        tellers
          .filter((teller) => teller.element !== carrier)
          .map((teller) => [teller.element, { element: teller.element.number, words: teller.words }]),
      ).values(),
    ],
    quietStates: applicableStates(element, pseudo).filter(
      (state) => QUIET_STATES.has(state) && !states.includes(state),
    ),
    unread: unreadPages(site),
  };
}

/** Style of the part of the scrollbar that a row is of; `null` for other rows. */
function partStyle(page: Page, element: ElementNode, row: GridRowName, width: number): ElementStyle | null {
  const [{ pseudo: part, pseudoState }] = ROW_PROPERTIES[row];
  return part
    ? new StyleView(page, {
        environment: { width },
        ...(pseudoState ? { pseudoStates: new Set([pseudoState]) } : {}),
      }).style(element, part)
    : null;
}

/** Pseudo-elements of a target that show something. */
function pseudosBelow(view: StyleView, element: ElementNode): string[] {
  const found = ['before', 'after'].filter((name) => view.generates(element, name));
  if (
    view.style(element).resolved('display') === 'list-item' &&
    view.style(element).resolved('list-style-type') !== 'none'
  )
    found.unshift('marker');
  if ((element.localName === 'input' || element.localName === 'textarea') && element.attributes.has('placeholder'))
    found.push('placeholder');
  if (element.localName === 'input' && element.attributes.get('type')?.toLowerCase() === 'file')
    found.push('file-selector-button');
  if (element.localName === 'dialog' || element.attributes.has('popover')) found.push('backdrop');
  return found;
}

function step(view: StyleView, element: ElementNode, pseudo: string): LineageStep {
  const style = view.style(element, pseudo);
  const fill = style.color('background-color');
  const image = style.computed('background-image');
  return {
    element: element.number,
    pseudo,
    label:
      pseudo === ''
        ? shortName(element)
        : isRequiredMark(view, element, pseudo)
          ? `::${pseudo} required`
          : `::${pseudo}`,
    fill: fill && (fill.alpha ?? 0) > 0 ? hexOf(fill) : null,
    hasImage: image.kind === 'text' && image.text !== 'none',
  };
}

/** Whether a generated mark says that a field must be filled in (common practice: an asterisk at its label). */
function isRequiredMark(view: StyleView, element: ElementNode, pseudo: string): boolean {
  return (
    (pseudo === 'before' || pseudo === 'after') &&
    /^"\s*[*\u2217\u2731\uff0a]\s*"$/.test(view.style(element, pseudo).resolved('content'))
  );
}

/** The target within its nearest named ancestors, for people. */
function pathName(element: ElementNode, pseudo: string): string {
  const names = [shortName(element, pseudo)];
  for (let node = element.parent; node && names.length < 3; node = node.parent) {
    if (node.id || node.classes.length > 0) names.unshift(shortName(node));
    if (node.id) break;
  }
  return names.join(' ');
}

function tileOf(
  site: SiteModel,
  view: StyleView,
  rest: StyleView,
  element: ElementNode,
  pseudo: string,
  state: OverrideState,
): StripTile {
  const style = view.style(element, pseudo);
  const surroundings = surroundingsOf(view, element, pseudo);
  const restSurroundings = surroundingsOf(rest, element, pseudo);
  const wanted = wantedRatio(style);
  const hasText = showsText(style);
  const { ratio } = surroundings;
  const strays = straysOf(site, view, style);
  const change = Math.max(
    deltaE2000(surroundings.text, restSurroundings.text),
    deltaE2000(surroundings.ground, restSurroundings.ground),
    edgeChange(style, rest.style(element, pseudo)),
  );
  // WCAG 2.2, 1.4.3: text of an inactive control has no contrast requirement.
  const isInactive = state === 'disabled';
  const fails = hasText && ratio < wanted && !isInactive;
  const fromRest =
    state === 'rest' ? '' : change < 0.05 ? 'as at rest' : `ΔE ${change.toFixed(change < 10 ? 1 : 0)} from rest`;
  const isControl = kindOf(element) !== 'other' && kindOf(element) !== 'heading' && pseudo === '';
  const edgeRatio = isControl
    ? lineRatio(
        style,
        surroundings,
        'border-top-color',
        EDGE_SIDES.some((side) => style.resolved(`border-${side}-width`) !== '0px'),
      )
    : null;
  const ringRatio = state === 'focus' || state === 'focused' ? (ringOf(style, surroundings)?.ratio ?? null) : null;
  const isSame =
    state === 'hover' || state === 'focus' || state === 'active'
      ? isControl && change < 0.05 && ringRatio === null && looksAlike(style, rest.style(element, pseudo))
      : false;
  const weakLine =
    fails || strays.length > 0
      ? ''
      : ringRatio !== null && ringRatio < RATIOS.largeText
        ? `ring ${short(ringRatio)} : 1, needs 3`
        : edgeRatio !== null && kindOf(element) === 'field' && edgeRatio < RATIOS.largeText
          ? `edge ${short(edgeRatio)} : 1, needs 3`
          : isSame
            ? 'indistinct from rest'
            : '';
  const note = fails
    ? `needs ${wanted} : 1`
    : isInactive && hasText && ratio < wanted && strays.length === 0
      ? 'no contrast asked while off'
      : weakLine !== ''
        ? weakLine
        : strays.length > 0
          ? `stray ${strays.join(', ')}`
          : (surroundings.doubts[0] ?? (fromRest || (hasText ? 'text on fill' : 'no text of its own')));
  return {
    state,
    ratio: hasText ? ratio : null,
    wanted,
    edgeRatio,
    ringRatio,
    overPicture: hasText && surroundings.doubts.length > 0 ? hexOf(surroundings.text) : null,
    standing: fails
      ? 'fails'
      : weakLine !== '' ||
          strays.length > 0 ||
          surroundings.doubts.length > 0 ||
          (fromRest !== '' && change >= 0.05 && change < SAME_TO_THE_EYE)
        ? 'look'
        : 'holds',
    note,
    basis: `Text ${hexOf(surroundings.text)} on ${hexOf(surroundings.ground)}, ${surroundings.by === 'boxes' ? 'the worst of what is painted under its lines' : "composited over every ancestor's fill (this page was not measured at this width)"}; WCAG 2.2 asks ${wanted} : 1 at ${style.resolved('font-size')}, weight ${style.resolved('font-weight')}.${fromRest ? ` Largest ΔE2000 of text, fill and edge from rest: ${change.toFixed(2)}.` : ''}${edgeRatio === null ? '' : ` Edge ${edgeRatio.toFixed(2)} : 1 with what lies around, WCAG 2.2 1.4.11 asks 3.`}${ringRatio === null ? '' : ` Ring ${ringRatio.toFixed(2)} : 1, the worse of what lies around and the box it touches; 3 is asked.`}`,
  };
}

/** Contrast of an edge or ring with what lies around the element; `null` where there is none. Source: WCAG 2.2, 1.4.11. */
function lineRatio(
  style: ElementStyle,
  { outside }: ReturnType<typeof surroundingsOf>,
  property: string,
  isDrawn: boolean,
): number | null {
  const color = isDrawn ? style.color(property) : null;
  return color && (color.alpha ?? 0) > 0 ? contrastRatio(compositeOver(color, outside), outside) : null;
}

/** Whether nothing but colours could tell a state from rest, and they do not. */
function looksAlike(style: ElementStyle, restStyle: ElementStyle): boolean {
  return [
    'outline-style',
    'box-shadow',
    'text-decoration-line',
    'opacity',
    'background-image',
    'border-top-width',
  ].every((property) => style.resolved(property) === restStyle.resolved(property));
}

function short(ratio: number): string {
  return (Math.floor(ratio * 10) / 10).toFixed(1);
}

function edgeChange(style: ElementStyle, restStyle: ElementStyle): number {
  let change = 0;
  for (const side of EDGE_SIDES) {
    if (style.resolved(`border-${side}-width`) === '0px') continue;
    const now = style.color(`border-${side}-color`);
    const before = restStyle.color(`border-${side}-color`);
    if (now && before && ((now.alpha ?? 0) > 0 || (before.alpha ?? 0) > 0))
      change = Math.max(change, deltaE2000(compositeOver(now, WHITE), compositeOver(before, WHITE)));
  }
  return change;
}

const STRAY_ROWS = ['text', 'fill', 'edge'] as const satisfies readonly GridRowName[];

/** Rows in which an element itself paints a colour that is no brand colour and no exception. */
function straysOf({ palette, exceptions }: SiteModel, view: StyleView, style: ElementStyle): GridRowName[] {
  if (palette.swatches.length === 0) return [];
  return STRAY_ROWS.filter((row) => {
    if (row === 'text' && !showsText(style)) return false;
    const [first] = longhandsOfRow(row, style);
    const color = style.color(first);
    if (
      !color ||
      (color.alpha ?? 0) === 0 ||
      (row === 'edge' && style.resolved(first.replace(/color$/, 'width')) === '0px')
    )
      return false;
    return (
      !isBrandColor(color, palette) &&
      winnerOf(style, first)?.sheet.name !== VENEER_SHEET_NAME &&
      !isExcepted(exceptions, view.page.document, style.element, color)
    );
  });
}

/** How much of a part on one page is matched to the brand. */
export interface PartProgress {
  readonly partId: number;
  /** Kinds of places painted: alike elements count once a property. */
  readonly places: number;
  readonly matched: number;
  /** Outermost elements of the part on this page. */
  readonly elements: readonly number[];
  /** How far CSS gets into its first element. */
  readonly reachability: Reachability;
  /** Whether its first element is hidden as the page stands. */
  readonly isHidden: boolean;
  /** Whether it stands over the page, so that one may want it out of the way. */
  readonly isOver: boolean;
}

/** Progress of every part that a page holds, at rest. */
export function partProgress(site: SiteModel, pageId: number, width: number): PartProgress[] {
  const page: Page = pageOf(site, pageId);
  const view = viewIn(page, page.document.rootElement, 'rest', width);
  const byPart = new Map<number, { seen: Map<string, boolean>; elements: number[] }>();
  for (const element of page.document.elements) {
    const part = partOf(site, page, element);
    if (!part) continue;
    let entry = byPart.get(part.id);
    if (!entry) byPart.set(part.id, (entry = { seen: new Map(), elements: [] }));
    const parent = element.flatParent;
    if (!parent || partOf(site, page, parent)?.id !== part.id) entry.elements.push(element.number);
    const style = view.style(element);
    const strays = new Set(straysOf(site, view, style));
    for (const row of STRAY_ROWS) {
      const cell = cellOf(row, 'rest', style, style);
      if (cell.hex === null || (row === 'text' && element.ownText.trim() === '')) continue;
      const key = `${shortName(element)}|${row}|${cell.hex}`;
      entry.seen.set(key, !strays.has(row));
    }
  }
  return [...byPart].map(([partId, { seen, elements }]) => ({
    partId,
    places: seen.size,
    matched: site.palette.swatches.length === 0 ? 0 : [...seen.values()].filter(Boolean).length,
    elements,
    reachability: reachabilityOf(elementOf(page, elements[0])),
    isHidden: isHidden(view, elementOf(page, elements[0])),
    isOver: elements.some((number) => standsOver(view, elementOf(page, number))),
  }));
}

/** A dialog, or what is fixed over what scrolls under it. */
function standsOver(view: StyleView, element: ElementNode): boolean {
  const position = view.style(element).resolved('position');
  return (
    element.localName === 'dialog' ||
    element.attributes.get('role') === 'dialog' ||
    element.attributes.get('aria-modal') === 'true' ||
    position === 'fixed' ||
    (position === 'absolute' && Number(view.style(element).resolved('z-index')) > 0)
  );
}
