import type { MediaEnvironment } from '../conditions/environment.js';
import type { MatchedBlock } from '../cascade/block.js';
import type { Consulted } from '../selectors/match-context.js';
import type { ElementStyle } from './element-style.js';
import { VENEER_SHEET_NAME, type Page } from './page.js';
import { PerElement } from './per-element.js';

/** Blocks that applied to an element at rest, and whose states were asked about to find them. */
export interface KnownMatch {
  readonly blocks: readonly MatchedBlock[];
  readonly consulted: Consulted;
  /** The style it came to at rest, once that was made. */
  style: ElementStyle | null;
}

/** What is known to match at rest, by element and pseudo-element. */
export type RestMatches = PerElement<KnownMatch>;

/**
 * What views of one captured page have in common, whatever their states, veneers and, where `isByWidth` says no, widths: elements
 * that the same declarations reach in the same order, under parents with the same values, come to the same values.
 */
export class StyleShare {
  readonly #twins = new Map<object, Map<string, ElementStyle>>();
  readonly #ids = new WeakMap<object, number>();
  readonly #blockKeys = new WeakMap<MatchedBlock, string>();
  readonly #veneerIds = new Map<string, number>();
  readonly #matches = new Map<Page, Map<object, RestMatches>>();
  readonly #kept = new WeakMap<object, Map<string, unknown>>();
  #count = 0;

  /** A style that comes to the same values; `null` for the first. @param around identity of the style it hangs on; `null` for the root element. */
  twin(around: object | null, key: string): ElementStyle | null {
    return this.#twins.get(around ?? ROOT)?.get(key) ?? null;
  }

  keep(around: object | null, key: string, style: ElementStyle): void {
    let twins = this.#twins.get(around ?? ROOT);
    if (!twins) this.#twins.set(around ?? ROOT, (twins = new Map()));
    twins.set(key, style);
  }

  /** Text that stands for what a block declares and how it ranks among others. */
  keyOf(block: MatchedBlock): string {
    let key = this.#blockKeys.get(block);
    if (key === undefined) this.#blockKeys.set(block, (key = `|${this.#idOf(block)}:${block.specificity.join()}`));
    return key;
  }

  #idOf({ rule, declarations, specificity }: MatchedBlock): number {
    if (rule === null) return this.#numberOf(declarations);
    if (rule.sheet.name !== VENEER_SHEET_NAME) return this.#numberOf(rule);
    // Each veneer is parsed anew: its rules are told by what they say.
    const text = `${specificity.join()}|${rule.declarations.map(({ name, value, important }) => `${name}:${value}${important ? '!' : ''}`).join(';')}`;
    const known = this.#veneerIds.get(text);
    if (known !== undefined) return known;
    this.#veneerIds.set(text, (this.#count += 1));
    return this.#count;
  }

  /** What matched the elements of a page at rest, as far as it is known. @param answers to conditions in the view's environment. */
  matches(page: Page, answers: object): RestMatches {
    let byAnswers = this.#matches.get(page);
    if (!byAnswers) this.#matches.set(page, (byAnswers = new Map()));
    let matches = byAnswers.get(answers);
    if (!matches) byAnswers.set(answers, (matches = new PerElement(page.document)));
    return matches;
  }

  /** What hangs on the values of a style alone, worked out once for all views. @param identity of the style. @param key what it is, and what else it hangs on. */
  once<T>(identity: object, key: string, find: () => T): T {
    let kept = this.#kept.get(identity);
    if (!kept) this.#kept.set(identity, (kept = new Map()));
    if (kept.has(key)) return kept.get(key) as T;
    const found = find();
    kept.set(key, found);
    return found;
  }

  #numberOf(thing: object): number {
    const known = this.#ids.get(thing);
    if (known !== undefined) return known;
    this.#ids.set(thing, (this.#count += 1));
    return this.#count;
  }
}

const ROOT = {};

const byWidth = new WeakMap<Page['base'], boolean>();
const VIEWPORT_UNIT = /\d[sld]?v(?:w|h|i|b|min|max)\b/i;

/** Whether a value is measured by the viewport. Source: CSS Values 4 §6.1.2. */
export function hangsOnViewport(value: string): boolean {
  return VIEWPORT_UNIT.test(value);
}

/** Whether values on a page hang on the size of the viewport, so that views at several widths have nothing in common. */
export function isByWidth(page: Page): boolean {
  let answer = byWidth.get(page.base);
  if (answer === undefined) {
    answer =
      page.base.rules.some(({ declarations }) => declarations.some(({ value }) => hangsOnViewport(value))) ||
      page.document.elements.some(({ attributes }) => hangsOnViewport(attributes.get('style') ?? '')) ||
      [...page.registered.values()].some(({ initial }) => hangsOnViewport(initial ?? ''));
    byWidth.set(page.base, answer);
  }
  return (
    answer || page.veneerRules.some(({ declarations }) => declarations.some(({ value }) => hangsOnViewport(value)))
  );
}

/** What views of one captured page share, by the environment they are in. */
export class StyleShares {
  readonly #byEnvironment = new Map<string, StyleShare>();

  /** @param isByWidth whether views at several widths have nothing in common. */
  constructor(readonly isByWidth: boolean) {}

  of({ width, height, ...rest }: Partial<MediaEnvironment>): StyleShare {
    const key = JSON.stringify(this.isByWidth ? { width, height, ...rest } : rest);
    let share = this.#byEnvironment.get(key);
    if (!share) this.#byEnvironment.set(key, (share = new StyleShare()));
    return share;
  }
}
