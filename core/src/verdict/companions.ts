import type { Message } from '../message/message.js';
import { isScrollbarPart } from '../veneer/scrollbars.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import { isShape } from '../dom/svg-shapes.js';
import type { ElementNode } from '../dom/tree.js';
import { alikeKey, kindOf } from '../selectors/alike.js';
import type { Page } from '../resolve/page.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { isLink } from '../selectors/element-states.js';
import type { Color } from '../values/color.js';
import { stateTold } from '../grid/rows.js';
import type { Override, OverrideState } from '../veneer/override.js';
import { colorOfValue, valueTold, type OverrideValue } from '../veneer/override-value.js';
import type { RoleName } from '../veneer/palette.js';
import { nameTold } from '../selectors/describe-element.js';
import { NO_EXCEPTIONS, isExcepted, passedOverOn } from '../site/exceptions.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { readableRole } from '../plan/readable-role.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';

/** What a change of ground obliges: something on it that now fails or clashes, with a role proposed for it. */
export interface Companion {
  readonly kind: 'text' | 'link' | 'heading' | 'icon' | 'edge' | 'shadow';
  /** Name of one of them, for people. */
  readonly name: Message;
  readonly state: OverrideState;
  readonly stateWords: Message;
  /** How many alike stand on this ground. */
  readonly count: number;
  /** Contrast as it is, and what is asked; 0 for a clash that is no matter of contrast. */
  readonly ratio: number;
  readonly wanted: number;
  readonly proposed: OverrideValue;
  readonly proposedWords: Message;
  /** Contrast with what is proposed; `null` where none is reckoned. */
  readonly proposedRatio: number | null;
  readonly wish: OverrideWish;
}

const ROLES_FOR: Readonly<Record<Exclude<Companion['kind'], 'shadow'>, readonly RoleName[]>> = {
  text: ['ink', 'on-accent', 'on-second', 'soft-ink', 'ground'],
  heading: ['ink', 'on-accent', 'on-second', 'ground'],
  link: ['link', 'ink', 'on-accent', 'on-second', 'ground'],
  icon: ['accent', 'ink', 'on-accent', 'on-second', 'ground'],
  edge: ['line', 'ring', 'ink', 'on-accent', 'ground'],
};
const MOST_ELEMENTS = 600;

/** Companions of an override that changes a ground; empty for any other. */
export function companionsOf(site: SiteModel, override: Override, width: number): Companion[] {
  if (
    (override.property !== 'background-color' && override.property !== 'background-image') ||
    isScrollbarPart(override.pseudo) ||
    override.pseudo === 'backdrop'
  )
    return [];
  const page = pageOf(site, override.pageId);
  const lead = elementOf(page, override.element);
  const found = new Map<string, Companion>();
  const look = { site, page, lead, override, width, found };
  const view = viewIn(
    page,
    lead,
    override.state,
    width,
    override.parent == null ? null : elementOf(page, override.parent),
  );
  if (override.pseudo !== '') {
    // Nothing stands on a pseudo-element but its own text.
    const isGenerated = override.pseudo === 'before' || override.pseudo === 'after';
    if (!isGenerated || hasWords(view, lead, override.pseudo))
      judgeText(look, view, lead, override.pseudo, isGenerated ? 'icon' : 'text', override.state);
    return meant(site, page, found);
  }
  let left = MOST_ELEMENTS;
  const walk = (element: ElementNode): void => {
    if ((left -= 1) < 0) return;
    if (element !== lead) judgeEdge(look, view, element);
    // What has a ground of its own meets the new one at its edge alone.
    if (element !== lead && hasOwnGround(view, element)) return;
    lookAt(look, view, element);
    [...element.children].forEach(walk);
  };
  walk(lead);
  return meant(site, page, found);
}

