import { parse, type CssNode } from 'css-tree';

const known = new Map<string, readonly CssNode[]>();
const MOST_KNOWN = 4_000;
/** Longer texts, such as pictures written into a value, are not kept; UTF-16 units. */
const LONGEST_KEPT = 1_000;

/** Components of a value, which callers read and never change; none where css-tree does not take the text. */
export function valueNodes(text: string): readonly CssNode[] {
  const before = known.get(text);
  if (before) return before;
  const nodes = read(text);
  if (known.size >= MOST_KNOWN) known.clear();
  if (text.length < LONGEST_KEPT) known.set(text, nodes);
  return nodes;
}

function read(text: string): readonly CssNode[] {
  try {
    const root = parse(text, { context: 'value' });
    return root.type === 'Value' ? root.children.toArray() : [];
  } catch (error) {
    // Of most texts it makes what it can; a malformed range of code points (`u+zz`) it throws.
    if (error instanceof SyntaxError) return [];
    throw error;
  }
}
