import { message, type Message } from '../message/message.js';
import type { AtNode, BodyNode, DeclarationNode, QualifiedNode, RuleNode, SheetNode, SyntaxProblem } from './nodes.js';
import {
  T,
  isBlank,
  isDelim,
  skipBlank,
  skipComponent,
  textBetween,
  tokenText,
  tokenizeCss,
  type TokenList,
} from './tokens.js';

/** Blocks nested deeper than this are skipped and reported. */
const MAX_DEPTH = 64;
/** Sheets longer than this are not read, in UTF-16 units. */
const MAX_LENGTH = 16_000_000;

interface Parser {
  readonly tokens: TokenList;
  readonly problems: SyntaxProblem[];
}

/**
 * Parses a stylesheet into rules with nested blocks; what is malformed loses itself only.
 * Source: CSS Syntax 3 §5.4, https://drafts.csswg.org/css-syntax-3/#parser-algorithms
 */
export function parseStylesheet(text: string): SheetNode {
  if (text.length > MAX_LENGTH) {
    return {
      rules: [],
      problems: [
        {
          code: 'too-large',
          reason: message('css.sheet-has-characters-bound', { count: text.length, bound: MAX_LENGTH }),
          start: 0,
          end: text.length,
        },
      ],
    };
  }
  const parser: Parser = { tokens: tokenizeCss(text), problems: [] };
  const { tokens } = parser;
  const rules: RuleNode[] = [];
  let i = 0;
  while (i < tokens.count) {
    const type = tokens.types[i];
    if (isBlank(tokens, i) || type === T.CDO || type === T.CDC) i += 1;
    else if (type === T.AtKeyword) i = consumeAtRule(parser, i, tokens.count, 0, (rule) => rules.push(rule));
    else i = consumeQualifiedRule(parser, i, tokens.count, false, 0, (rule) => rules.push(rule));
  }
  return { rules, problems: parser.problems };
}

/** Parses the content of a `style` attribute: declarations only. Source: CSS Style Attributes §3. */
export function parseDeclarationList(text: string): {
  readonly declarations: readonly DeclarationNode[];
  readonly problems: readonly SyntaxProblem[];
} {
  const parser: Parser = { tokens: tokenizeCss(text), problems: [] };
  const body = consumeBlockContents(parser, 0, parser.tokens.count, 0);
  return {
    declarations: body.filter((node): node is DeclarationNode => node.kind === 'declaration'),
    problems: parser.problems,
  };
}

/** §5.5.2 Consume an at-rule. Returns the index after it. */
function consumeAtRule(parser: Parser, at: number, end: number, depth: number, emit: (rule: AtNode) => void): number {
  const { tokens } = parser;
  const name = tokenText(tokens, at).slice(1).toLowerCase();
  let i = at + 1;
  while (i < end && tokens.types[i] !== T.Semicolon && tokens.types[i] !== T.LeftCurlyBracket)
    i = skipComponent(tokens, i);
  const preludeEnd = i;
  const shared = {
    kind: 'at' as const,
    name,
    prelude: textBetween(tokens, at + 1, preludeEnd),
    start: tokens.starts[at],
    preludeStart: tokens.ends[at],
    preludeEnd: offsetAt(tokens, preludeEnd),
  };
  if (i < end && tokens.types[i] === T.LeftCurlyBracket) {
    const close = Math.min(tokens.closers[i], end);
    const after = Math.min(close + 1, end);
    emit({ ...shared, end: offsetAfter(tokens, close), body: consumeBlockContents(parser, i + 1, close, depth + 1) });
    return after;
  }
  emit({ ...shared, end: offsetAfter(tokens, i), body: null });
  return Math.min(i + 1, end);
}

/** §5.5.3 Consume a qualified rule. Returns the index after it. */
function consumeQualifiedRule(
  parser: Parser,
  from: number,
  end: number,
  nested: boolean,
  depth: number,
  emit: (rule: QualifiedNode) => void,
): number {
  const { tokens } = parser;
  let i = from;
  while (i < end && tokens.types[i] !== T.LeftCurlyBracket) {
    if (nested && tokens.types[i] === T.Semicolon) break;
    i = skipComponent(tokens, i);
  }
  if (i >= end || tokens.types[i] !== T.LeftCurlyBracket) {
    addProblem(
      parser,
      nested ? 'invalid-declaration' : 'invalid-selector',
      message('css.neither-declaration-nor-rule', { excerpt: excerpt(tokens, from, i) }),
      from,
      i,
    );
    return Math.min(i + 1, end);
  }
  const close = Math.min(tokens.closers[i], end);
  const after = Math.min(close + 1, end);
  const first = skipBlank(tokens, from, i);
  const second = skipBlank(tokens, first + 1, i);
  if (
    first < i &&
    tokens.types[first] === T.Ident &&
    tokenText(tokens, first).startsWith('--') &&
    tokens.types[second] === T.Colon
  ) {
    addProblem(parser, 'invalid-declaration', message('css.custom-property-cannot-stand'), from, after);
    return after;
  }
  emit({
    kind: 'qualified',
    prelude: textBetween(tokens, from, i),
    start: tokens.starts[from],
    preludeEnd: tokens.starts[i],
    end: offsetAfter(tokens, close),
    body: consumeBlockContents(parser, i + 1, close, depth + 1),
  });
  return after;
}