/** Companions that are no exceptions. */
function meant(site: SiteModel, page: Page, found: ReadonlyMap<string, Companion>): Companion[] {
  if (site.exceptions === NO_EXCEPTIONS) return [...found.values()];
  return [...found.values()].filter(
    ({ wish }) => !passedOverOn(site.exceptions, page, wish).has(elementOf(page, wish.element)),
  );
}

/** The edge of a field is what tells it from its surroundings. Source: WCAG 2.2, 1.4.11. */
function judgeEdge(look: Look, view: StyleView, element: ElementNode): void {
  const style = view.style(element);
  if (
    kindOf(element) !== 'field' ||
    style.resolved('display') === 'none' ||
    style.resolved('border-top-width') === '0px' ||
    style.resolved('border-top-style') === 'none'
  )
    return;
  judgeLine(look, view, element, 'border-color', 'edge');
}

/** Whether a pseudo-element is generated and its content holds a text or glyph. */
function hasWords(view: StyleView, element: ElementNode, pseudo: string): boolean {
  return view.generates(element, pseudo) && /"[^"]+"/.test(view.style(element, pseudo).resolved('content'));
}

interface Look {
  readonly site: SiteModel;
  readonly page: Page;
  readonly lead: ElementNode;
  readonly override: Override;
  readonly width: number;
  readonly found: Map<string, Companion>;
}

function hasOwnGround(view: StyleView, element: ElementNode): boolean {
  const style = view.style(element);
  return (style.color('background-color')?.alpha ?? 0) > 0.95 || style.resolved('background-image') !== 'none';
}

function lookAt(look: Look, view: StyleView, element: ElementNode): void {
  const { override, lead } = look;
  const style = view.style(element);
  if (style.resolved('display') === 'none') return;
  const isHeading = /^h[1-6]$/.test(element.localName);
  if (showsText(style)) {
    const kind = isLink(element) ? 'link' : isHeading ? 'heading' : 'text';
    judgeText(look, view, element, '', kind, stateFor(override, element === lead));
    // A link on a new ground is read in all its states.
    if (isLink(element) && override.state === 'rest') {
      for (const state of ['visited', 'hover', 'focus', 'active'] as const)
        judgeText(look, viewIn(look.page, element, state, look.width), element, '', 'link', state);
    }
    judgeShadow(look, view, element);
  }
  for (const pseudo of ['before', 'after']) {
    if (hasWords(view, element, pseudo))
      judgeText(look, view, element, pseudo, 'icon', stateFor(override, element === lead));
  }
  if (isShape(element)) judgeLine(look, view, element, style.resolved('fill') === 'none' ? 'stroke' : 'fill', 'icon');
}

/** A target itself changes in the override's own state; what stands in it does as the child of a hovered parent. `null` where no selector says it. */
function stateFor(override: Override, isLead: boolean): OverrideState | null {
  if (isLead || override.state === 'rest') return override.state;
  return override.state === 'hover' ? 'parent-hover' : null;
}

function judgeText(
  look: Look,
  view: StyleView,
  element: ElementNode,
  pseudo: string,
  kind: 'text' | 'link' | 'heading' | 'icon',
  state: OverrideState | null,
): void {
  if (state === null) return;
  const style = view.style(element, pseudo);
  const { ratio, ground } = surroundingsOf(view, element, pseudo);
  const wanted = kind === 'icon' ? RATIOS.nonText : wantedRatio(style);
  const color = style.color('color');
  if (inheritsFromCompanion(look, view, element, pseudo)) return;
  if (ratio >= wanted || (color && isExcepted(look.site.exceptions, look.page.document, element, color))) return;
  propose(look, element, pseudo, kind, state, 'color', ratio, wanted, ground);
}

/** Whether its text colour follows one that is listed already: taking that mends this. */
function inheritsFromCompanion({ found, lead }: Look, view: StyleView, element: ElementNode, pseudo: string): boolean {
  if (declaresColor(view.style(element, pseudo))) return false;
  let at: ElementNode | null = pseudo === '' ? element.flatParent : element;
  for (; at; at = at === lead ? null : at.flatParent) {
    const { number } = at;
    if (
      [...found.values()].some(
        ({ wish }) =>
          wish.element === number && wish.pseudo === '' && wish.property === 'color' && wish.state !== 'visited',
      )
    )
      return true;
    if (declaresColor(view.style(at))) return false;
  }
  return false;
}

