import { message, type Message } from '../message/message.js';
import { rootedValue } from './rooted-value.js';
import { compareCascade, type Criterion } from '../cascade/compare.js';
import type { ElementNode } from '../dom/tree.js';
import { LONGHANDS, canonicalName } from '../properties/longhands.js';
import type { Specificity } from '../selectors/selector.js';
import { createLocator, type SourcePoint } from '../text/source-range.js';
import type { ElementStyle, RankedDeclaration } from './element-style.js';
import { VENEER_SHEET_NAME } from './page.js';
import type { StyleView } from './style-view.js';

/** Where a declaration stands. */
export interface PlySource {
  readonly kind: 'rule' | 'style-attribute' | 'presentational-attribute' | 'browser';
  /** Sheet's name; empty for attributes. */
  readonly sheet: string;
  readonly at: SourcePoint | null;
  readonly selector: string;
  readonly isVeneer: boolean;
}

/** One competing declaration. */
export interface Ply {
  /** As written for this longhand; for a shorthand waiting on a variable, the shorthand's text. */
  readonly value: string;
  /** The value with variables substituted; `null` when that makes it invalid at computed-value time. */
  readonly settled: string | null;
  /** Declaration as written. */
  readonly declaration: string;
  readonly source: PlySource;
  readonly specificity: Specificity | null;
  readonly layer: string | null;
  readonly important: boolean;
  /** Why it lies under the ply above; `null` for the top one. */
  readonly under: { readonly criterion: Criterion; readonly text: Message } | null;
}

/** A declaration that a browser throws away. */
export interface DiscardedPly {
  readonly declaration: string;
  readonly source: PlySource;
  readonly reason: Message;
}

/** Why a property has its value. */
export interface Explanation {
  readonly property: string;
  /** As `getComputedStyle` gives it. */
  readonly resolved: string;
  /** The same as an override says it, which stands at the site's root: addresses of files lead from there. */
  readonly rooted: string;
  /** Declarations of the element itself, or of the ancestor the value is inherited from; top one first. */
  readonly plies: readonly Ply[];
  /** `null` when the value is the element's own or the initial one. */
  readonly inheritedFrom: ElementNode | null;
  readonly isInitial: boolean;
  readonly discarded: readonly DiscardedPly[];
}

/**
 * Explains one property of an element or pseudo-element.
 * @param pseudo name without colons; `''` for the element.
 */
export function explain(view: StyleView, element: ElementNode, property: string, pseudo = ''): Explanation {
  const name = canonicalName(property);
  const style = view.style(element, pseudo);
  let origin: ElementStyle = style.seen(name);
  const own = origin;
  let ranked = origin.ranked(name);
  const inherits = name.startsWith('--') || (LONGHANDS.get(name)?.inherited ?? false);
  while (inherits && ranked.length === 0 && origin.parent) {
    origin = origin.parent;
    ranked = origin.ranked(name);
  }
  return {
    property: name,
    resolved: style.resolved(name),
    rooted: name.startsWith('--') ? style.resolved(name) : rootedValue(style, view.page, name),
    plies: ranked.map((declaration, i) =>
      toPly(declaration, i === 0 ? null : ranked[i - 1], origin.settle(name, declaration.entry.value)),
    ),
    inheritedFrom: origin === own || ranked.length === 0 ? null : origin.element,
    isInitial: ranked.length === 0,
    discarded: style
      .discarded(name)
      .map(({ block, written, start, reason }) => ({ declaration: written, source: sourceOf(block, start), reason })),
  };
}

function toPly(declaration: RankedDeclaration, above: RankedDeclaration | null, settled: string | null): Ply {
  const { block, entry, important } = declaration;
  const { value } = entry;
  return {
    value: value.kind === 'wide' ? value.keyword : value.text,
    settled,
    declaration: `${entry.declaration.name}: ${entry.declaration.value}${important ? ' !important' : ''}`,
    source: sourceOf(block, entry.declaration.start),
    specificity: block.rule ? block.specificity : null,
    layer: block.rule?.layer ?? null,
    important,
    under: above ? reasonBetween(above, declaration) : null,
  };
}

const locators = new Map<string, ReturnType<typeof createLocator>>();

/** Where a declaration of a block stands. @param start its offset in the sheet. */
export function sourceOf(block: RankedDeclaration['block'], start: number): PlySource {
  const { rule } = block;
  if (!rule)
    return {
      kind: block.origin === 'hint' ? 'presentational-attribute' : 'style-attribute',
      sheet: '',
      at: null,
      selector: '',
      isVeneer: false,
    };
  if (rule.sheet.origin === 'user-agent')
    return {
      kind: 'browser',
      sheet: rule.sheet.name,
      at: null,
      selector: block.selector?.text ?? rule.selectorText,
      isVeneer: false,
    };
  let locate = locators.get(rule.sheet.text);
  if (!locate) {
    if (locators.size > 100) locators.clear();
    locators.set(rule.sheet.text, (locate = createLocator(rule.sheet.text)));
  }
  return {
    kind: 'rule',
    sheet: rule.sheet.name,
    at: locate(start),
    selector: block.selector?.text ?? rule.selectorText,
    isVeneer: rule.sheet.name === VENEER_SHEET_NAME,
  };
}

/** The one reason a ply lies under another. */
function reasonBetween(above: RankedDeclaration, below: RankedDeclaration): { criterion: Criterion; text: Message } {
  const { criterion } = compareCascade(above, below);
  return { criterion, text: REASONS[criterion](above, below) };
}

const REASONS: Readonly<Record<Criterion, (above: RankedDeclaration, below: RankedDeclaration) => Message>> = {
  importance: () => message('ply.importance'),
  origin: (_, { block }) => message(block.origin === 'hint' ? 'ply.hint' : 'ply.origin'),
  context: (above) => message(above.important ? 'ply.outer-tree' : 'ply.inner-tree'),
  attachment: () => message('ply.attachment'),
  layer: (above, { block }) =>
    block.rule?.layer
      ? message('ply.layer', { layer: block.rule.layer })
      : message(above.important ? 'ply.outside-layers' : 'ply.earlier-layer'),
  specificity: ({ block: { specificity: a } }, { block: { specificity: b } }) =>
    message(a[0] !== b[0] ? 'ply.fewer-ids' : a[1] !== b[1] ? 'ply.fewer-classes' : 'ply.fewer-types'),
  proximity: () => message('ply.proximity'),
  order: (above, below) =>
    message(above.block.rule?.sheet === below.block.rule?.sheet ? 'ply.earlier-in-sheet' : 'ply.earlier-sheet'),
};
