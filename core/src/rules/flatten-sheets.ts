import { message, type Message } from '../message/message.js';
import { evaluateSupports } from '../conditions/evaluate-supports.js';
import type { Problem } from '../problem.js';
import { parseSelectorList, SelectorError } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import type { AtNode, BodyNode, DeclarationNode, QualifiedNode } from '../syntax/nodes.js';
import { T, skipBlank, splitAtCommas, textBetween, tokenText, tokenizeCss } from '../syntax/tokens.js';
import { createLocator, type Locator } from '../text/source-range.js';
import { isRun, parsedSelectors, parsedSheet, runsOf } from './parsed-once.js';
import { resolvePath } from './resolve-path.js';
import type { LoadSheet, Sheet } from './sheet.js';
import type { Condition, RegisteredProperty, Scope, StyleRule } from './style-rule.js';
import { string as cssString, url as cssUrl } from 'css-tree';
import { isReadableMedia } from '../conditions/parse-media.js';

/** All rules of a page's sheets, in order of appearance. */
export interface FlatRules {
  readonly rules: readonly StyleRule[];
  /** Layer names in order of first appearance, parents before children as CSS Cascading 5 §6.4.3 orders them. */
  readonly layers: readonly string[];
  readonly registered: ReadonlyMap<string, RegisteredProperty>;
  readonly problems: readonly Problem[];
}

interface Frame {
  readonly sheet: Sheet;
  readonly locate: Locator;
  readonly conditions: readonly Condition[];
  readonly layer: string | null;
  readonly scopes: readonly Scope[];
  /** Selectors of the style rule around; `undefined` at top level. */
  readonly nesting: SelectorList | null | undefined;
  readonly nestingText: string;
  readonly importStack: readonly string[];
  /** Prefixes declared in this sheet so far. */
  readonly namespaces: Map<string, string>;
}

interface Flattening {
  readonly quirks: boolean;
  readonly rules: StyleRule[];
  readonly layers: string[];
  readonly registered: Map<string, RegisteredProperty>;
  readonly problems: Problem[];
  readonly loadSheet: LoadSheet;
  anonymous: number;
}

/**
 * Resolves nesting, imports, layers and scopes of a page's sheets into a flat list of rules.
 * What a browser would drop, and what is not decided here, comes back as problems.
 * @param quirks whether the page is in quirks mode.
 * Source: CSS Cascading 5 §2 and §6.4, CSS Nesting 1, CSS Cascading 6 §2.5.
 */
export function flattenSheets(sheets: readonly Sheet[], loadSheet: LoadSheet, quirks = false): FlatRules {
  const flattening: Flattening = {
    quirks,
    rules: [],
    layers: [],
    registered: new Map(),
    problems: [],
    loadSheet,
    anonymous: 0,
  };
  for (const sheet of sheets) {
    if (sheet.disabled) continue;
    const conditions: Condition[] = sheet.media.trim() === '' ? [] : [{ kind: 'media', text: sheet.media }];
    flattenSheet(flattening, sheet, { conditions, layer: null, importStack: [sheet.name] });
  }
  return flattening;
}

function flattenSheet(
  flattening: Flattening,
  sheet: Sheet,
  outer: Pick<Frame, 'conditions' | 'layer' | 'importStack'>,
): void {
  const node = parsedSheet(sheet.text);
  const frame: Frame = {
    sheet,
    locate: createLocator(sheet.text),
    scopes: [],
    nesting: undefined,
    nestingText: '',
    namespaces: new Map(),
    ...outer,
  };
  tellUnread(flattening, frame, sheet.media, { start: 0, end: 0 });
  for (const problem of node.problems)
    report(flattening, frame, problem.code, problem.reason, problem.start, problem.end);
  let importsAllowed = true;
  for (const rule of node.rules) {
    if (rule.kind === 'at' && rule.name === 'import') {
      if (importsAllowed) importSheet(flattening, rule, frame);
      else report(flattening, frame, 'invalid-at-rule', message('css.import-comes-after-rules'), rule.start, rule.end);
      continue;
    }
    if (!(rule.kind === 'at' && (rule.name === 'charset' || (rule.name === 'layer' && rule.body === null))))
      importsAllowed = false;
    flattenNode(flattening, rule, frame);
  }
}

