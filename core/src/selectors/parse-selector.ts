import { message, type Message } from '../message/message.js';
import MagicString from 'magic-string';
import { ident, parse, string, toPlainObject } from 'css-tree';
import { T, splitAtCommas, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';
import {
  ANSWERED_PSEUDO_CLASSES,
  LEGACY_PSEUDO_ELEMENTS,
  OTHER_PSEUDO_ELEMENTS,
  RESOLVED_PSEUDO_ELEMENTS,
  SCROLLBAR_PSEUDO_CLASSES,
} from './pseudo-names.js';
import { PSEUDO_ELEMENT_ALIASES, WEBKIT_PSEUDO_ELEMENTS, mayFollow, mayFollowElement } from './after-pseudo-element.js';
import type {
  AttributeTest,
  Combinator,
  ComplexSelector,
  CompoundSelector,
  NthTest,
  PseudoClass,
  PseudoElementTest,
  SelectorList,
  Specificity,
} from './selector.js';
import { addSpecificity, greatestSpecificity } from './specificity.js';

/** A selector that a browser would refuse. */
export class SelectorError extends Error {
  readonly code = 'invalid-selector';
  override readonly name = 'SelectorError';

  constructor(readonly told: Message) {
    super(told.code);
  }
}

/** What surrounds the selector being read. */
export interface SelectorContext {
  /** Selectors of the style rule around it: what `&` stands for; `null` at top level, where `&` is `:scope`. */
  readonly nesting?: SelectorList | null;
  /** Whether a selector may start with a combinator: to hang on `&`, also where it names none, or on what `:has()` stands on. */
  readonly relative?: 'nesting' | 'anchor';
  /** Prefixes that `@namespace` declares, with their addresses. */
  readonly namespaces?: ReadonlyMap<string, string>;
  /** Whether nothing is forgiven, as `@supports selector()` asks. Source: CSS Conditional 4 §2.1. */
  readonly strict?: boolean;
}

/** Where in a selector an argument stands. */
interface InnerContext extends SelectorContext {
  /** The pseudo-element that the argument's pseudo-classes follow; `null` for an element. */
  readonly after?: string | null;
  readonly insideHas?: boolean;
}

/** Selector text longer than this is refused, in UTF-16 units. */
const MAX_LENGTH = 100_000;
const MAX_DEPTH = 40;

interface CssNode {
  readonly type: string;
  readonly name?: string | CssNode;
  readonly value?: string | CssNode | null;
  readonly matcher?: string | null;
  readonly flags?: string | null;
  readonly children?: readonly CssNode[] | null;
  readonly nth?: CssNode;
  readonly a?: string | null;
  readonly b?: string | null;
  readonly selector?: CssNode | null;
}

/**
 * Parses a selector list.
 * Source: Selectors 4 §18 and CSS Nesting 1 §3; css-tree reads the grammar.
 * @throws {SelectorError} `invalid-selector`, when a browser would drop the rule.
 */
export function parseSelectorList(text: string, context: SelectorContext = {}): SelectorList {
  if (text.length > MAX_LENGTH)
    throw new SelectorError(
      message('selector.selector-has-characters-bound', { count: text.length, bound: MAX_LENGTH }),
    );
  const tokens = tokenizeCss(text);
  refuseDeepNesting(tokens);
  return splitAtCommas(tokens, 0, tokens.count).map(([from, to]) => {
    const part = text
      .slice(
        from < tokens.count ? tokens.starts[from] : text.length,
        to > from ? tokens.ends[to - 1] : (tokens.starts[from] ?? text.length),
      )
      .trim();
    return parseComplex(part, context);
  });
}

function parseComplex(text: string, context: SelectorContext): ComplexSelector {
  if (text === '') throw new SelectorError(message('selector.selector-missing-between-commas'));
  let node: CssNode;
  try {
    node = toPlainObject(parse(text, { context: 'selector' })) as unknown as CssNode;
  } catch (error) {
    const forgiven = context.strict ? null : forgive(text, context);
    if (forgiven === null || forgiven === text)
      throw new SelectorError(
        error instanceof Error
          ? message('selector.not-read', { text: clip(text), problem: error.message })
          : message('selector.not-selector', { text: clip(text) }),
      );
    return { ...parseComplex(forgiven, context), text };
  }
  return { ...readComplex(node, text, context, 0), text };
}

/** Drops from forgiving lists (`:is`, `:where`, Selectors 4 §18.1) the items that do not parse; `null` when there is no such list. */
function forgive(text: string, context: SelectorContext): string | null {
  const tokens = tokenizeCss(text);
  const edited = new MagicString(text);
  let found = false;
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.types[i] !== T.Function || !/^(is|where)\($/i.test(tokenText(tokens, i))) continue;
    const close = tokens.closers[i];
    const items = splitAtCommas(tokens, i + 1, close)
      .map(([from, to]) =>
        text.slice(
          from < tokens.count ? tokens.starts[from] : text.length,
          to > from ? tokens.ends[to - 1] : (tokens.starts[from] ?? text.length),
        ),
      )
      .map((item) => (parses(item, context) ? item : forgive(item, context)))
      .filter((item): item is string => item !== null && parses(item, context));
    const [from, to] = [tokens.ends[i], close < tokens.count ? tokens.starts[close] : text.length];
    if (to > from) edited.update(from, to, items.join(','));
    found = true;
    i = Math.min(close, tokens.count);
  }
  return found ? edited.toString() : null;
}