/** §5.5.5 Consume a block's contents: declarations, at-rules and nested rules as they come. */
function consumeBlockContents(parser: Parser, from: number, end: number, depth: number): BodyNode[] {
  const { tokens } = parser;
  if (depth > MAX_DEPTH) {
    addProblem(parser, 'too-deep', message('css.blocks-are-nested-deeper', { bound: MAX_DEPTH }), from, end);
    return [];
  }
  const body: BodyNode[] = [];
  let i = from;
  while (i < end) {
    const type = tokens.types[i];
    if (isBlank(tokens, i) || type === T.Semicolon) {
      i += 1;
    } else if (type === T.AtKeyword) {
      i = consumeAtRule(parser, i, end, depth, (rule) => body.push(rule));
    } else {
      const declaration = consumeDeclaration(tokens, i, end);
      if (declaration) {
        body.push(declaration.node);
        i = declaration.next;
      } else {
        i = consumeQualifiedRule(parser, i, end, true, depth, (rule) => body.push(rule));
      }
    }
  }
  return body;
}

/** §5.5.6 Consume a declaration; `null` when the tokens are none. */
function consumeDeclaration(
  tokens: TokenList,
  from: number,
  end: number,
): { node: DeclarationNode; next: number } | null {
  if (tokens.types[from] !== T.Ident) return null;
  const written = tokenText(tokens, from);
  const colon = skipBlank(tokens, from + 1, end);
  if (colon >= end || tokens.types[colon] !== T.Colon) return null;
  const isCustom = written.startsWith('--');
  let i = colon + 1;
  let hasBlock = false;
  let hasOther = false;
  while (i < end && tokens.types[i] !== T.Semicolon) {
    if (tokens.types[i] === T.LeftCurlyBracket) hasBlock = true;
    else if (!isBlank(tokens, i)) hasOther = true;
    // `a:hover {…}` reads like a declaration up to the block; stopping here makes it a rule.
    if (!isCustom && hasBlock) return null;
    i = skipComponent(tokens, i);
  }
  if (!isCustom && hasBlock && hasOther) return null;
  let valueEnd = i;
  while (valueEnd > colon + 1 && isBlank(tokens, valueEnd - 1)) valueEnd -= 1;
  let important = false;
  if (
    valueEnd - 1 > colon &&
    tokens.types[valueEnd - 1] === T.Ident &&
    tokenText(tokens, valueEnd - 1).toLowerCase() === 'important'
  ) {
    let bang = valueEnd - 2;
    while (bang > colon && isBlank(tokens, bang)) bang -= 1;
    if (bang > colon && isDelim(tokens, bang, '!')) {
      important = true;
      valueEnd = bang;
    }
  }
  return {
    node: {
      kind: 'declaration',
      name: isCustom ? written : written.toLowerCase(),
      value: textBetween(tokens, colon + 1, valueEnd),
      important,
      start: tokens.starts[from],
      end: offsetAt(tokens, i),
    },
    next: i,
  };
}

function addProblem(parser: Parser, code: SyntaxProblem['code'], reason: Message, from: number, to: number): void {
  parser.problems.push({ code, reason, start: offsetAt(parser.tokens, from), end: offsetAt(parser.tokens, to) });
}

function offsetAt(tokens: TokenList, i: number): number {
  return i < tokens.count ? tokens.starts[i] : tokens.text.length;
}

function offsetAfter(tokens: TokenList, i: number): number {
  return i < tokens.count ? tokens.ends[i] : tokens.text.length;
}

function excerpt(tokens: TokenList, from: number, to: number): string {
  const text = tokens.text.slice(offsetAt(tokens, from), offsetAt(tokens, to)).replace(/\s+/g, ' ').trim();
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
