import type { Message } from '../message/message.js';

/** Something on a page that is looked at, and by what a step finds it again. */
export interface SeenElement {
  /** In CSS px of the window; past it where it is further down. */
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly selector: string;
  readonly words: string;
  /** CSS selector of the frame it is in; absent for the page itself. */
  readonly frame?: string;
  /** What it is called, for reading. */
  readonly name: string;
  /** What is mostly done to it. */
  readonly act: 'press' | 'type' | 'choose' | 'wait';
  /** What can be chosen, for a list. */
  readonly choices: readonly string[];
}

/** A page as it is now in the browser it was opened in. */
export interface PageSight {
  /** Of the window, CSS px. */
  readonly width: number;
  readonly height: number;
  readonly address: string;
  readonly title: string;
  readonly elements: readonly SeenElement[];
  /** What a visitor would not see, in words. */
  readonly notes: readonly Message[];
}
