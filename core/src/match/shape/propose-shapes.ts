import { message, type Message } from '../../message/message.js';
import { plainCssOfValue, type OverrideValue } from '../../veneer/override-value.js';
import type { Palette } from '../../veneer/palette.js';
import type { MatchChoices } from '../proposal.js';
import type { MatchScope } from '../scope.js';
import { resolvedAlone } from './resolved-alone.js';
import type { FoundShape, ShapeBecomes, Held } from './found-shape.js';
import { habitKey, type FoundShapes } from './find-shapes.js';

export interface ProposedShape {
  readonly found: FoundShape;
  readonly becomes: ShapeBecomes;
  /** The override's value; `null` where it is left alone. */
  readonly value: OverrideValue | null;
  /** CSS it comes to. */
  readonly css: string;
  readonly reason: Message;
  readonly isLocked: boolean;
  /** What else it could become, with the CSS of each. */
  readonly options: readonly { readonly becomes: ShapeBecomes; readonly css: string }[];
}

/** Elements around the scope that have to agree for a habit (common practice). */
const LEAST_HABIT = 2;

const HELD_BY: Readonly<Record<Held, string>> = {
  '': 'none',
  'an exception': 'exception',
  'corners differ by side': 'corners',
  'edges differ by side': 'edges',
  'round as it is': 'round',
  'signs or code': 'signs',
};

/**
 * What each shape of a scope becomes: the house's where it is settled; else, blended in, what most things of its kind around the
 * scope have. What is round, differs by side, or is an exception stays, unless it is chosen by hand.
 */
export function proposeShapes(
  { rows, habit }: FoundShapes,
  scope: MatchScope,
  palette: Palette,
  { strategy, shapes = {} }: MatchChoices,
): ProposedShape[] {
  const own = new Map<string, number>();
  for (const row of rows) if (row.held === '') own.set(habitKey(row), (own.get(habitKey(row)) ?? 0) + row.elements);
  return rows.map((found): ProposedShape => {
    const house = palette.shape?.[found.part];
    const usual = scope.kind === 'parts' ? habit.get(habitKey(found)) : undefined;
    const [most] = usual ?? [];
    const all = (usual ?? []).reduce((sum, { count }) => sum + count, 0);
    // What is most of its kind on these pages is the habit itself.
    const isHabit = most && most.count >= Math.max(LEAST_HABIT, own.get(habitKey(found)) ?? 0);
    const page = isHabit ? most.value : undefined;
    const options: ProposedShape['options'] = [
      ...(house === undefined ? [] : [{ becomes: 'house' as const, css: house }]),
      ...(page === undefined ? [] : [{ becomes: 'page' as const, css: page }]),
      { becomes: 'leave' as const, css: found.value },
    ];
    const comesToIt = (css: string): boolean =>
      found.places.every(({ properties }) =>
        properties.every((property) => resolvedAlone(property, css) === found.value),
      );
    const isOurs = house === undefined ? found.value === page : comesToIt(house);
    const proposed: readonly [ShapeBecomes, Message] =
      found.held !== ''
        ? ['leave', message('match.held', { by: HELD_BY[found.held] })]
        : house !== undefined && found.kind !== 'line'
          ? ['house', message(isOurs ? 'match.house-already' : 'match.house')]
          : page !== undefined && strategy === 'blend' && house === undefined
            ? [
                'page',
                isOurs
                  ? message('match.around-already')
                  : message('match.around', { count: most.count, all, kind: found.kind }),
              ]
            : ['leave', message(house === undefined && strategy === 'blend' ? 'match.no-habit' : 'match.left')];
    const chosen = shapes[found.id];
    const isKnown = chosen !== undefined && options.some(({ becomes }) => becomes === chosen);
    const becomes = isKnown ? chosen : proposed[0];
    const value: OverrideValue | null =
      becomes === 'house'
        ? { kind: 'house', part: found.part }
        : becomes === 'page' && page !== undefined
          ? { kind: 'literal', css: page }
          : null;
    const css = value ? plainCssOfValue(value, palette) : found.value;
    return {
      found,
      becomes,
      // What is so already needs no override, however it is written.
      value: value && comesToIt(css) ? null : value,
      css,
      reason: isKnown ? message('match.set-hand') : proposed[1],
      isLocked: isKnown,
      options,
    };
  });
}
