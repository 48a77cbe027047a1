import type { Message } from '../message/message.js';
import { canonicalName } from '../properties/longhands.js';
import { SHORTHANDS, ALL_LONGHANDS } from '../properties/shorthands.js';
import { expandDeclaration, type DeclaredValue } from '../properties/expand-declaration.js';
import { compareSpecificity, type ComplexSelector, type Specificity } from '../selectors/selector.js';
import type { DeclarationNode } from '../syntax/nodes.js';
import type { StyleRule } from '../rules/style-rule.js';

/** What one longhand gets from a block of declarations. */
export interface BlockEntry {
  readonly value: DeclaredValue;
  readonly declaration: DeclarationNode;
}

/** A block's declarations by longhand, the last of each kind; and those a browser throws away. */
export interface BlockDeclarations {
  readonly normal: ReadonlyMap<string, BlockEntry>;
  readonly important: ReadonlyMap<string, BlockEntry>;
  readonly discarded: readonly { readonly declaration: DeclarationNode; readonly reason: Message }[];
}

/** Where a block stands by the criteria of the cascade. Source: CSS Cascading 5 §6.1. */
export interface MatchedBlock {
  readonly origin: 'user-agent' | 'hint' | 'author';
  /** The rule; `null` for a `style` attribute and for presentational attributes. */
  readonly rule: StyleRule | null;
  readonly selector: ComplexSelector | null;
  readonly specificity: Specificity;
  /** Depth of the tree its sheet belongs to: 0 for the document, more inside shadow trees. */
  readonly treeDepth: number;
  readonly attached: boolean;
  /** Rank among the layers, higher later; rules outside layers come last. */
  readonly layerRank: number;
  /** Generations between the scope's root and the element; infinite without a scope. */
  readonly proximity: number;
  readonly order: number;
  readonly declarations: BlockDeclarations;
}

const blocks = new WeakMap<readonly DeclarationNode[], BlockDeclarations>();

/** The declarations of a block by longhand; worked out when an element first matches it. */
export function readBlock(declarations: readonly DeclarationNode[]): BlockDeclarations {
  let block = blocks.get(declarations);
  if (!block) {
    block = buildBlock(declarations);
    blocks.set(declarations, block);
  }
  return block;
}

function buildBlock(declarations: readonly DeclarationNode[]): BlockDeclarations {
  const normal = new Map<string, BlockEntry>();
  const important = new Map<string, BlockEntry>();
  const discarded: { declaration: DeclarationNode; reason: Message }[] = [];
  for (const declaration of declarations) {
    const expansion = expandDeclaration(declaration.name, declaration.value);
    if (!expansion.valid) {
      discarded.push({ declaration, reason: expansion.reason });
      continue;
    }
    const target = declaration.important ? important : normal;
    for (const { property, value } of expansion.longhands) target.set(property, { value, declaration });
  }
  return { normal, important, discarded };
}

/** Whether a property, as written, sets a longhand. */
export function setsLonghand(property: string, longhand: string): boolean {
  const name = canonicalName(property);
  return (
    name === longhand ||
    (name === 'all' && ALL_LONGHANDS.includes(longhand)) ||
    (SHORTHANDS.get(name)?.longhands.includes(longhand) ?? false)
  );
}

/**
 * Whether two blocks are one rule, or one attribute, that ranks alike in two views: each view makes blocks of its own, and of a list of
 * selectors a state can bring a more specific one in.
 */
export function ranksAlike(a: MatchedBlock | undefined, b: MatchedBlock | undefined): boolean {
  if (!a || !b) return a === b;
  return (
    a.rule === b.rule && a.declarations === b.declarations && compareSpecificity(a.specificity, b.specificity) === 0
  );
}