function parses(text: string, { namespaces, nesting }: SelectorContext): boolean {
  try {
    parseComplex(text.trim(), { namespaces, nesting });
    return true;
  } catch {
    return false;
  }
}

function readComplex(node: CssNode, text: string, context: InnerContext, depth: number): ComplexSelector {
  const compounds: CompoundSelector[] = [];
  const combinators: Combinator[] = [];
  const pseudoElements: PseudoElementTest[] = [];
  let draft: DraftCompound | null = null;
  let combinator: Combinator = '';
  let namesNesting = false;
  /** The last pseudo-element, as it is written. */
  let written: string | null = null;
  let specificity: Specificity = [0, 0, 0];
  const open = (): DraftCompound => {
    if (draft) return draft;
    draft = { type: null, ids: [], classes: [], attributes: [], pseudoClasses: [] };
    combinators.push(combinator);
    combinator = '';
    return draft;
  };
  const close = (): void => {
    if (draft) compounds.push(draft);
    draft = null;
  };
  for (const child of node.children ?? []) {
    if (
      pseudoElements.length > 0 &&
      !(child.type === 'PseudoClassSelector' || child.type === 'PseudoElementSelector')
    ) {
      throw new SelectorError(message('selector.nothing-but-pseudo-classes', { text: clip(text) }));
    }
    if (context.after && child.type !== 'PseudoClassSelector')
      throw new SelectorError(message('selector.only-pseudo-classes-can', { text: clip(text), after: context.after }));
    switch (child.type) {
      case 'Combinator': {
        const sign = child.name as string;
        if (sign !== ' ' && sign !== '>' && sign !== '+' && sign !== '~')
          throw new SelectorError(message('selector.unknown-combinator', { text: clip(text), sign }));
        if (draft === null && (combinator as string) !== '')
          throw new SelectorError(message('selector.two-combinators-row', { text: clip(text) }));
        if (draft === null && compounds.length === 0 && !context.relative)
          throw new SelectorError(message('selector.combinator-stands-first', { text: clip(text) }));
        close();
        combinator = sign;
        break;
      }
      case 'TypeSelector': {
        const name = decodeName(child.name as string);
        const bar = name.lastIndexOf('|');
        const local = name.slice(bar + 1);
        const prefix = bar > 0 ? name.slice(0, bar) : '*';
        // No element of a page is in no namespace.
        if (bar === 0) open().pseudoClasses.push({ kind: 'named', name: 'never' });
        if (prefix !== '*' && !context.namespaces?.has(prefix))
          throw new SelectorError(message('selector.namespace-prefix-not-declared', { text: clip(text), prefix }));
        open().type = local === '*' ? null : local;
        if (local !== '*') specificity = addSpecificity(specificity, [0, 0, 1]);
        break;
      }
      case 'IdSelector':
        if (!/^(?:-?(?:[a-zA-Z_\u0080-\uffff]|\\)|--)/.test(child.name as string))
          throw new SelectorError(message('selector.not-id-selector', { name: clip(child.name as string) }));
        open().ids.push(ident.decode(child.name as string));
        specificity = addSpecificity(specificity, [1, 0, 0]);
        break;
      case 'ClassSelector':
        open().classes.push(ident.decode(child.name as string));
        specificity = addSpecificity(specificity, [0, 1, 0]);
        break;
      case 'AttributeSelector':
        open().attributes.push(readAttribute(child, text));
        specificity = addSpecificity(specificity, [0, 1, 0]);
        break;
      case 'NestingSelector': {
        namesNesting = true;
        const outer = context.nesting;
        open().pseudoClasses.push(outer ? { kind: 'is', list: outer } : { kind: 'scope' });
        specificity = addSpecificity(specificity, outer ? greatestSpecificity(outer) : [0, 0, 0]);
        break;
      }
      case 'PseudoClassSelector': {
        const name = (child.name as string).toLowerCase();
        if (LEGACY_PSEUDO_ELEMENTS.has(name) && !child.children) {
          open();
          if (context.after || (written !== null && !mayFollowElement(name, written)))
            throw new SelectorError(
              message('selector.cannot-follow', { text: clip(text), name, written: written ?? context.after ?? '' }),
            );
          written = name;
          pseudoElements.push({ name, list: null, parts: [], states: [] });
          specificity = addSpecificity(specificity, [0, 0, 1]);
          break;
        }
        const after = written ?? context.after ?? null;
        refuseMisplaced(name, after, text);
        const read = readPseudoClass(name, child, text, { ...context, after }, depth);
        specificity = addSpecificity(specificity, read.specificity);
        namesNesting ||= read.namesNesting || (name === 'scope' && context.nesting === null);
        if (pseudoElements.length > 0) {
          const last = pseudoElements[pseudoElements.length - 1];
          pseudoElements[pseudoElements.length - 1] = { ...last, states: [...last.states, read.test] };
        } else {
          open().pseudoClasses.push(read.test);
        }
        break;
      }
      case 'PseudoElementSelector': {
        open();
        const read = readPseudoElement(child, text, context, depth);
        if (written !== null && !mayFollowElement(read.test.name, written))
          throw new SelectorError(
            message('selector.element-cannot-follow', { text: clip(text), written: read.written, before: written }),
          );
        written = read.written;
        pseudoElements.push(read.test);
        specificity = addSpecificity(specificity, read.specificity);
        break;
      }
      default:
        throw new SelectorError(message('selector.type-not-selector', { text: clip(text), type: child.type }));
    }
  }
  close();
  if (compounds.length === 0 || (combinator as string) !== '')
    throw new SelectorError(message('selector.ends-with-combinator', { text: clip(text) }));
  if (context.relative === 'nesting' && context.nesting !== undefined && (combinators[0] !== '' || !namesNesting)) {
    // CSS Nesting 1 §3.1: a relative selector hangs on `&`.
    const outer = context.nesting;
    compounds.unshift({
      type: null,
      ids: [],
      classes: [],
      attributes: [],
      pseudoClasses: [outer ? { kind: 'is', list: outer } : { kind: 'scope' }],
    });
    if (combinators[0] === '') combinators[0] = ' ';
    combinators.unshift('');
    specificity = addSpecificity(specificity, outer ? greatestSpecificity(outer) : [0, 0, 0]);
  }
  return { text, compounds, combinators, pseudoElements, specificity };
}

