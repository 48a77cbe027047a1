import { distinct, message, type Message } from '../../message/message.js';
import type { ElementNode } from '../../dom/tree.js';
import { StyleView } from '../../resolve/style-view.js';
import { kindOf } from '../../selectors/alike.js';
import { nameTold } from '../../selectors/describe-element.js';
import { passedOverOn } from '../../site/exceptions.js';
import type { SiteModel } from '../../site/site-model.js';
import { HOUSE_PARTS, type HousePart } from '../../veneer/house-shape.js';
import { inScope, type MatchScope } from '../scope.js';
import type { FoundShape, ShapeKind, ShapePlace, Held } from './found-shape.js';
import { shapesOf, type Shape } from './shape-scan.js';

/** What a kind of thing is shaped like around the scope: every value with how many elements have it, the most first. */
export type PageHabit = ReadonlyMap<string, readonly Counted[]>;

export interface FoundShapes {
  readonly rows: readonly FoundShape[];
  /** Of what lies outside the scope on its pages; empty for a scope that is whole pages. */
  readonly habit: PageHabit;
}

/** Gathers the shapes of a scope, page by page. */
export class ShapeGathering {
  readonly #rows = new Map<
    string,
    { readonly shape: Shape; readonly nodes: ElementNode[]; readonly places: Map<string, ShapePlace> }
  >();
  readonly #around = new Map<string, Map<string, number>>();

  constructor(
    readonly site: SiteModel,
    readonly scope: MatchScope,
  ) {}

  /** @param view of the page at rest, without the veneer. */
  add(pageId: number, view: StyleView): void {
    const { page } = view;
    const isIn = inScope(this.site, this.scope, pageId);
    if (!page.document.elements.some(isIn)) return;
    const excepted = passedOverOn(this.site.exceptions, page, {});
    const shapes = page.document.elements.flatMap((element) => shapesOf(view, element));
    const outliers = familiesOutside(shapes, isIn);
    for (const shape of shapes) {
      if (!isIn(shape.node)) {
        countIn(this.#around, habitKey(shape), shape.value);
        continue;
      }
      const held = heldOf(shape, excepted.has(shape.node));
      const id = rowIdOf(shape, excepted.has(shape.node));
      const row = this.#rows.get(id) ?? { shape: { ...shape, held }, nodes: [], places: new Map<string, ShapePlace>() };
      const element = anchorOf(shape, isIn, outliers);
      row.nodes.push(shape.node);
      row.places.set(`${pageId}:${element}`, { pageId, element, properties: shape.properties });
      this.#rows.set(id, row);
    }
  }

  result(): FoundShapes {
    return {
      rows: [...this.#rows]
        .map(([id, { shape, nodes, places }]) => ({
          id,
          part: shape.part,
          kind: shape.kind,
          value: shape.value,
          places: [...places.values()],
          elements: nodes.length,
          paints: paintsOf(shape.part, nodes),
          held: shape.held,
        }))
        .sort(
          (a, b) =>
            HOUSE_PARTS.indexOf(a.part) - HOUSE_PARTS.indexOf(b.part) ||
            b.places.length - a.places.length ||
            (a.id < b.id ? -1 : 1),
        ),
      habit: new Map([...this.#around].map(([key, values]) => [key, byCount(values)])),
    };
  }
}

/** Row that a shape belongs to. */
export function rowIdOf(shape: Shape, isExcepted: boolean): string {
  const held = heldOf(shape, isExcepted);
  return `${shape.part} ${shape.kind} ${shape.value}${held === '' ? '' : `, ${held}`}`;
}

function heldOf({ held }: Shape, isExcepted: boolean): Held {
  return isExcepted ? 'an exception' : held;
}

/** What a habit is kept by. */
export function habitKey({ part, kind }: { readonly part: HousePart; readonly kind: ShapeKind }): string {
  return `${part} ${kind}`;
}

/** Elements outside the scope that show text, with all they stand in. */
function familiesOutside(shapes: readonly Shape[], isIn: (element: ElementNode) => boolean): ReadonlySet<ElementNode> {
  const around = new Set<ElementNode>();
  for (const { part, node } of shapes)
    if (part.endsWith('family') && !isIn(node))
      for (let above: ElementNode | null = node; above && !around.has(above); above = above.flatParent)
        around.add(above);
  return around;
}

/** Where a family is laid: as far out as the scope and what decides it let it, and only where nothing else would follow. */
function anchorOf(
  { part, node, decider }: Shape,
  isIn: (element: ElementNode) => boolean,
  outside: ReadonlySet<ElementNode>,
): number {
  if (!part.endsWith('family')) return node.number;
  let anchor = node;
  for (let above: ElementNode | null = node; above && isIn(above); above = above.flatParent) {
    if (outside.has(above)) break;
    anchor = above;
    if (above === decider || (part === 'heading-family' && kindOf(above) === 'heading')) break;
  }
  return anchor.number;
}

function paintsOf(part: HousePart, nodes: readonly ElementNode[]): Message {
  const names = distinct(nodes.map((node) => nameTold(node)));
  return message(`match.shape.${part}`, { shown: names.slice(0, 2), more: Math.max(0, names.length - 2) });
}

/** What is most usual over whole pages, for a house shape to begin with. A generator: it yields after each page. */
export function* usualShape(site: SiteModel, width: number): Generator<string, readonly UsualShape[]> {
  const counts = new Map<HousePart, Map<string, number>>();
  for (const [, page] of site.closed) {
    const view = new StyleView(page, { environment: { width } });
    for (const { part, value, kind, held } of page.document.elements.flatMap((element) => shapesOf(view, element)))
      if (held === '' && kind !== 'line') countIn(counts, part, value);
    yield page.path;
  }
  return [...counts].map(([part, values]) => ({ part, ...byCount(values)[0] }));
}

/** A value with how many elements have it. */
interface Counted {
  readonly value: string;
  readonly count: number;
}

export interface UsualShape extends Counted {
  readonly part: HousePart;
}

function countIn<Key>(counts: Map<Key, Map<string, number>>, key: Key, value: string): void {
  let values = counts.get(key);
  if (!values) counts.set(key, (values = new Map()));
  values.set(value, (values.get(value) ?? 0) + 1);
}

function byCount(values: ReadonlyMap<string, number>): Counted[] {
  return [...values]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1));
}
