import type { ElementNode } from '../dom/tree.js';
import { sameColor } from '../color/same-color.js';
import type { OverrideState } from '../veneer/override.js';
import { Readings, differsToTheEye, textsOver, type Reading } from './legibility.js';
import type { StateMap } from '../selectors/match-context.js';
import { type PageViews } from './page-views.js';
import type { EffectsTally } from './effects-tally.js';
import type { PageQuestion } from './page-question.js';

/** Reads everything on a page that the change tells on, in every state, wherever its looks can differ. */
export function readPage(
  { override, aim, pageId, after, before, read }: PageQuestion,
  inState: ReadonlyMap<OverrideState, StateMap>,
  hits: ReadonlySet<ElementNode>,
  touched: readonly ElementNode[],
  targets: ReadonlySet<ElementNode>,
  views: PageViews,
  tally: EffectsTally,
): void {
  const touchedSet = new Set(touched);
  for (const setting of read) {
    const layout = after.layouts?.get(setting.width);
    const beside = layout
      ? textsOver(layout, after.document.elements, hits).filter((element) => !touchedSet.has(element))
      : [];
    for (const [state, states] of inState) {
      const viewAfter = views.view(after, setting, state, states);
      const viewBefore = views.view(before, setting, state, states);
      const [now, then] = [new Readings(viewAfter, state), new Readings(viewBefore, state)];
      const changed = new Map<ElementNode, boolean>();
      const isChanged = (element: ElementNode): boolean => {
        const known = changed.get(element);
        if (known !== undefined) return known;
        const parent = element.flatParent;
        const answer =
          (parent !== null && touchedSet.has(parent) && isChanged(parent)) ||
          differsToTheEye(viewAfter.style(element), viewBefore.style(element));
        changed.set(element, answer);
        return answer;
      };
      const take = (element: ElementNode, pseudo: string, isTarget: boolean): void => {
        const earlier = then.of(element, pseudo);
        for (const reading of now.of(element, pseudo)) {
          const same = earlier.find(({ kind }) => kind === reading.kind) ?? null;
          // What comes out as before is no matter of the change, unless it was meant.
          if (isTarget || !same || !isSameReading(reading, same))
            tally.legibility.take({ ...reading, spot: { pageId, element: element.number }, state, setting }, same);
        }
      };
      for (const element of touched) {
        const isTarget = targets.has(element) && state === aim.state;
        if (override.pseudo !== '') {
          if (isTarget) take(element, override.pseudo, true);
          continue;
        }
        if (!isTarget && !isChanged(element)) continue;
        take(element, '', isTarget);
        if (element.attributes.has('placeholder')) take(element, 'placeholder', false);
        for (const pseudo of ['before', 'after'])
          if (viewAfter.generates(element, pseudo)) take(element, pseudo, false);
      }
      for (const element of beside) take(element, '', false);
    }
  }
}

function isSameReading(a: Reading, b: Reading): boolean {
  return a.doubt === b.doubt && sameColor(a.ink, b.ink) && sameColor(a.ground, b.ground);
}