type DraftCompound = {
  -readonly [K in keyof CompoundSelector]: CompoundSelector[K] extends readonly (infer U)[] ? U[] : CompoundSelector[K];
};

function readAttribute(node: CssNode, text: string): AttributeTest {
  const written = decodeName((node.name as CssNode).name as string);
  const value = node.value as CssNode | null;
  const flags = node.flags?.toLowerCase() ?? '';
  // Chromium refuses the `s` flag of Selectors 4.
  if (flags !== '' && flags !== 'i')
    throw new SelectorError(message('selector.unknown-attribute-flag', { text: clip(text), flags }));
  return {
    name: written.slice(written.lastIndexOf('|') + 1),
    operator: (node.matcher ?? '') as AttributeTest['operator'],
    value:
      value === null || value === undefined
        ? ''
        : value.type === 'String'
          ? (value.value as string)
          : ident.decode(value.name as string),
    ignoreCase: flags === 'i' ? true : null,
  };
}

/** Functions that hold selectors: what stands in them is held against the pseudo-element before. */
const HOLDS_SELECTORS: ReadonlySet<string> = new Set(['is', 'where', 'not']);

/** Pseudo-classes may follow only the pseudo-elements that take them, and scrollbars' own follow nothing else. */
function refuseMisplaced(name: string, after: string | null, text: string): void {
  if (after === null) {
    if (SCROLLBAR_PSEUDO_CLASSES.has(name))
      throw new SelectorError(message('selector.scrollbars', { text: clip(text), name }));
    return;
  }
  if (after !== 'slotted' && HOLDS_SELECTORS.has(name)) return;
  if (!mayFollow(name, after))
    throw new SelectorError(message('selector.class-cannot-follow', { text: clip(text), name, after }));
}

