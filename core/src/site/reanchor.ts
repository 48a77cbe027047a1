import { lineageOf, textOf, type ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { shortName } from '../selectors/describe-element.js';

/**
 * Where an element of a page is in another capture of the same page: the one of its kind that shares most with it, its
 * id before its classes, its text and its ancestors.
 * @param number running number in `before`.
 * @returns running number in `after`; `null` when nothing there is like it.
 */
export function reanchor(before: Page, after: Page, number: number): number | null {
  const element = before.document.elements[number];
  if (!element) return null;
  const wanted = signatureOf(element);
  let best: { readonly number: number; readonly score: number; readonly apart: number } | null = null;
  for (const candidate of after.document.elements) {
    if (candidate.localName !== element.localName) continue;
    const score = likeness(wanted, signatureOf(candidate));
    const apart = Math.abs(candidate.number - number);
    if (score > 0 && (!best || score > best.score || (score === best.score && apart < best.apart)))
      best = { number: candidate.number, score, apart };
  }
  return best?.number ?? null;
}

interface Signature {
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly text: string;
  readonly above: readonly string[];
}

function signatureOf(element: ElementNode): Signature {
  return {
    id: element.id,
    classes: element.classes,
    text: textOf(element, 80),
    above: lineageOf(element)
      .slice(0, -1)
      .map((node) => shortName(node))
      .reverse(),
  };
}

function likeness(a: Signature, b: Signature): number {
  const classes = a.classes.filter((name) => b.classes.includes(name)).length;
  let above = 0;
  while (above < a.above.length && a.above[above] === b.above[above]) above += 1;
  const isSameText = a.text !== '' && a.text === b.text;
  const isAlike =
    (a.id !== null && a.id === b.id) || classes > 0 || isSameText || (a.classes.length === 0 && above > 1);
  return isAlike
    ? (a.id !== null && a.id === b.id ? 1000 : 0) + classes * 20 + (isSameText ? 30 : 0) + above * 3 + 1
    : 0;
}
