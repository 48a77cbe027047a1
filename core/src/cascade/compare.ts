import { compareSpecificity } from '../selectors/selector.js';
import type { MatchedBlock } from './block.js';

/** The criterion that decides between two declarations. Source: CSS Cascading 5 §6.1 and CSS Cascading 6 §2.4. */
export type Criterion =
  'importance' | 'origin' | 'context' | 'attachment' | 'layer' | 'specificity' | 'proximity' | 'order';

const ORIGIN_RANK: Readonly<Record<MatchedBlock['origin'], number>> = { 'user-agent': 0, hint: 1, author: 2 };

/** One side of a comparison: a declaration of a block. */
export interface Contender {
  readonly block: MatchedBlock;
  readonly important: boolean;
}

/**
 * Compares two declarations of one property by the cascade.
 * @returns positive when `a` wins, with the first criterion that tells them apart; 0 for the same one.
 */
export function compareCascade(a: Contender, b: Contender): { readonly order: number; readonly criterion: Criterion } {
  if (a.important !== b.important) return { order: a.important ? 1 : -1, criterion: 'importance' };
  // Important declarations turn the order of origins, contexts and layers round.
  const sign = a.important ? -1 : 1;
  const origin = (ORIGIN_RANK[a.block.origin] - ORIGIN_RANK[b.block.origin]) * sign;
  if (origin !== 0) return { order: origin, criterion: 'origin' };
  const context = (b.block.treeDepth - a.block.treeDepth) * sign;
  if (context !== 0) return { order: context, criterion: 'context' };
  if (a.block.attached !== b.block.attached) return { order: a.block.attached ? 1 : -1, criterion: 'attachment' };
  const layer = (a.block.layerRank - b.block.layerRank) * sign;
  if (layer !== 0) return { order: layer, criterion: 'layer' };
  const specificity = compareSpecificity(a.block.specificity, b.block.specificity);
  if (specificity !== 0) return { order: specificity, criterion: 'specificity' };
  if (a.block.proximity !== b.block.proximity)
    return { order: b.block.proximity - a.block.proximity, criterion: 'proximity' };
  return { order: a.block.order - b.block.order, criterion: 'order' };
}

/** Order of two blocks as their normal declarations rank: the cascade's, without saying why. For sorting. */
export function compareBlocks(a: MatchedBlock, b: MatchedBlock): number {
  return (
    ORIGIN_RANK[a.origin] - ORIGIN_RANK[b.origin] ||
    b.treeDepth - a.treeDepth ||
    Number(a.attached) - Number(b.attached) ||
    a.layerRank - b.layerRank ||
    compareSpecificity(a.specificity, b.specificity) ||
    (a.proximity === b.proximity ? 0 : b.proximity - a.proximity) ||
    a.order - b.order
  );
}

/**
 * Ranks of layers: later ones win, and a layer's own rules win over its sublayers'.
 * Source: CSS Cascading 5 §6.4.3.
 * @param names full names in order of first appearance.
 * @returns rank by name; rules outside layers rank above, with `names.length`.
 */
export function rankLayers(names: readonly string[]): ReadonlyMap<string, number> {
  const ranks = new Map<string, number>();
  const visit = (prefix: string): void => {
    for (const name of names) {
      const isChild =
        prefix === ''
          ? !name.includes('.')
          : name.startsWith(`${prefix}.`) && !name.slice(prefix.length + 1).includes('.');
      if (!isChild) continue;
      visit(name);
      ranks.set(name, ranks.size);
    }
  };
  visit('');
  return ranks;
}