interface ReadPseudo {
  readonly test: PseudoClass;
  readonly specificity: Specificity;
  readonly namesNesting: boolean;
}

function readPseudoClass(name: string, node: CssNode, text: string, context: InnerContext, depth: number): ReadPseudo {
  const inner = (
    children: readonly CssNode[] | null | undefined,
    relative: boolean,
  ): { list: SelectorList; namesNesting: boolean } => {
    if (depth > MAX_DEPTH)
      throw new SelectorError(message('selector.nested-deeper-than', { text: clip(text), bound: MAX_DEPTH }));
    const nodes = (children ?? []).flatMap((child) =>
      child.type === 'SelectorList' ? (child.children ?? []) : [child],
    );
    const list: ComplexSelector[] = [];
    const isForgiving = !context.strict && (name === 'is' || name === 'where');
    const { namespaces, nesting, strict, after } = context;
    for (const selector of nodes) {
      try {
        const read = readComplex(
          selector,
          text,
          {
            namespaces,
            nesting,
            strict,
            after,
            insideHas: context.insideHas || name === 'has',
            ...(relative ? { relative: 'anchor' as const } : {}),
          },
          depth + 1,
        );
        if (read.pseudoElements.length > 0 && !name.startsWith('nth-'))
          throw new SelectorError(message('selector.no-pseudo-element-inside', { text: clip(text), name }));
        list.push(read);
      } catch (error) {
        // Selectors 4 §18.1: what such a list cannot take makes itself void, not the list.
        if (!isForgiving || !(error instanceof SelectorError)) throw error;
      }
    }
    if (context.strict && list.length === 0)
      throw new SelectorError(message('selector.empty', { text: clip(text), name }));
    return { list, namesNesting: nodes.some(mentionsNesting) };
  };
  const hasArgument = node.children !== null && node.children !== undefined;
  if (!hasArgument) {
    if (name === 'scope') return { test: { kind: 'scope' }, specificity: [0, 1, 0], namesNesting: false };
    if (name === 'host')
      return { test: { kind: 'host', argument: null, context: false }, specificity: [0, 1, 0], namesNesting: false };
    if (!ANSWERED_PSEUDO_CLASSES.has(name) && !SCROLLBAR_PSEUDO_CLASSES.has(name))
      throw new SelectorError(message('selector.unknown-pseudo-class', { text: clip(text), name }));
    return { test: { kind: 'named', name }, specificity: [0, 1, 0], namesNesting: false };
  }
  switch (name) {
    case 'is':
    case '-webkit-any':
    case 'where': {
      const { list, namesNesting } = inner(node.children, false);
      if (name === '-webkit-any' && list.length === 0)
        throw new SelectorError(message('selector.needs-selector', { text: clip(text), name }));
      return {
        test: { kind: 'is', list },
        specificity: name === 'where' ? [0, 0, 0] : greatestSpecificity(list),
        namesNesting,
      };
    }
    case 'not':
    case 'has': {
      if (name === 'has' && context.insideHas)
        throw new SelectorError(message('selector.has-inside-has', { text: clip(text) }));
      const { list, namesNesting } = inner(node.children, name === 'has');
      if (list.length === 0) throw new SelectorError(message('selector.needs-selector', { text: clip(text), name }));
      return { test: { kind: name, list }, specificity: greatestSpecificity(list), namesNesting };
    }
    case 'nth-child':
    case 'nth-last-child':
    case 'nth-of-type':
    case 'nth-last-of-type': {
      const nthNode = node.children?.[0];
      if (nthNode?.type !== 'Nth') throw new SelectorError(message('selector.needs-b', { text: clip(text), name }));
      const of = nthNode.selector ? inner([nthNode.selector], false).list : null;
      const nth: NthTest = { ...readNth(nthNode.nth as CssNode), of };
      return {
        test: { kind: 'nth', from: name.includes('last') ? 'end' : 'start', ofType: name.endsWith('type'), nth },
        specificity: addSpecificity([0, 1, 0], of ? greatestSpecificity(of) : [0, 0, 0]),
        namesNesting: false,
      };
    }
    case 'host':
    case 'host-context': {
      const { list } = inner(node.children, false);
      if (list.length !== 1 || list[0].compounds.length !== 1)
        throw new SelectorError(message('selector.takes-compound-selector', { text: clip(text), name }));
      return {
        test: { kind: 'host', argument: list, context: name === 'host-context' },
        specificity: addSpecificity([0, 1, 0], greatestSpecificity(list)),
        namesNesting: false,
      };
    }
    case 'lang': {
      // Chromium takes one identifier only.
      if (node.children?.length !== 1 || node.children[0].type !== 'Identifier')
        throw new SelectorError(message('selector.lang-takes-names', { text: clip(text) }));
      const ranges = (node.children ?? [])
        .filter((child) => child.type === 'Identifier')
        .map((child) => ident.decode(child.name as string));
      if (ranges.length === 0) throw new SelectorError(message('selector.lang-needs-language', { text: clip(text) }));
      return { test: { kind: 'lang', ranges }, specificity: [0, 1, 0], namesNesting: false };
    }
    case 'dir': {
      const direction = node.children?.[0]?.name;
      return {
        test: { kind: 'dir', direction: typeof direction === 'string' ? direction.toLowerCase() : '' },
        specificity: [0, 1, 0],
        namesNesting: false,
      };
    }
    case 'state':
    case 'active-view-transition-type':
      return { test: { kind: 'named', name: 'never' }, specificity: [0, 1, 0], namesNesting: false };
    default:
      throw new SelectorError(message('selector.unknown-pseudo-function', { text: clip(text), name }));
  }
}