function flattenNode(flattening: Flattening, node: BodyNode, frame: Frame): void {
  if (node.kind === 'qualified') flattenStyleRule(flattening, node, frame);
  else if (node.kind === 'at') flattenAtRule(flattening, node, frame);
}

function flattenStyleRule(flattening: Flattening, node: QualifiedNode, frame: Frame): void {
  let selectors: SelectorList;
  try {
    selectors = parsedSelectors(node, frame.nesting, frame.namespaces);
  } catch (error) {
    if (!(error instanceof SelectorError)) throw error;
    report(flattening, frame, 'invalid-selector', error.told, node.start, node.preludeEnd);
    return;
  }
  const text = frame.nestingText === '' ? node.prelude : nestedText(frame.nestingText, node.prelude);
  flattenBody(flattening, node.body, { ...frame, nesting: selectors, nestingText: text }, selectors, node.start);
}

/** Declarations and nested rules as they come; declarations after a nested rule keep their place (CSS Nesting 1 §4). */
function flattenBody(
  flattening: Flattening,
  body: readonly BodyNode[],
  frame: Frame,
  selectors: SelectorList,
  start: number,
): void {
  for (const item of runsOf(body, flattening.quirks)) {
    if (isRun(item)) addRule(flattening, frame, selectors, item, start);
    else flattenNode(flattening, item, frame);
  }
}

function addRule(
  flattening: Flattening,
  frame: Frame,
  selectors: SelectorList,
  declarations: readonly DeclarationNode[],
  start: number,
): void {
  flattening.rules.push({
    selectors,
    selectorText: frame.nestingText,
    declarations,
    sheet: frame.sheet,
    start,
    conditions: frame.conditions,
    layer: frame.layer,
    scopes: frame.scopes,
    order: flattening.rules.length,
  });
}

function flattenAtRule(flattening: Flattening, node: AtNode, frame: Frame): void {
  const within = (inner: Partial<Frame>): void => {
    const next: Frame = { ...frame, ...inner };
    const body = node.body ?? [];
    if (next.nesting) flattenBody(flattening, body, next, next.nesting, node.start);
    else for (const item of body) flattenNode(flattening, item, next);
  };
  switch (node.name) {
    case 'media':
      tellUnread(flattening, frame, node.prelude, node);
      within({ conditions: [...frame.conditions, { kind: 'media', text: node.prelude }] });
      return;
    case 'supports': {
      const holds = evaluateSupports(node.prelude);
      if (holds === null)
        report(
          flattening,
          frame,
          'invalid-at-rule',
          message('css.supports-malformed', { prelude: node.prelude }),
          node.start,
          node.preludeEnd,
        );
      else
        within({ conditions: [...frame.conditions, { kind: 'supports', holds: holds === true, text: node.prelude }] });
      return;
    }
    case 'container':
      report(
        flattening,
        frame,
        'undecided-condition',
        message('css.container-depends-layout', { prelude: node.prelude }),
        node.start,
        node.preludeEnd,
      );
      within({ conditions: [...frame.conditions, { kind: 'container', text: node.prelude }] });
      return;
    case 'layer': {
      const tokens = tokenizeCss(node.prelude);
      const names =
        node.prelude === ''
          ? []
          : splitAtCommas(tokens, 0, tokens.count).map(([from, to]) => textBetween(tokens, from, to));
      if (names.some((name) => !LAYER_NAME.test(name))) {
        report(
          flattening,
          frame,
          'invalid-at-rule',
          message('css.layer-no-layer-name', { prelude: node.prelude }),
          node.start,
          node.preludeEnd,
        );
        return;
      }
      if (node.body === null) {
        for (const name of names) declareLayer(flattening, frame.layer, name);
        return;
      }
      if (names.length > 1) return;
      within({ layer: declareLayer(flattening, frame.layer, names[0] ?? null) });
      return;
    }
    case 'scope': {
      const scope = readScope(node.prelude, frame);
      if (!scope) {
        report(
          flattening,
          frame,
          'invalid-at-rule',
          message('css.scope-malformed', { prelude: node.prelude }),
          node.start,
          node.preludeEnd,
        );
        return;
      }
      const next: Frame = { ...frame, scopes: [...frame.scopes, scope], nesting: null, nestingText: '' };
      const selfSelector = parseSelectorList(':where(:scope)');
      flattenBody(flattening, node.body ?? [], next, selfSelector, node.start);
      return;
    }
    case 'namespace': {
      const declared = /^([\w-]+)\s+(\S.*)$/.exec(node.prelude);
      if (declared) frame.namespaces.set(declared[1], declared[2]);
      return;
    }
    case 'property':
      registerProperty(flattening, node, frame);
      return;
    case 'starting-style':
    case 'keyframes':
    case '-webkit-keyframes':
    case 'font-face':
    case 'page':
    case 'charset':
    case 'counter-style':
    case 'font-feature-values':
    case 'font-palette-values':
    case 'view-transition':
    case 'position-try':
      return;
    default:
      report(
        flattening,
        frame,
        'unsupported-at-rule',
        message('css.not-known', { name: node.name }),
        node.start,
        node.preludeEnd,
      );
  }
}

