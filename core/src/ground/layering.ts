import type { Message } from '../message/message.js';
import { compositeOver } from '../color/contrast.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { rgb8, type Color } from '../values/color.js';
import { groupOf } from './paint-at.js';

/** A group laid on in one piece, told by the style that makes it. */
export interface Group {
  readonly of: ElementStyle;
  readonly opacity: number;
}

/** Ancestors, the element and its pseudo-element among them, that are laid on in one piece, the outermost first. */
export function groupsOf(view: StyleView, element: ElementNode, pseudo: string, doubts: Message[]): Group[] {
  const groups: Group[] = [];
  const styles = [
    // What a highlight says of opacity and filters is its element's.
    ...(pseudo === '' || pseudo === 'selection' ? [] : [view.style(element, pseudo)]),
    ...lineageOf(element)
      .reverse()
      .map((node) => view.style(node)),
  ];
  for (const of of styles) {
    const { opacity, doubt } = groupOf(of);
    if (doubt !== null) doubts.push(doubt);
    if (opacity < 1) groups.unshift({ of, opacity });
  }
  return groups;
}

/** Layers of one point, groups of opacity laid on as they end. */
export class Layering {
  readonly #stack: { readonly of: ElementStyle | null; readonly opacity: number; color: Color }[];

  constructor(base: Color) {
    this.#stack = [{ of: null, opacity: 1, color: base }];
  }

  lay(groups: readonly Group[], color: Color | null): void {
    if (!color || (color.alpha ?? 0) === 0) return;
    let shared = 0;
    while (shared < groups.length && this.#stack[shared + 1]?.of === groups[shared].of) shared += 1;
    while (this.#stack.length > shared + 1) this.#close();
    for (const group of groups.slice(shared)) this.#stack.push({ ...group, color: CLEAR });
    const top = this.#stack[this.#stack.length - 1];
    top.color = compositeOver(color, top.color);
  }

  /** The colour in the end. */
  flat(): Color {
    while (this.#stack.length > 1) this.#close();
    return this.#stack[0].color;
  }

  #close(): void {
    const group = this.#stack.pop();
    const below = this.#stack[this.#stack.length - 1];
    if (group && below) below.color = compositeOver(group.color, below.color, group.opacity);
  }
}

export const CLEAR = rgb8(0, 0, 0, 0);
