import type { Message } from '../message/message.js';
import { applicableStates } from '../grid/applicable-states.js';
import { cellOf, rowsFor, type GridCell } from '../grid/cell.js';
import { ROW_PROPERTIES, type GridRowName } from '../grid/rows.js';
import { isGeneratedClass, isLastingId } from '../selectors/class-names.js';
import { breakpointsOfSite } from '../site/breakpoints.js';
import { iconKindOf, type IconKind } from './icon-kind.js';
import { counterpartsOf } from '../site/counterparts.js';
import { placesOf } from '../site/places.js';
import { reaches } from '../plan/plan-override.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { StyleView } from '../resolve/style-view.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { relationOf, type Carrier } from '../elsewhere/carriers.js';
import { tellersOf, type Teller } from '../elsewhere/tellers.js';
import { REACHES, isSwitchState, type OverrideState, type OverrideTarget, type Reach } from '../veneer/override.js';
import { nameTold, shortName } from '../selectors/describe-element.js';
import type { Reachability } from '../parts/part.js';
import { reachabilityOf } from '../parts/propose-parts.js';
import { elementOf, pageOf, partOf, viewIn, type SiteModel } from '../site/site-model.js';
import { unreadPages, type UnreadPage } from '../site/unread.js';
import { stripTile, type StripTile } from './strip-tile.js';
import { tellingParent } from '../verdict/telling-parent.js';

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

export interface ReachCount {
  readonly reach: Reach;
  readonly elements: number;
  readonly pages: number;
  /** The elements, to be outlined: page id, running number and what people call it. */
  readonly places: readonly { readonly pageId: number; readonly element: number; readonly name: Message }[];
}

/** All the Bench shows of one target. */
export interface Inspection {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly name: Message;
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
  readonly otherCarriers: readonly { readonly element: number; readonly words: Message }[];
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
  readonly words: Readonly<Partial<Record<OverrideState, Message>>>;
  /** The same, for the head of a column. */
  readonly heads: Readonly<Partial<Record<OverrideState, Message>>>;
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
    name: nameTold(element, pseudo),
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
    strip: states.map((state) => stripTile({ site, view: views.get(state) ?? rest, rest, element, pseudo, state })),
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
          name: nameTold(place.element),
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
