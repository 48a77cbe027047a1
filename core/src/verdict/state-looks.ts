import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { applicableStates } from '../grid/applicable-states.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { isOfAnother, type OverrideState, type Spot } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { isBrandColor } from '../palette/brand-color.js';

/** What else can lie over a property that is overridden at rest, or dim it. */
const LAID_OVER: Readonly<Record<string, readonly string[]>> = {
  'background-color': ['background-image', 'box-shadow', 'opacity'],
  color: ['opacity', 'text-shadow'],
};

/** A state of targets that an override covers, that the page still decides, or that comes in through another property. */
export interface StateLook {
  readonly state: OverrideState;
  readonly kind: 'hidden' | 'left behind' | 'laid over';
  /** The longhand by which the state shows. */
  readonly property: string;
  /** What the page showed in the state, on the first of them; what it shows at rest, where another property is laid over. */
  readonly before: string;
  /** What it showed or still shows, each once: hex of a colour, else the value. */
  readonly shown: readonly string[];
  readonly spots: readonly Spot[];
}

/** A page in a state, with an override and without it. */
export interface StateViews {
  readonly after: StyleView;
  readonly before: StyleView;
}

/** What an override is looked at for. */
export interface StateAim {
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly longhand: string;
  readonly palette: Palette;
}

/** The states of one target that an override covers or leaves behind. @param views of its page, by state; those at rest and in the override's own among them. */
export function stateLooksOf(
  element: ElementNode,
  spot: Spot,
  views: ReadonlyMap<OverrideState, StateViews>,
  { pseudo, state: own, longhand, palette }: StateAim,
): StateLook[] {
  const [rest, aimed] = [views.get('rest'), views.get(own)];
  if (!rest || !aimed) return [];
  const restBefore = rest.before.style(element, pseudo).resolved(longhand);
  const now = aimed.after.style(element, pseudo).resolved(longhand);
  const applicable = applicableStates(element, pseudo);
  return [...views].flatMap(([state, view]): StateLook[] => {
    if (state === own || (!applicable.includes(state) && !isOfAnother(state))) return [];
    const after = view.after.style(element, pseudo);
    const value = after.resolved(longhand);
    const before = view.before.style(element, pseudo).resolved(longhand);
    const color = after.color(longhand);
    const over =
      own === 'rest'
        ? laidOver(after, aimed.after.style(element, pseudo), longhand).map((property): StateLook => ({
            state,
            kind: 'laid over',
            property,
            before: aimed.after.style(element, pseudo).resolved(property),
            shown: [after.resolved(property)],
            spots: [spot],
          }))
        : [];
    if (isVeneered(after, longhand))
      return [
        ...(own === 'rest' && before !== restBefore && value === now
          ? [{ state, kind: 'hidden' as const, property: longhand, before, shown: [before], spots: [spot] }]
          : []),
        ...over,
      ];
    const isPaint = color !== null && (color.alpha ?? 0) > 0;
    return [
      ...(isPaint && !isOfAnother(own) && value !== now && !isBrandColor(color, palette)
        ? [{ state, kind: 'left behind' as const, property: longhand, before, shown: [hexOf(color)], spots: [spot] }]
        : []),
      ...over,
    ];
  });
}

/** Properties by which the page lays something over an overridden one in a state, or dims it, that it does not at rest. */
function laidOver(inState: ElementStyle, atRest: ElementStyle, longhand: string): string[] {
  return (LAID_OVER[longhand] ?? []).filter(
    (property) =>
      !isVeneered(inState, property) &&
      inState.resolved(property) !== atRest.resolved(property) &&
      inState.resolved(property) !== 'none',
  );
}

/** What is said of one state put together, all its elements named. */
export function gatherLooks(looks: readonly StateLook[]): StateLook[] {
  const byKind = new Map<string, StateLook>();
  for (const look of looks) {
    const key = `${look.state}|${look.kind}|${look.property}`;
    const known = byKind.get(key);
    const isNamed = known?.spots.some(
      ({ pageId, element }) => pageId === look.spots[0].pageId && element === look.spots[0].element,
    );
    byKind.set(
      key,
      known
        ? {
            ...known,
            shown: [...new Set([...known.shown, ...look.shown])],
            spots: isNamed ? known.spots : [...known.spots, ...look.spots],
          }
        : look,
    );
  }
  return [...byKind.values()];
}

/** Whether a declaration of the veneer decides a property. */
export function isVeneered(style: ElementStyle, property: string): boolean {
  return style.seen(property).ranked(property)[0]?.block.rule?.sheet.name === VENEER_SHEET_NAME;
}

/** One of each kind of targets: those with the same names, in the same surroundings, come out the same. */
export function oneOfEachKind(elements: readonly ElementNode[]): ElementNode[] {
  const kinds = new Map<string, ElementNode>();
  const keys = new Map<ElementNode | null, string>([[null, '']]);
  const keyOf = (element: ElementNode): string => {
    const known = keys.get(element);
    if (known !== undefined) return known;
    const parent = element.flatParent;
    const key = `${parent ? keyOf(parent) : ''}>${element.localName}#${element.id ?? ''}.${element.classes.join('.')}`;
    keys.set(element, key);
    return key;
  };
  for (const element of elements) {
    const key = keyOf(element);
    if (!kinds.has(key)) kinds.set(key, element);
  }
  return [...kinds.values()].slice(0, MOST_KINDS);
}

const MOST_KINDS = 60;