/** Whether a style has a text colour of its own, not its parent's. */
function declaresColor(style: ElementStyle): boolean {
  const [top] = style.ranked('color');
  return (
    top !== undefined &&
    !(top.entry.value.kind === 'wide' && (top.entry.value.keyword === 'inherit' || top.entry.value.keyword === 'unset'))
  );
}

function judgeLine(
  look: Look,
  view: StyleView,
  element: ElementNode,
  property: 'fill' | 'stroke' | 'border-color',
  kind: 'icon' | 'edge',
): void {
  const style = view.style(element);
  const color = style.color(property === 'border-color' ? 'border-top-color' : property);
  if (!color || (color.alpha ?? 0) === 0) return;
  const { ground, outside } = surroundingsOf(view, element);
  const below = kind === 'edge' ? outside : ground;
  const ratio = contrastRatio(compositeOver(color, below), below);
  const state = stateFor(look.override, element === look.lead);
  if (ratio < RATIOS.nonText && state !== null)
    propose(look, element, '', kind, state, property, ratio, RATIOS.nonText, below);
}

/** A shadow as light or dark as the text it is under blurs it, once the ground is another. */
function judgeShadow(look: Look, view: StyleView, element: ElementNode): void {
  const style = view.style(element);
  const state = stateFor(look.override, element === look.lead);
  if (state === null || style.resolved('text-shadow') === 'none' || style.ranked('text-shadow').length === 0) return;
  add(look, element, '', 'shadow', state, 'text-shadow', 0, 0, { kind: 'literal', css: 'none' }, null);
}

function propose(
  look: Look,
  element: ElementNode,
  pseudo: string,
  kind: Exclude<Companion['kind'], 'shadow'>,
  state: OverrideState,
  property: string,
  ratio: number,
  wanted: number,
  ground: Color,
): void {
  const { palette } = look.site;
  const role = look.override.value.kind === 'role' ? `on-${look.override.value.role}` : '';
  const own = palette.roles.find((fill) => fill.role === role)?.role;
  const proposed = readableRole(ground, wanted, [...(own ? [own] : []), ...ROLES_FOR[kind]], palette);
  const color = colorOfValue(proposed, palette);
  add(
    look,
    element,
    pseudo,
    kind,
    state,
    property,
    ratio,
    wanted,
    proposed,
    color ? contrastRatio(color, ground) : null,
  );
}

function add(
  look: Look,
  element: ElementNode,
  pseudo: string,
  kind: Companion['kind'],
  state: OverrideState,
  property: string,
  ratio: number,
  wanted: number,
  proposed: OverrideValue,
  proposedRatio: number | null,
): void {
  const { found, override, lead, site, width } = look;
  const key = [alikeKey(element), pseudo, kind, state, property].join('|');
  const known = found.get(key);
  if (known) {
    found.set(key, { ...known, count: known.count + 1 });
    return;
  }
  const { widths, pages } = override;
  found.set(key, {
    kind,
    name: nameTold(element, pseudo),
    state,
    stateWords: stateTold(state),
    count: 1,
    ratio,
    wanted,
    proposed,
    proposedWords: valueTold(site, proposed),
    proposedRatio,
    wish: {
      pageId: override.pageId,
      element: element.number,
      pseudo,
      reach: element === lead ? override.reach : override.reach === 'one' ? 'one' : 'alike',
      ...(element === lead && override.group ? { group: override.group } : {}),
      state,
      property,
      value: proposed,
      width,
      widths,
      pages,
      ...(state === 'parent-hover' ? { parent: lead.number } : {}),
    },
  });
}
