import { clone, generate, lexer, parse, walk, type CssNode, type List, type ListItem } from 'css-tree';
import { isColorFunction, parseColorNode } from '../values/parse-color.js';
import { SYSTEM_COLORS } from '../values/system-colors.js';
import { vendorAnswer } from './vendor-properties.js';
import { valueNodes } from '../values/value-nodes.js';

/** CSS-wide keywords. Source: CSS Cascading 5 §7.3. */
export const CSS_WIDE_KEYWORDS: ReadonlySet<string> = new Set([
  'inherit',
  'initial',
  'unset',
  'revert',
  'revert-layer',
]);

const answers = new Map<string, boolean>();
const MAX_ANSWERS = 50_000;
/** A value longer than this is not matched against its grammar, in UTF-16 units. */
const MAX_VALUE_LENGTH = 200_000;

/** Whether a value text refers to custom properties, so that its validity is known at computed-value time only. */
export function hasVariable(value: string): boolean {
  return /(?:^|[^\w-])(?:var|env|attr|if)\(/i.test(value);
}

/**
 * Whether a browser keeps `property: value`.
 * css-tree's grammar decides; colours are read by the product's own parser, which knows relative colours.
 * @param property lower case, or a custom property.
 */
export function isPropertyValue(property: string, value: string): boolean {
  if (property.startsWith('--')) return property.length > 2;
  if (value === '' || value.length > MAX_VALUE_LENGTH) return false;
  if (CSS_WIDE_KEYWORDS.has(value.toLowerCase()) || hasVariable(value)) return isKnownProperty(property);
  const key = `${property}:${value}`;
  const known = answers.get(key);
  if (known !== undefined) return known;
  if (answers.size > MAX_ANSWERS) answers.clear();
  const answer = matchesGrammar(property, value);
  answers.set(key, answer);
  return answer;
}

/** Whether a property name is known to browsers. */
export function isKnownProperty(property: string): boolean {
  const answer = vendorAnswer(property);
  if (answer !== null) return answer === 'known';
  return (
    property.startsWith('--') ||
    property === 'all' ||
    EXTRA_KEYWORDS.has(property) ||
    lexer.getProperty(property) !== null
  );
}

/** Values that Chromium takes and css-tree's tables do not, with the reason. */
const EXTRA_KEYWORDS: ReadonlyMap<string, ReadonlySet<string>> = new Map([
  ['font-family', new Set<string>()],
  ['color', new Set(['-webkit-link', '-webkit-activelink', '-webkit-focus-ring-color', '-internal-light-dark'])], // used by the user-agent sheet
  ['outline-color', new Set(['-webkit-focus-ring-color'])], // common practice in older sheets
  ['outline-style', new Set(['auto'])],
  [
    'text-align',
    new Set(['-webkit-center', '-webkit-left', '-webkit-right', '-webkit-match-parent', '-internal-center']),
  ], // HTML rendering section's align
  [
    'display',
    new Set([
      '-webkit-box',
      '-webkit-inline-box',
      '-webkit-flex',
      '-webkit-inline-flex',
      'math',
      'block math',
      'inline math',
    ]),
  ], // Compatibility Standard §4.6
  [
    'appearance',
    new Set([
      'button',
      'checkbox',
      'listbox',
      'menulist',
      'menulist-button',
      'meter',
      'progress-bar',
      'push-button',
      'radio',
      'searchfield',
      'slider-horizontal',
      'square-button',
      'textarea',
      'textfield',
      'base-select',
    ]),
  ],
]);

function matchesGrammar(property: string, value: string): boolean {
  if (EXTRA_KEYWORDS.get(property)?.has(value.toLowerCase())) return true;
  const answer = vendorAnswer(property);
  if (answer === 'unknown') return false;
  if (lexer.getProperty(property) === null) return answer === 'known';
  let node: CssNode;
  try {
    node = parse(value, {
      context: 'value',
      onParseError: (error) => {
        throw error;
      },
    });
  } catch {
    return false;
  }
  let colorsHold = true;
  const copy = clone(node);
  walk(copy, {
    enter(child: CssNode, item: ListItem<CssNode>, list: List<CssNode>) {
      if (child.type === 'Function' && isColorFunction(child.name)) {
        if (parseColorNode(child) === null) colorsHold = false;
        if (item && list) list.replace(item, list.createItem({ type: 'Identifier', name: 'red' }));
        else colorsHold = false;
        return walk.skip;
      }
      if (child.type === 'Hash' && !/^(?:[0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.test(child.value))
        colorsHold = false;
      return undefined;
    },
  });
  if (!colorsHold) return false;
  if (lexer.matchProperty(property, copy).error === null) return true;
  if (replaceSystemColors(copy) && lexer.matchProperty(property, copy).error === null) return true;
  // css-tree's tables lack a few system colours and vendor spellings of the colour grammar.
  if (!/color$|^fill$|^stroke$/.test(property)) return false;
  const single = parseColorText(generate(node));
  return single;
}

/** css-tree's colour grammar lacks the deprecated system colours; each is stood in for. Returns whether there was one. */
function replaceSystemColors(node: CssNode): boolean {
  let found = false;
  walk(node, {
    enter(child: CssNode, item: ListItem<CssNode>, list: List<CssNode>) {
      if (child.type !== 'Identifier' || !SYSTEM_COLORS.has(child.name.toLowerCase()) || !list) return;
      found = true;
      list.replace(item, list.createItem({ type: 'Identifier', name: 'red' }));
    },
  });
  return found;
}

function parseColorText(text: string): boolean {
  const children = valueNodes(text);
  return children.length === 1 && parseColorNode(children[0]) !== null;
}
