import { message } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { isLink } from '../selectors/element-states.js';
import { nameTold } from '../selectors/describe-element.js';
import { StyleView } from '../resolve/style-view.js';
import type { Causes } from './causes.js';
import type { PageLook } from './looked.js';
import { decidingDeclaration } from '../census/paintings.js';

/**
 * A visited link that is hovered or pressed: a rule for visited links that stands later, or is stronger, hides the other.
 * Source: CSS 2.2 §5.11.3, the order link, visited, hover, active.
 */
export function lookAtLinkOrder(
  on: PageLook,
  elements: readonly ElementNode[],
  views: { readonly visited: StyleView; readonly hover: StyleView },
  into: Causes,
): void {
  const links = elements.filter((element) => isLink(element) && !on.isHidden(on.rest, element));
  if (links.length === 0) return;
  const both = new StyleView(on.page, {
    environment: on.setting,
    states: new Map(links.map((link) => [link, new Set(['visited', 'hover'])])),
  });
  for (const element of links) {
    const [visited, hover, together, rest] = [views.visited, views.hover, both, on.rest].map((view) =>
      view.style(element).seen('color').color('color'),
    );
    if (!visited || !hover || !together || !rest) continue;
    const [asVisited, asHovered, asBoth, atRest] = [visited, hover, together, rest].map(hexOf);
    if (asHovered === atRest || asVisited === atRest) continue;
    into.look('answers', element.number);
    if (asBoth !== asVisited || asVisited === asHovered) continue;
    const { decided } = decidingDeclaration(both.style(element).seen('color'), 'color');
    into.note({
      kind: 'answers',
      level: 'look',
      cause: ['order', decided?.block.rule?.selectorText ?? '', asHovered, asVisited].join('|'),
      what: message('proof.once-visited-no-longer'),
      name: nameTold(element),
      basis: message('proof.hovered-but-visited-hovered', {
        asHovered,
        asVisited,
        wins: decided?.block.rule ? 'rule' : 'none',
        rule: decided?.block.rule?.selectorText ?? '',
      }),
      figure: null,
      needed: null,
      unit: 'none',
      place: {
        pageId: on.pageId,
        element: element.number,
        pseudo: '',
        property: 'color',
        index: 0,
        state: 'visited',
        setting: on.setting,
        lighting: on.lighting,
        partId: on.partIdOf(element),
      },
      mend: null,
    });
  }
}