function readPseudoElement(
  node: CssNode,
  text: string,
  { strict }: InnerContext,
  depth: number,
): { test: PseudoElementTest; written: string; specificity: Specificity } {
  const name = (node.name as string).toLowerCase();
  if (name === 'slotted') {
    const list = (node.children ?? [])
      .flatMap((child) => (child.type === 'SelectorList' ? (child.children ?? []) : [child]))
      .map((child) => readComplex(child, text, {}, depth + 1));
    if (list.length !== 1 || list[0].compounds.length !== 1)
      throw new SelectorError(message('selector.slotted-takes-compound-selector', { text: clip(text) }));
    return {
      test: { name, list, parts: [], states: [] },
      written: name,
      specificity: addSpecificity([0, 0, 1], list[0].specificity),
    };
  }
  if (name === 'part') {
    const raw = node.children?.[0]?.value;
    const parts =
      typeof raw === 'string'
        ? raw
            .trim()
            .split(/\s+/)
            .map((part) => ident.decode(part))
        : [];
    if (parts.length === 0) throw new SelectorError(message('selector.part-needs-name', { text: clip(text) }));
    return { test: { name, list: null, parts, states: [] }, written: name, specificity: [0, 0, 1] };
  }
  const hasArgument = node.children !== null && node.children !== undefined;
  const takesArgument = ARGUMENTS.get(name) ?? 'none';
  const isKnown =
    RESOLVED_PSEUDO_ELEMENTS.has(name) ||
    OTHER_PSEUDO_ELEMENTS.has(name) ||
    // Selectors 4 §3.6.4 keeps unknown -webkit- pseudo-elements valid.
    (name.startsWith('-webkit-') && (!strict || WEBKIT_PSEUDO_ELEMENTS.has(name.slice('-webkit-'.length))));
  if (!isKnown || (hasArgument ? takesArgument === 'none' : takesArgument === 'one'))
    throw new SelectorError(
      message('selector.unknown-pseudo-element', { text: clip(text), name, isFunction: hasArgument ? 'yes' : 'no' }),
    );
  // Nothing follows a cue that is told apart.
  return {
    test: { name: PSEUDO_ELEMENT_ALIASES.get(name) ?? name, list: null, parts: [], states: [] },
    written: name === 'cue' && hasArgument ? 'cue()' : name,
    specificity: [0, 0, 1],
  };
}

