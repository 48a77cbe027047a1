import MagicString from 'magic-string';
import { expandDeclaration } from '../properties/expand-declaration.js';
import { VISITED_LONGHANDS } from '../properties/longhands.js';
import { STATE_PSEUDO_CLASSES } from '../selectors/pseudo-names.js';
import type { BodyNode, DeclarationNode, QualifiedNode, RuleNode } from '../syntax/nodes.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { T, isDelim, tokenText, tokenizeCss } from '../syntax/tokens.js';

/** Attribute that stands for a state in the frame. */
export function stateAttribute(state: string): string {
  return `data-uv-${state}`;
}

const STATES: ReadonlySet<string> = new Set(STATE_PSEUDO_CLASSES);

/**
 * A stylesheet in which every state pseudo-class also answers to an attribute of equal specificity, so that the
 * frame can draw any state. Rules for visited links are repeated for the attribute with the longhands browsers
 * permit there. Everything else keeps its text.
 */
export function rewriteStates(css: string): string {
  const edits: { at: number; end: number; text: string }[] = [];
  const visit = (nodes: readonly BodyNode[] | readonly RuleNode[]): void => {
    for (const node of nodes) {
      if (
        node.kind === 'at' &&
        node.body &&
        node.name !== 'keyframes' &&
        node.name !== '-webkit-keyframes' &&
        node.name !== 'property'
      ) {
        if (node.name === 'scope') rewriteInto(css, node.preludeStart, node.preludeEnd, edits);
        visit(node.body);
      } else if (node.kind === 'qualified') {
        rewriteInto(css, node.start, node.preludeEnd, edits);
        const copy = visitedCopy(css, node);
        if (copy) edits.push({ at: node.end, end: node.end, text: copy });
        visit(node.body);
      }
    }
  };
  visit(parseStylesheet(css).rules);
  return applyEdits(css, edits);
}

function applyEdits(
  text: string,
  edits: readonly { readonly at: number; readonly end: number; readonly text: string }[],
): string {
  const edited = new MagicString(text);
  let last = 0;
  for (const { at, end, text: replacement } of [...edits].sort((a, b) => a.at - b.at)) {
    if (at < last) continue;
    if (end > at) edited.update(at, end, replacement);
    else edited.appendLeft(at, replacement);
    last = end;
  }
  return edited.toString();
}

function rewriteInto(css: string, from: number, to: number, edits: { at: number; end: number; text: string }[]): void {
  for (const edit of stateEdits(css.slice(from, to), false))
    edits.push({ at: edit.at + from, end: edit.end + from, text: edit.text });
}

/** Replacements for the state pseudo-classes of a prelude; those after a pseudo-element stay. */
function stateEdits(prelude: string, forVisitedCopy: boolean): { at: number; end: number; text: string }[] {
  const tokens = tokenizeCss(prelude);
  const edits: { at: number; end: number; text: string }[] = [];
  let afterPseudoElement = false;
  for (let i = 0; i < tokens.count; i += 1) {
    const type = tokens.types[i];
    if (
      type === T.WhiteSpace ||
      type === T.Comma ||
      isDelim(tokens, i, '>') ||
      isDelim(tokens, i, '+') ||
      isDelim(tokens, i, '~')
    )
      afterPseudoElement = false;
    if (type !== T.Colon || i + 1 >= tokens.count) continue;
    if (tokens.types[i + 1] === T.Colon) {
      afterPseudoElement = true;
      i += 2;
      continue;
    }
    const name = tokenText(tokens, i + 1).toLowerCase();
    if (afterPseudoElement || tokens.types[i + 1] !== T.Ident || !STATES.has(name)) continue;
    const attribute = `[${stateAttribute(name)}]`;
    let text = `:is(:${name}, ${attribute})`;
    if (name === 'visited') text = forVisitedCopy ? attribute : ':visited';
    if (name === 'link') text = `:link:where(:not([${stateAttribute('visited')}]))`;
    edits.push({ at: tokens.starts[i], end: tokens.ends[i + 1], text });
  }
  return edits;
}

function visitedCopy(css: string, node: QualifiedNode): string | null {
  const prelude = css.slice(node.start, node.preludeEnd);
  if (!/:visited/i.test(prelude)) return null;
  const declarations = node.body
    .filter((item): item is DeclarationNode => item.kind === 'declaration')
    .flatMap((declaration) => {
      const expansion = expandDeclaration(declaration.name, declaration.value);
      if (!expansion.valid) return [];
      return expansion.longhands
        .filter(({ property }) => VISITED_LONGHANDS.has(property))
        .flatMap(({ property, value }) => {
          const text =
            value.kind === 'wide'
              ? value.keyword
              : value.kind === 'variable' && value.shorthand !== null
                ? null
                : value.text;
          return text === null ? [] : [`${property}: ${text}${declaration.important ? ' !important' : ''}`];
        });
    });
  if (declarations.length === 0) return null;
  return `\n${applyEdits(prelude, stateEdits(prelude, true)).trim()} { ${declarations.join('; ')} }`;
}
