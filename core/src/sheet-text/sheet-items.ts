import { message, type Message } from '../message/message.js';
import type { AtNode, BodyNode, DeclarationNode, RuleNode } from '../syntax/nodes.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { T, tokenizeCss } from '../syntax/tokens.js';
import type { Section } from '../veneer/compile-veneer.js';

/** One rule of a sheet's text, or whatever else stands there for itself. */
export interface SheetItem {
  /** Section it stands in; `undefined` before the first head. */
  readonly section: number | null | undefined;
  /** Conditions around it, outermost first: `@media (width >= 600px)`. */
  readonly within: readonly string[];
  readonly selector: string;
  readonly declarations: readonly DeclarationNode[];
  /** Why no override can stand for it; `null` for a plain rule. */
  readonly beyond: Message | null;
  /** Where its source stands in the text, a comment before it included, UTF-16 units. */
  readonly start: number;
  readonly end: number;
  /** Source of the top-level rule it stands in, and where that begins. */
  readonly top: { readonly start: number; readonly end: number };
}

/** A sheet's text in pieces. */
export interface SheetItems {
  readonly items: readonly SheetItem[];
  /** Where each section's head ends. */
  readonly heads: ReadonlyMap<number | null, number>;
}

/** The comment that heads a section. */
export function headOf({ name }: Section): string {
  return `/* ${name.replaceAll('*/', '* /').replaceAll('</', '< /')} */`;
}

/** Takes a sheet's text apart. @param sections those it may have, in their order; names that stand twice are taken in turn. */
export function sheetItems(text: string, sections: readonly Section[]): SheetItems {
  const { rules } = parseStylesheet(text);
  const comments = commentsIn(text);
  const heads = new Map<number | null, number>();
  const items: SheetItem[] = [];
  let section: number | null | undefined;
  let waiting: number | null = null;
  let at = 0;
  const comment = (end: number): void => {
    while (at < comments.length && comments[at].start < end) {
      const { start, end: last } = comments[at];
      at += 1;
      const head = sections.find((own) => !heads.has(own.id) && headOf(own) === text.slice(start, last));
      if (!head || !isAlone(text, start)) {
        waiting ??= start;
        continue;
      }
      if (waiting !== null) items.push(alone(section, waiting, textEndBefore(text, start)));
      waiting = null;
      heads.set(head.id, last);
      section = head.id;
    }
  };
  for (const rule of rules) {
    comment(rule.start);
    const start = waiting ?? rule.start;
    waiting = null;
    const inside = comments.slice(at).some((own) => own.start < rule.end);
    while (at < comments.length && comments[at].start < rule.end) at += 1;
    items.push(
      ...itemsOf(rule, [], { section, start, end: rule.end, isCommented: inside || start < rule.start, text }),
    );
  }
  comment(text.length + 1);
  if (waiting !== null) items.push(alone(section, waiting, textEndBefore(text, text.length)));
  return { items, heads };
}

/** The rule that stands at an offset; `undefined` where none does. */
export function ruleItemAt(items: readonly SheetItem[], offset: number): SheetItem | undefined {
  return items.find(({ start, end, declarations }) => start <= offset && offset <= end && declarations.length > 0);
}

interface Around {
  readonly section: number | null | undefined;
  readonly start: number;
  readonly end: number;
  readonly isCommented: boolean;
  readonly text: string;
}

function itemsOf(rule: RuleNode, within: readonly string[], around: Around): SheetItem[] {
  const { section, start, end, isCommented } = around;
  const top = { start, end };
  const span = within.length === 0 ? top : { start: rule.start, end: rule.end };
  const shared = { section, within, top, ...span };
  if (rule.kind === 'at') {
    const isCondition = (rule.name === 'media' || rule.name === 'supports') && rule.body !== null;
    const rules = (rule.body ?? []).filter((node): node is RuleNode => node.kind !== 'declaration');
    if (isCondition && !isCommented && rules.length > 0 && rules.length === rule.body?.length)
      return rules.flatMap((inner) => itemsOf(inner, [...within, conditionText(rule)], around));
    const beyond =
      isCommented && isCondition
        ? message('sheet.has-comment')
        : message('sheet.is-at-rule', { name: `@${rule.name}` });
    return [{ ...shared, selector: `@${rule.name} ${rule.prelude}`, declarations: [], beyond }];
  }
  const declarations = rule.body.filter((node): node is DeclarationNode => node.kind === 'declaration');
  const beyond = isCommented
    ? message('sheet.has-comment')
    : declarations.length < rule.body.length
      ? nestedWords(rule.body)
      : null;
  return [{ ...shared, selector: rule.prelude, declarations, beyond }];
}

function nestedWords(body: readonly BodyNode[]): Message {
  return body.some(({ kind }) => kind === 'at') ? message('sheet.holds-at-rule') : message('sheet.holds-rule');
}

function conditionText({ name, prelude }: AtNode): string {
  return `@${name} ${prelude}`;
}

function alone(section: number | null | undefined, start: number, end: number): SheetItem {
  const span = { start, end };
  return {
    section,
    within: [],
    selector: '',
    declarations: [],
    beyond: message('sheet.is-comment'),
    ...span,
    top: span,
  };
}

function commentsIn(text: string): { readonly start: number; readonly end: number }[] {
  const { types, starts, ends, count } = tokenizeCss(text);
  const found: { start: number; end: number }[] = [];
  for (let i = 0; i < count; i += 1) if (types[i] === T.Comment) found.push({ start: starts[i], end: ends[i] });
  return found;
}

/** Whether nothing stands before an offset on its line. */
function isAlone(text: string, offset: number): boolean {
  return text.slice(text.lastIndexOf('\n', offset - 1) + 1, offset).trim() === '';
}

/** Offset after the last character before another that is no white space. */
function textEndBefore(text: string, offset: number): number {
  return text.slice(0, offset).trimEnd().length;
}