/** Pseudo-elements that take an argument. Source: the specifications of each; Chromium agrees. */
const ARGUMENTS: ReadonlyMap<string, 'one' | 'optional'> = new Map([
  ['cue', 'optional'],
  ['highlight', 'one'],
  ['scroll-button', 'one'],
  ['picker', 'one'],
  ...['group', 'image-pair', 'old', 'new', 'group-children'].map((name): [string, 'one'] => [
    `view-transition-${name}`,
    'one',
  ]),
]);

function readNth(node: CssNode): { step: number; offset: number } {
  if (node.type === 'Identifier') return node.name === 'even' ? { step: 2, offset: 0 } : { step: 2, offset: 1 };
  const step =
    node.a === null || node.a === undefined
      ? 0
      : node.a === '-' || node.a === '-n'
        ? -1
        : node.a === '' || node.a === '+'
          ? 1
          : Number(node.a);
  return { step, offset: node.b === null || node.b === undefined ? 0 : Number(node.b) };
}

function mentionsNesting(node: CssNode): boolean {
  return node.type === 'NestingSelector' || (node.children ?? []).some(mentionsNesting);
}

/** css-tree recurses over nested functions; a text nested beyond the bound is refused before it is read. */
function refuseDeepNesting(tokens: TokenList): void {
  let depth = 0;
  for (let i = 0; i < tokens.count; i += 1) {
    if (tokens.closers[i] !== 0) depth += 1;
    else if (tokens.types[i] === T.RightParenthesis || tokens.types[i] === T.RightSquareBracket) depth -= 1;
    if (depth > MAX_DEPTH)
      throw new SelectorError(message('selector.selector-nested-deeper-than', { bound: MAX_DEPTH }));
  }
}

function decodeName(name: string): string {
  return name.includes('\\')
    ? name
        .split('|')
        .map((part) => ident.decode(part))
        .join('|')
    : name;
}

function clip(text: string): string {
  return text.length > 80 ? `${text.slice(0, 77)}…` : text;
}

/** An identifier escaped for use in a selector. Source: CSSOM §2.1, serialize an identifier. */
export function escapeIdentifier(name: string): string {
  return ident.encode(name);
}

/** A string quoted for use in a selector. Source: CSSOM §2.1, serialize a string. */
export function quoteString(text: string): string {
  return string.encode(text);
}
