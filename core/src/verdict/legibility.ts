import type { Message } from '../message/message.js';
import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import { isInactive } from '../selectors/element-states.js';
import type { ElementNode } from '../dom/tree.js';
import { boxOf, rectsOf, type PageLayout } from '../resolve/page-layout.js';
import { edgeOver } from '../ground/edge-over.js';
import { surroundingsOf, type Surroundings } from '../ground/surroundings.js';
import { kindOf } from '../selectors/alike.js';
import { drawnEdges } from '../resolve/drawn-edges.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import type { Setting } from '../conditions/environment.js';
import { generatesWords, showsText, stringsIn, wantedRatio } from '../resolve/text-figures.js';
import type { Color } from '../values/color.js';
import type { OverrideState, Spot } from '../veneer/override.js';

/** What is read or seen: a text by its kind, the edge of a field, the ring of what has the focus. */
export type ReadKind = 'text' | 'placeholder' | 'selection' | 'sign' | 'edge' | 'ring';

/** One thing held against what lies under or around it. */
export interface Reading {
  readonly kind: ReadKind;
  /** Contrast ratio, 1–21, and the one asked for. */
  readonly ratio: number;
  readonly wanted: number;
  /** Its own colour as painted, and the one it is held against. */
  readonly ink: Color;
  readonly ground: Color;
  /** Why the ratio cannot be told; empty where it can. */
  readonly doubt: Message | null;
  readonly by: Surroundings['by'];
}

/** A reading with its place. */
export interface PlacedReading extends Reading {
  readonly spot: Spot;
  readonly state: OverrideState;
  readonly setting: Setting;
}

/** All readings of one kind that a change tells on. */
export interface ReadingTally {
  readonly kind: ReadKind;
  /** Elements looked at. */
  readonly judged: ReadonlySet<string>;
  /** Worst reading of each element that fails somewhere, the worst first. */
  readonly failing: readonly PlacedReading[];
  /** How many of those fail nowhere that they did not fail before the change as well. */
  readonly already: number;
  readonly worst: PlacedReading | null;
  /** Elements whose ratio cannot be told, by reason. */
  readonly doubtful: readonly { readonly spot: Spot; readonly doubt: Message }[];
  /** Whether some were held against their ancestors alone, for want of boxes. */
  readonly hasChains: boolean;
}

/** Collects readings over a whole site. */
export class Legibility {
  readonly #worst = new Map<string, PlacedReading>();
  readonly #judged = new Map<ReadKind, Set<string>>();
  readonly #failsAnew = new Set<string>();
  readonly #doubtful = new Map<string, { readonly kind: ReadKind; readonly spot: Spot; readonly doubt: Message }>();
  readonly #chains = new Set<ReadKind>();

  /** Takes a reading in; `before` is the same without the change. */
  take(reading: PlacedReading, before: Reading | null): void {
    const key = `${reading.kind}|${reading.spot.pageId}/${reading.spot.element}`;
    let judged = this.#judged.get(reading.kind);
    if (!judged) this.#judged.set(reading.kind, (judged = new Set()));
    judged.add(key);
    if (reading.doubt !== null) {
      this.#doubtful.set(key, { kind: reading.kind, spot: reading.spot, doubt: reading.doubt });
      return;
    }
    if (reading.by === 'chain') this.#chains.add(reading.kind);
    const failedBefore = before !== null && before.doubt === null && before.ratio < before.wanted;
    if (margin(reading) < 1 && !failedBefore) this.#failsAnew.add(key);
    const known = this.#worst.get(key);
    if (!known || margin(reading) < margin(known)) this.#worst.set(key, reading);
  }

