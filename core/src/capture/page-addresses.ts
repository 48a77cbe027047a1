import type { DefaultTreeAdapterTypes as P5 } from 'parse5';
import { withoutEnd } from '../syntax/text-ends.js';

/** What an address in a page is for. */
export type AddressKind = 'stylesheet' | 'file' | 'page' | 'frame' | 'script' | 'other';

/** An address in an attribute of a page's element. */
export interface AddressSlot {
  readonly kind: AddressKind;
  readonly value: string;
  set(value: string | null): void;
}

/** Attributes that hold one address, by element; `*` is any. */
const SINGLE: readonly (readonly [element: string, attribute: string, kind: AddressKind])[] = [
  ['img', 'src', 'file'],
  ['source', 'src', 'file'],
  ['input', 'src', 'file'],
  ['video', 'poster', 'file'],
  ['video', 'src', 'other'],
  ['audio', 'src', 'other'],
  ['track', 'src', 'other'],
  ['image', 'href', 'file'],
  ['image', 'xlink:href', 'file'],
  ['use', 'href', 'file'],
  ['use', 'xlink:href', 'file'],
  ['feimage', 'href', 'file'],
  ['body', 'background', 'file'],
  ['table', 'background', 'file'],
  ...['thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'col', 'colgroup'].map(
    (element) => [element, 'background', 'file'] as const,
  ),
  ['a', 'href', 'page'],
  ['area', 'href', 'page'],
  ['iframe', 'src', 'frame'],
  ['frame', 'src', 'frame'],
  ['embed', 'src', 'other'],
  ['object', 'data', 'other'],
  ['script', 'src', 'script'],
];

/** Addresses of one element, its attributes behind them. */
export function addressSlotsOf(element: P5.Element): AddressSlot[] {
  const slots: AddressSlot[] = [];
  const nameOf = (attribute: P5.Element['attrs'][number]): string =>
    (attribute.prefix ? `${attribute.prefix}:${attribute.name}` : attribute.name).toLowerCase();
  const attributeOf = (name: string): P5.Element['attrs'][number] | undefined =>
    element.attrs.find((attribute) => nameOf(attribute) === name);
  const tag = element.tagName.toLowerCase();
  const add = (name: string, kind: AddressKind): void => {
    const attribute = attributeOf(name);
    if (!attribute || attribute.value.trim() === '') return;
    slots.push({
      kind,
      value: attribute.value.trim(),
      set: (value) => {
        if (value === null) element.attrs = element.attrs.filter((other) => other !== attribute);
        else attribute.value = value;
      },
    });
  };
  for (const [owner, name, kind] of SINGLE) if (owner === tag) add(name, kind);
  if (tag === 'link') {
    const rel = (attributeOf('rel')?.value ?? '').toLowerCase().split(/\s+/);
    if (rel.includes('stylesheet')) add('href', 'stylesheet');
    else if (rel.includes('icon') || rel.includes('apple-touch-icon')) add('href', 'file');
    else add('href', 'other');
  }
  return slots;
}

const BLANK = ' \t\n\f\r';

/** The candidates of a `srcset`, with their descriptors. Source: HTML §4.8.4.3.10, the splitting loop and its tokenizer of descriptors. */
export function parseSrcset(text: string): { readonly address: string; readonly descriptor: string }[] {
  const candidates: { address: string; descriptor: string }[] = [];
  let at = 0;
  const skip = (marks: string): void => {
    while (at < text.length && marks.includes(text[at])) at += 1;
  };
  for (skip(`${BLANK},`); at < text.length; skip(`${BLANK},`)) {
    const start = at;
    while (at < text.length && !BLANK.includes(text[at])) at += 1;
    const raw = text.slice(start, at);
    const address = withoutEnd(raw, ',');
    const from = at;
    if (address.length === raw.length) {
      let isOpen = false;
      for (; at < text.length && (isOpen || text[at] !== ','); at += 1) {
        if (text[at] === '(') isOpen = true;
        else if (text[at] === ')') isOpen = false;
      }
    }
    candidates.push({ address, descriptor: text.slice(from, at).trim() });
  }
  return candidates;
}
