import type { CssNode } from 'css-tree';

/** Nodes between the commas of a list, white space left out; one empty group for no nodes. */
export function groupsBetweenCommas(nodes: readonly CssNode[]): CssNode[][] {
  const groups: CssNode[][] = [[]];
  for (const node of nodes) {
    if (node.type === 'Operator' && node.value === ',') groups.push([]);
    else if (node.type !== 'WhiteSpace') groups[groups.length - 1].push(node);
  }
  return groups;
}