function readScope(prelude: string, frame: Frame): Scope | null {
  const tokens = tokenizeCss(prelude);
  let i = skipBlank(tokens, 0, tokens.count);
  let start: SelectorList | null = null;
  let end: SelectorList | null = null;
  try {
    if (i < tokens.count && tokens.types[i] === T.LeftParenthesis) {
      start = parseSelectorList(textBetween(tokens, i + 1, tokens.closers[i]), { nesting: frame.nesting ?? null });
      i = skipBlank(tokens, tokens.closers[i] + 1, tokens.count);
    }
    if (i < tokens.count) {
      if (tokenText(tokens, i).toLowerCase() !== 'to') return null;
      i = skipBlank(tokens, i + 1, tokens.count);
      if (tokens.types[i] !== T.LeftParenthesis) return null;
      end = parseSelectorList(textBetween(tokens, i + 1, tokens.closers[i]), { nesting: null });
      i = skipBlank(tokens, tokens.closers[i] + 1, tokens.count);
    }
  } catch (error) {
    if (error instanceof SelectorError) return null;
    throw error;
  }
  return i < tokens.count ? null : { start, end };
}

/** Identifiers joined by dots. Source: CSS Cascading 5 §6.4.2, `<layer-name>`. */
const LAYER_NAME =
  /^(?:--|-?(?:[a-z_\u0080-\uffff]|\\.))(?:[\w-]|[\u0080-\uffff]|\\.)*(?:\.(?:--|-?(?:[a-z_\u0080-\uffff]|\\.))(?:[\w-]|[\u0080-\uffff]|\\.)*)*$/i;

/** Full name of a layer, its parents declared first. Anonymous layers get a name nobody can write. */
function declareLayer(flattening: Flattening, outer: string | null, name: string | null): string {
  const own = name ?? `(anonymous ${(flattening.anonymous += 1)})`;
  let full = outer ?? '';
  for (const step of name === null ? [own] : own.split('.')) {
    full = full === '' ? step.trim() : `${full}.${step.trim()}`;
    if (!flattening.layers.includes(full)) flattening.layers.push(full);
  }
  return full;
}

/** Sheets that may import one another in a row; no site comes near it. */
const MOST_IMPORTS = 100;

