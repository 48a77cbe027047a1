import { generate, parse, type CssNode } from 'css-tree';

/** A rule that two sheets do not have alike. */
export interface RuleDifference {
  /** Conditions it stands under, outermost first: `@media (hover: hover)`. */
  readonly within: readonly string[];
  readonly selector: string;
  /** Declarations that only one of them has, as written without semicolons. */
  readonly gone: readonly string[];
  readonly come: readonly string[];
  /** Whether one of them has no such rule at all. */
  readonly kind: 'gone' | 'come' | 'changed';
}

interface Rule {
  readonly within: readonly string[];
  readonly selector: string;
  readonly declarations: Set<string>;
}

/**
 * Rules in which two sheets differ, by what they say, in the order of the second, those that are gone after them and definitions for the
 * root last. Each selector of a list counts by itself, so that lists put together otherwise make no difference, as comments, blanks and
 * the order of rules make none. What cannot be read as a rule is left out.
 */
export function sheetDifference(before: string, after: string): RuleDifference[] {
  const [old, now] = [rulesOf(before), rulesOf(after)];
  const together = new Map<string, RuleDifference>();
  const note = ({ selector, ...found }: RuleDifference): void => {
    const key = JSON.stringify(found);
    const like = together.get(key);
    together.set(key, { ...found, selector: like ? `${like.selector}, ${selector}` : selector });
  };
  for (const [key, { within, selector, declarations }] of now) {
    const was = old.get(key)?.declarations ?? new Set<string>();
    const come = [...declarations].filter((own) => !was.has(own));
    const gone = [...was].filter((own) => !declarations.has(own));
    if (come.length + gone.length > 0) note({ within, selector, gone, come, kind: old.has(key) ? 'changed' : 'come' });
  }
  for (const [key, { within, selector, declarations }] of old)
    if (!now.has(key)) note({ within, selector, gone: [...declarations], come: [], kind: 'gone' });
  const found = [...together.values()];
  const isOfRoot = ({ selector }: RuleDifference): boolean => selector.startsWith(':root');
  return [...found.filter((own) => !isOfRoot(own)), ...found.filter(isOfRoot)];
}

function rulesOf(css: string): Map<string, Rule> {
  const rules = new Map<string, Rule>();
  const root = parse(css, { parseValue: false, parseAtrulePrelude: false });
  const visit = (nodes: Iterable<CssNode>, within: readonly string[]): void => {
    for (const node of nodes) {
      if (node.type === 'Atrule' && node.block)
        visit(node.block.children, [...within, `@${node.name} ${node.prelude ? generate(node.prelude) : ''}`.trim()]);
      if (node.type !== 'Rule') continue;
      const declarations = [...node.block.children].flatMap((own) =>
        own.type === 'Declaration'
          ? [`${own.property}: ${generate(own.value).trim()}${own.important ? ' !important' : ''}`]
          : [],
      );
      for (const one of node.prelude.type === 'SelectorList' ? node.prelude.children : [node.prelude]) {
        const selector = generate(one);
        const key = JSON.stringify([within, selector]);
        const rule = rules.get(key) ?? { within, selector, declarations: new Set<string>() };
        rules.set(key, rule);
        for (const own of declarations) rule.declarations.add(own);
      }
    }
  };
  if (root.type === 'StyleSheet') visit(root.children, []);
  return rules;
}
