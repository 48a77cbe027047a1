import { message, type Message } from '../message/message.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { LightingMarker } from './lighting.js';

/** How a typed marker was read. */
export type MarkerReading =
  { readonly ok: true; readonly marker: LightingMarker } | { readonly ok: false; readonly reason: Message };

const FORM = message('css.write-class-or-attribute');
const MOST_CHARACTERS = 200;

/** Reads what calls a second lighting: a compound selector of the root or the body with one class or one attribute; without a type the root is meant. */
export function readMarker(text: string): MarkerReading {
  const trimmed = text.trim();
  if (trimmed === '' || trimmed.length > MOST_CHARACTERS) return { ok: false, reason: FORM };
  try {
    const list = parseSelectorList(trimmed);
    const [selector] = list;
    if (list.length !== 1 || selector.compounds.length !== 1 || selector.pseudoElements.length > 0)
      return { ok: false, reason: FORM };
    const [{ type, ids, classes, attributes, pseudoClasses }] = selector.compounds;
    const isRoot = pseudoClasses.length === 1 && pseudoClasses[0].kind === 'named' && pseudoClasses[0].name === 'root';
    const on = type?.toLowerCase() ?? 'html';
    if ((on !== 'html' && on !== 'body') || ids.length > 0 || (pseudoClasses.length > 0 && !(isRoot && type === null)))
      return { ok: false, reason: FORM };
    if (classes.length === 1 && attributes.length === 0)
      return { ok: true, marker: { kind: 'marker', on, attribute: 'class', value: classes[0] } };
    const [attribute] = attributes;
    if (classes.length > 0 || attributes.length !== 1 || (attribute.operator !== '' && attribute.operator !== '='))
      return { ok: false, reason: FORM };
    if (attribute.name === 'class') return { ok: false, reason: message('css.write-class-with-full') };
    return { ok: true, marker: { kind: 'marker', on, attribute: attribute.name, value: attribute.value } };
  } catch (error) {
    if (!(error instanceof SelectorError)) throw error;
    return { ok: false, reason: message('css.selector-and-form', { problem: error.told, form: FORM }) };
  }
}
