import type { Code } from '@upper-veneer/words';
import { message, type Message } from '../message/message.js';
import { lexer } from 'css-tree';
import { closest, distance } from 'fastest-levenshtein';
import { readBlock } from '../cascade/block.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { SiteModel } from '../site/site-model.js';
import type { BodyNode, DeclarationNode } from '../syntax/nodes.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { tokenizeCss, tokenText, T } from '../syntax/tokens.js';
import { PLACEHOLDER } from '../veneer/colors-in-sheet.js';
import { ownCssProblem } from '../veneer/own-css.js';
import { paletteLines } from './read-sheet.js';

/** Something in a sheet's text that a browser throws away, or that does nothing here. */
export interface SheetProblem {
  /** `stops` where the text cannot be taken as it is; `fails` for what a browser throws away; `look` for what only may be wrong. */
  readonly level: 'stops' | 'fails' | 'look';
  readonly words: Message;
  /** How to mend it; empty where nobody can tell. */
  readonly mend: Message | '';
  /** Where it stands, UTF-16 units. */
  readonly start: number;
  readonly end: number;
}

/** At-rules that browsers read. Source: the CSS modules' index of at-rules. */
const KNOWN_AT_RULES: ReadonlySet<string> = new Set(
  'charset color-profile container counter-style font-face font-feature-values font-palette-values import keyframes layer media namespace page position-try property scope starting-style supports view-transition -webkit-keyframes'.split(
    ' ',
  ),
);
/** At-rules whose blocks hold descriptors rather than properties of an element. */
const DESCRIPTORS: ReadonlySet<string> = new Set(
  'color-profile counter-style font-face font-feature-values font-palette-values page property view-transition'.split(
    ' ',
  ),
);
const MOST_TOLD = 300;

/** What is open at its end, or closes what is not. */
const OPEN: ReadonlySet<string> = new Set<Code>([
  'css.leaves-open',
  'css.leaves-string-open',
  'css.leaves-address-open',
  'css.leaves-comment-open',
  'css.closes-with-what-does',
]);

/** What is wrong with an edited sheet, in the order it stands there. */
export function sheetProblems(site: SiteModel, text: string): SheetProblem[] {
  const found: SheetProblem[] = [];
  const whole = ownCssProblem(text);
  if (whole !== null)
    found.push({
      level: 'stops',
      words: message('sheet.whole', { problem: whole }),
      mend: mendOf(whole),
      ...openIn(text),
    });
  const head = paletteLines(site);
  if (!text.startsWith(head)) found.push(paletteProblem(head, text));
  const { rules, problems } = parseStylesheet(text);
  for (const { reason, start, end } of problems)
    found.push({
      level: 'fails',
      words: reason,
      mend: message('sheet.passed-over'),
      start,
      end,
    });
  const visit = (nodes: readonly BodyNode[], isNested: boolean, isDescriptors: boolean): void => {
    const own = nodes.filter((node): node is DeclarationNode => node.kind === 'declaration');
    if (!isDescriptors) found.push(...discarded(own));
    for (const node of nodes) {
      if (found.length > MOST_TOLD || node.kind === 'declaration') continue;
      if (node.kind === 'at') {
        if (!KNOWN_AT_RULES.has(node.name))
          found.push({
            level: 'fails',
            words: message('sheet.unknown-at-rule', { name: `@${node.name}` }),
            mend: nearest(node.name, [...KNOWN_AT_RULES], '@'),
            start: node.start,
            end: node.preludeEnd,
          });
        if (node.body && node.name.endsWith('keyframes'))
          for (const frame of node.body) visit(frame.kind === 'qualified' ? frame.body : [], true, false);
        else if (node.body) visit(node.body, isNested, DESCRIPTORS.has(node.name));
        continue;
      }
      const span = { start: node.start, end: node.preludeEnd };
      const problem = isNested ? null : selectorProblem(node.prelude);
      if (problem !== null)
        found.push({
          level: 'fails',
          words: message('plain', { text: problem }),
          mend: message('sheet.rule-dropped'),
          ...span,
        });
      else if (!isNested && ![...site.pages.values()].some((page) => matchedInAnyState(page, node.prelude).length > 0))
        found.push({
          level: 'look',
          words: message('request.matches-nothing', { selector: node.prelude }),
          mend: '',
          ...span,
        });
      visit(node.body, true, false);
    }
  };
  visit(rules, false, false);
  found.push(...placeholders(text));
  return inOrder(found, text.length);
}

