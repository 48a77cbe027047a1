import type { Page as BrowserPage } from 'playwright-core';

/** Pseudo-states as CDP's `CSS.forcePseudoState` names them. `rest` forces none. */
export type ForcedState = 'rest' | 'hover' | 'focus' | 'focus-visible' | 'active';

interface CdpNode {
  readonly nodeId: number;
  readonly shadowRoots?: readonly CdpNode[];
  readonly children?: readonly CdpNode[];
  readonly shadowRootType?: string;
}

/** States given to elements of a loaded page by their numbers in the core: the document's elements, then those of shadow trees, tree by tree. */
export async function forceStates(browserPage: BrowserPage): Promise<{
  readonly force: (number: number, states: readonly ForcedState[]) => Promise<void>;
  readonly end: () => Promise<void>;
}> {
  const session = await browserPage.context().newCDPSession(browserPage);
  await session.send('DOM.enable');
  await session.send('CSS.enable');
  const { root } = await session.send('DOM.getDocument', { depth: -1, pierce: true });
  const { nodeIds } = await session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: '*' });
  const ids: number[] = [...nodeIds];
  const shadowOf = new Map<number, number>();
  const index = (node: CdpNode): void => {
    const shadow = node.shadowRoots?.find((candidate) => candidate.shadowRootType !== 'user-agent');
    if (shadow) shadowOf.set(node.nodeId, shadow.nodeId);
    for (const child of [...(node.children ?? []), ...(node.shadowRoots ?? [])]) index(child);
  };
  index(root as CdpNode);
  // The list grows while shadow trees inside shadow trees are found.
  for (const id of ids) {
    const shadow = shadowOf.get(id);
    if (shadow !== undefined)
      ids.push(...(await session.send('DOM.querySelectorAll', { nodeId: shadow, selector: '*' })).nodeIds);
  }
  return {
    force: async (number, states) => {
      await session.send('CSS.forcePseudoState', {
        nodeId: ids[number],
        forcedPseudoClasses: states.filter((state) => state !== 'rest'),
      });
    },
    end: () => session.detach(),
  };
}