function importSheet(flattening: Flattening, node: AtNode, frame: Frame): void {
  const tokens = tokenizeCss(node.prelude);
  let i = skipBlank(tokens, 0, tokens.count);
  const type = tokens.types[i];
  let href: string;
  if (type === T.String) href = cssString.decode(tokenText(tokens, i));
  else if (type === T.Url) href = cssUrl.decode(tokenText(tokens, i));
  else if (type === T.Function && /^url\($/i.test(tokenText(tokens, i)))
    href = cssString.decode(textBetween(tokens, i + 1, tokens.closers[i]));
  else {
    report(flattening, frame, 'invalid-at-rule', message('css.import-names-no-sheet'), node.start, node.end);
    return;
  }
  i = skipBlank(tokens, Math.max(tokens.closers[i], i) + 1, tokens.count);
  let layer = frame.layer;
  if (i < tokens.count && tokens.types[i] === T.Ident && tokenText(tokens, i).toLowerCase() === 'layer') {
    layer = declareLayer(flattening, frame.layer, null);
    i = skipBlank(tokens, i + 1, tokens.count);
  } else if (i < tokens.count && tokens.types[i] === T.Function && tokenText(tokens, i).toLowerCase() === 'layer(') {
    const name = textBetween(tokens, i + 1, tokens.closers[i]);
    if (!LAYER_NAME.test(name)) {
      report(flattening, frame, 'invalid-at-rule', message('css.layer-of-no-name', { name }), node.start, node.end);
      return;
    }
    layer = declareLayer(flattening, frame.layer, name);
    i = skipBlank(tokens, tokens.closers[i] + 1, tokens.count);
  }
  const conditions = [...frame.conditions];
  if (i < tokens.count && tokens.types[i] === T.Function && tokenText(tokens, i).toLowerCase() === 'supports(') {
    const inner = textBetween(tokens, i + 1, tokens.closers[i]);
    const holds = evaluateSupports(`(${inner})`) ?? evaluateSupports(inner) ?? false;
    conditions.push({ kind: 'supports', holds: holds === true, text: inner });
    i = skipBlank(tokens, tokens.closers[i] + 1, tokens.count);
  }
  const media = textBetween(tokens, i, tokens.count);
  tellUnread(flattening, frame, media, node);
  if (media !== '') conditions.push({ kind: 'media', text: media });
  const path = resolvePath(
    frame.sheet.owner && frame.sheet.name.includes(' <style> ') ? frame.sheet.name.split(' <')[0] : frame.sheet.name,
    href,
  );
  if (path !== null && frame.importStack.includes(path)) {
    report(flattening, frame, 'import-cycle', message('css.imports-itself', { path }), node.start, node.end);
    return;
  }
  if (frame.importStack.length >= MOST_IMPORTS) {
    report(
      flattening,
      frame,
      'too-deep',
      message('css.sheets-import-another-more', { bound: MOST_IMPORTS }),
      node.start,
      node.end,
    );
    return;
  }
  const text = path === null ? null : flattening.loadSheet(path);
  if (path === null || text === null) {
    report(
      flattening,
      frame,
      'missing-sheet',
      message('css.imported-stylesheet-was-not', { href }),
      node.start,
      node.end,
    );
    return;
  }
  flattenSheet(
    flattening,
    { ...frame.sheet, name: path, text, media: '' },
    { conditions, layer, importStack: [...frame.importStack, path] },
  );
}

function registerProperty(flattening: Flattening, node: AtNode, frame: Frame): void {
  const descriptors = new Map(
    (node.body ?? [])
      .filter((item): item is DeclarationNode => item.kind === 'declaration')
      .map(({ name, value }) => [name, value]),
  );
  const syntax = descriptors.get('syntax')?.replace(/^["']|["']$/g, '');
  const inherits = descriptors.get('inherits')?.toLowerCase();
  const initial = descriptors.get('initial-value') ?? null;
  if (
    !node.prelude.startsWith('--') ||
    syntax === undefined ||
    (inherits !== 'true' && inherits !== 'false') ||
    (syntax !== '*' && initial === null)
  ) {
    report(
      flattening,
      frame,
      'invalid-at-rule',
      message('css.property-lacks-descriptor', { prelude: node.prelude }),
      node.start,
      node.preludeEnd,
    );
    return;
  }
  flattening.registered.set(node.prelude, { name: node.prelude, syntax, inherits: inherits === 'true', initial });
}

function nestedText(outer: string, inner: string): string {
  const group = outer.includes(',') ? `:is(${outer})` : outer;
  return inner.includes('&') ? inner.replaceAll('&', group) : `${group} ${inner}`;
}

/** Says of a media query list that is past what is read that the rules under it are passed over. */
function tellUnread(
  flattening: Flattening,
  frame: Frame,
  media: string,
  { start, end }: { readonly start: number; readonly end: number },
): void {
  if (!isReadableMedia(media))
    report(flattening, frame, 'too-large', message('css.media-query-list-longer'), start, end);
}

function report(
  flattening: Flattening,
  frame: Frame,
  code: Problem['code'],
  reason: Message,
  start: number,
  end: number,
): void {
  flattening.problems.push({
    code,
    reason,
    loc: { source: frame.sheet.name, start: frame.locate(start), end: frame.locate(end) },
  });
}
