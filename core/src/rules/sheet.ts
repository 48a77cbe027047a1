import type { ElementNode, Namespace, TreeRoot } from '../dom/tree.js';

/** Cascade origins. Source: CSS Cascading 5 §6.2. */
export type Origin = 'user-agent' | 'author';

/** A stylesheet of a page, in cascade order. */
export interface Sheet {
  /** Name for people and places: its path, or `book.html <style> 2`. */
  readonly name: string;
  readonly origin: Origin;
  readonly text: string;
  /** Media query list of its owner; empty for none. */
  readonly media: string;
  /** Tree it styles. */
  readonly tree: TreeRoot;
  /** `<link>` or `<style>` that brings it; `null` for the user-agent sheet and a veneer. */
  readonly owner: ElementNode | null;
  /** Whether it takes no part: switched off, or of an alternate set that is not preferred. */
  readonly disabled: boolean;
  /** Set of alternates it belongs to; empty for persistent sheets. */
  readonly title: string;
  /** Namespace its rules are bound to, as a default `@namespace` would bind them; any when left out. */
  readonly namespace?: Namespace;
}

/** Reads a stylesheet by its path within the site, alike each time; `null` when there is none. */
export type LoadSheet = (path: string) => string | null;
