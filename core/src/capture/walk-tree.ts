import type { DefaultTreeAdapterTypes as P5 } from 'parse5';

/** Every element of a parsed document in its order, with where it stands; contents of templates left out. Without recursion: hostile pages nest deeply. */
export function walkTree(
  root: P5.ParentNode,
  visit: (element: P5.Element, parent: P5.ParentNode, index: number) => void,
): void {
  const stack: { readonly parent: P5.ParentNode; index: number }[] = [{ parent: root, index: 0 }];
  for (let top = stack.at(-1); top; top = stack.at(-1)) {
    const { parent, index } = top;
    const node = parent.childNodes[index];
    if (!node) {
      stack.pop();
      continue;
    }
    top.index += 1;
    if (!('tagName' in node)) continue;
    visit(node, parent, index);
    stack.push({ parent: node, index: 0 });
  }
}