  /** What was found, by kind. */
  tallies(): ReadingTally[] {
    return [...this.#judged].map(([kind, judged]) => {
      const own = [...this.#worst]
        .filter(([, reading]) => reading.kind === kind)
        .sort(([, a], [, b]) => margin(a) - margin(b));
      const failing = own.filter(([, reading]) => margin(reading) < 1);
      const failed = new Set(failing.map(([key]) => key));
      const doubtful = [...this.#doubtful].filter(([key, entry]) => entry.kind === kind && !failed.has(key));
      return {
        kind,
        judged,
        failing: failing.map(([, reading]) => reading),
        already: failing.filter(([key]) => !this.#failsAnew.has(key)).length,
        worst: own[0]?.[1] ?? null,
        doubtful: doubtful.map(([, { spot, doubt }]) => ({ spot, doubt })),
        hasChains: this.#chains.has(kind),
      };
    });
  }
}

/** How far a reading is from what is asked: under 1 it fails. */
function margin({ ratio, wanted }: Reading): number {
  return ratio / wanted;
}

/** Readings of the elements of one view: alike elements in alike places are reckoned once, where no boxes tell them apart. */
export class Readings {
  readonly #shown = new Map<ElementNode, boolean>();
  readonly #layout: PageLayout | undefined;
  readonly #isShared: boolean;

  constructor(
    readonly view: StyleView,
    readonly state: OverrideState,
  ) {
    this.#layout = view.page.layouts?.get(view.environment.width);
    // What is inside visited links looks otherwise than its values say.
    this.#isShared = state !== 'visited';
  }

  /** What is read of an element, or of one of its pseudo-elements. Nothing of what is not shown, and of what is off. */
  of(element: ElementNode, pseudo: string): readonly Reading[] {
    const style = this.view.style(element, pseudo);
    if (this.state === 'disabled') return [];
    if (this.#layout || !this.#isShared) return this.#make(style);
    return this.view.share.once(style.identity, `read ${element.number}${this.#isFocused ? ' focus' : ''}`, () =>
      this.#make(style),
    );
  }

  /** Grounds by what alike elements share: their values and those of all around them. */
  #around(style: ElementStyle): Surroundings {
    if (this.#layout || !this.#isShared || style.pseudo !== '')
      return surroundingsOf(this.view, style.element, style.pseudo);
    return this.view.share.once(style.identity, 'around', () => surroundingsOf(this.view, style.element));
  }

  get #isFocused(): boolean {
    return this.state === 'focus' || this.state === 'focused';
  }

  #make(style: ElementStyle): readonly Reading[] {
    const { element, pseudo } = style;
    // WCAG 2.2 asks nothing of an inactive control (1.4.3, 1.4.11).
    if (isInactive(element) || !this.#isShown(element)) return [];
    const readings: Reading[] = [];
    const isField = pseudo === '' && kindOf(element) === 'field';
    if (!hasInk(style) && !isField && !this.#isFocused) return [];
    const around = this.#around(style);
    const { by } = around;
    const doubt = around.doubts[0] ?? null;
    const doubtOutside = around.outsideDoubts[0] ?? null;
    if (hasInk(style) && !around.isHidden) {
      const wanted =
        ['before', 'after', 'marker'].includes(pseudo) && !generatesWords(style) ? RATIOS.nonText : wantedRatio(style);
      readings.push({
        kind: kindOfText(pseudo),
        ratio: around.ratio,
        wanted,
        ink: around.text,
        ground: around.ground,
        doubt,
        by,
      });
    }
    if (isField) {
      const edge = edgeOf(style, around);
      if (edge) readings.push({ ...edge, doubt: doubtOutside, by });
    }
    if (pseudo === '' && this.#isFocused) {
      const ring = ringOf(style, around);
      if (ring) readings.push({ ...ring, doubt: doubtOutside, by });
    }
    return readings;
  }

  #isShown(element: ElementNode): boolean {
    const known = this.#shown.get(element);
    if (known !== undefined) return known;
    const parent = element.flatParent;
    const style = this.view.style(element);
    const isShown = style.resolved('display') !== 'none' && (parent === null || this.#isShown(parent));
    this.#shown.set(element, isShown);
    return isShown;
  }
}

function kindOfText(pseudo: string): ReadKind {
  if (pseudo === 'placeholder') return 'placeholder';
  if (pseudo === 'selection') return 'selection';
  return pseudo === '' || pseudo.startsWith('first-') ? 'text' : 'sign';
}

/** Whether a style shows text that can be seen. */
function hasInk(style: ElementStyle): boolean {
  if (style.resolved('visibility') !== 'visible' || style.fontSize() === 0) return false;
  if (style.pseudo === 'before' || style.pseudo === 'after')
    return stringsIn(style.resolved('content')).some((string) => string.trim() !== '');
  return style.pseudo === 'placeholder' ? style.element.attributes.has('placeholder') : showsText(style);
}

/** What tells a field from its surroundings: its edge or its fill, whichever tells more. Source: WCAG 2.2, 1.4.11. */
function edgeOf(style: ElementStyle, { outsides }: Surroundings): Omit<Reading, 'doubt' | 'by'> | null {
  const edges = drawnEdges(style).flatMap(({ color }) => style.color(color) ?? []);
  if (edges.length === 0) return null;
  const fill = style.color('background-color');
  return worstOf(
    outsides.map((outside) => {
      const painted = [
        ...edges.map((edge) => edgeOver(style, edge, outside)),
        ...(fill ? [compositeOver(fill, outside)] : []),
      ];
      const ink = painted.reduce((best, color) =>
        contrastRatio(color, outside) > contrastRatio(best, outside) ? color : best,
      );
      return { kind: 'edge', ratio: contrastRatio(ink, outside), wanted: RATIOS.nonText, ink, ground: outside };
    }),
  );
}

/** The ring on both sides: against what lies around, and against the box it touches. Source: WCAG 2.2, 1.4.11 and 2.4.13. */
export function ringOf(style: ElementStyle, { outsides }: Surroundings): Omit<Reading, 'doubt' | 'by'> | null {
  const color = style.color('outline-color') ?? style.color('color');
  if (
    !color ||
    (color.alpha ?? 0) === 0 ||
    style.resolved('outline-style') === 'none' ||
    style.resolved('outline-width') === '0px'
  )
    return null;
  const fill = style.color('background-color');
  const touches = Number.parseFloat(style.resolved('outline-offset')) <= 0 && fill !== null && (fill.alpha ?? 0) > 0;
  return worstOf(
    outsides.flatMap((outside) =>
      [outside, ...(touches ? [compositeOver(fill, outside)] : [])].map((ground) => {
        const ink = compositeOver(color, outside);
        return { kind: 'ring' as const, ratio: contrastRatio(ink, ground), wanted: RATIOS.nonText, ink, ground };
      }),
    ),
  );
}

type Figure = Omit<Reading, 'doubt' | 'by'>;

function worstOf(figures: readonly Figure[]): Figure | null {
  return figures.length === 0 ? null : figures.reduce((worst, own) => (own.ratio < worst.ratio ? own : worst));
}

/** Longhands by which a text, its ground, an edge or a ring can come out otherwise. */
export const LEGIBILITY_LONGHANDS = [
  'color',
  '-webkit-text-fill-color',
  'background-color',
  'background-image',
  'opacity',
  'box-shadow',
  'display',
  'visibility',
  'font-size',
  'font-weight',
] as const;

/** Elements of a page whose text lies over one of some boxes, without standing in it. */
export function textsOver(
  layout: PageLayout,
  elements: readonly ElementNode[],
  boxes: Iterable<ElementNode>,
): ElementNode[] {
  const grounds = [...boxes].flatMap((element) => boxOf(layout, element.number) ?? []);
  if (grounds.length === 0) return [];
  return elements.filter(({ number }) =>
    rectsOf(layout.lines.get(number)).some((line) =>
      grounds.some(
        (ground) =>
          line.left < ground.left + ground.width &&
          ground.left < line.left + line.width &&
          line.top < ground.top + ground.height &&
          ground.top < line.top + line.height,
      ),
    ),
  );
}

/** Whether anything that legibility hangs on differs between two styles of one element. */
export function differsToTheEye(after: ElementStyle, before: ElementStyle): boolean {
  if (after.identity === before.identity) return false;
  return (
    LEGIBILITY_LONGHANDS.some((longhand) => after.resolved(longhand) !== before.resolved(longhand)) ||
    ['outline-color', 'outline-style', 'outline-width', 'border-top-color', 'border-top-width'].some(
      (longhand) => after.resolved(longhand) !== before.resolved(longhand),
    )
  );
}