/** What stops the sheet, and as much of the rest as is told, in the order it stands there; what is not told is said. */
function inOrder(found: readonly SheetProblem[], end: number): SheetProblem[] {
  const compare = (a: SheetProblem, b: SheetProblem): number => a.start - b.start || a.end - b.end;
  const stops = found.filter(({ level }) => level === 'stops');
  const rest = found.filter(({ level }) => level !== 'stops').sort(compare);
  const told = [...stops, ...rest.slice(0, MOST_TOLD)].sort(compare);
  if (rest.length <= MOST_TOLD) return told;
  const words = message('sheet.more-wrong', { count: MOST_TOLD });
  return [...told, { level: 'look', words, mend: message('sheet.mend-first'), start: end, end }];
}

/** Properties that the grammars of the standards are known of. */
const PROPERTY_NAMES: readonly string[] = Object.keys(lexer.properties);

function discarded(declarations: readonly DeclarationNode[]): SheetProblem[] {
  return readBlock(declarations)
    .discarded.filter(({ declaration }) => !declaration.value.includes(PLACEHOLDER))
    .map(({ declaration: { name, start, end }, reason }) => ({
      level: 'fails',
      words: reason,
      mend:
        reason.code === 'css.unknown-property'
          ? nearest(name, PROPERTY_NAMES, '')
          : message('sheet.give-value', { name }),
      start,
      end,
    }));
}

/** Values still to be filled in, as in pasted snippets. */
function placeholders(text: string): SheetProblem[] {
  const { types, starts, ends, count, ...tokens } = tokenizeCss(text);
  const found: SheetProblem[] = [];
  for (let i = 0; i < count; i += 1)
    if (types[i] === T.Ident && tokenText({ types, starts, ends, count, ...tokens }, i) === PLACEHOLDER)
      found.push({
        level: 'fails',
        words: message('sheet.colour-missing'),
        mend: message('sheet.choose-colour'),
        start: starts[i],
        end: ends[i],
      });
  return found;
}

function paletteProblem(head: string, text: string): SheetProblem {
  let at = 0;
  while (at < head.length && head[at] === text[at]) at += 1;
  const end = text.indexOf('\n', at);
  return {
    level: 'stops',
    words: message('sheet.palette-lines'),
    mend: message('sheet.put-back'),
    start: text.lastIndexOf('\n', at - 1) + 1,
    end: end === -1 ? text.length : end,
  };
}

function mendOf({ code, values }: Message): Message {
  if (OPEN.has(code)) return message('sheet.close');
  if (code === 'css.holds-which-read-head' && values?.['name'] === 'import') return message('sheet.paste-instead');
  return message('sheet.take-out');
}

/** Where the first thing begins that is never closed; the last line where it is another fault. */
function openIn(text: string): { readonly start: number; readonly end: number } {
  const tokens = tokenizeCss(text);
  for (let i = 0; i < tokens.count; i += 1)
    if (tokens.closers[i] === tokens.count) return { start: tokens.starts[i], end: tokens.ends[i] };
  for (let i = 0; i < tokens.count; i += 1)
    if (
      tokens.types[i] === T.BadString ||
      tokens.types[i] === T.BadUrl ||
      tokenText(tokens, i).toLowerCase() === '@import'
    )
      return { start: tokens.starts[i], end: tokens.ends[i] };
  const last = Math.max(0, tokens.count - 1);
  return { start: tokens.starts[last] ?? 0, end: text.length };
}

/** Names that are longer are not compared. */
const LONGEST_NAME = 40;

function nearest(name: string, names: readonly string[], mark: string): Message {
  const best = name.length > LONGEST_NAME ? null : closest(name, names);
  return best !== null && distance(name, best) <= 2
    ? message('sheet.perhaps', { name: `${mark}${best}` })
    : message('sheet.take-out-or-write');
}
