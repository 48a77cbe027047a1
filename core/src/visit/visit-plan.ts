import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';

/** What a visitor can do to a page. */
export const VISIT_ACTS = ['wait', 'press', 'type', 'choose', 'hover', 'scroll', 'width', 'anew'] as const;
export type VisitAct = (typeof VISIT_ACTS)[number];

/** One thing a visitor does, and whether the page is kept as it stands after it. */
export interface VisitStep {
  readonly act: VisitAct;
  /** CSS selector of what it is done to, matched in the page and in every open shadow tree; empty for any element. */
  readonly selector: string;
  /** Words that the element shows or is named by; empty for any. */
  readonly words: string;
  /** CSS selector of the frame it is in; empty for the page itself. */
  readonly frame: string;
  /** What is typed or chosen. */
  readonly text: string;
  /** Width of the window, CSS px, for `width`. */
  readonly width: number | null;
  /** Name of the page that is kept after it; `null` when none is. */
  readonly keep: string | null;
}

/** An address, how wide the window is, what is done there, and what is kept of it. */
export interface VisitPlan {
  readonly address: string;
  /** CSS px. */
  readonly width: number;
  /** Name of the page as it stands when it has come, empty for its own title; `null` when it is not kept. */
  readonly keep: string | null;
  readonly steps: readonly VisitStep[];
}

/** Bounds of a plan. */
export const VISIT_BOUNDS = { steps: 40, leastWidth: 240, mostWidth: 3840, textLength: 500 } as const;

/** Acts that need something to be done to. */
const AIMED: ReadonlySet<VisitAct> = new Set(['wait', 'press', 'type', 'choose', 'hover']);

/** What is wrong with a step, as a sentence; `null` when nothing is. */
export function stepProblem({ act, selector, words, frame, width }: VisitStep): string | null {
  if (AIMED.has(act) && selector === '' && words === '') return 'needs a selector, or words to find it by';
  if (act === 'width' && width === null) return 'needs a width';
  for (const text of [selector, frame])
    if (text !== '' && !isSelector(text)) return `"${text.slice(0, 80)}" is no CSS selector`;
  return null;
}

function isSelector(text: string): boolean {
  try {
    parseSelectorList(text);
    return true;
  } catch (error) {
    if (error instanceof SelectorError) return false;
    throw error;
  }
}

/** What is wrong with a plan, as a sentence; `null` when nothing is. */
export function planProblem({ keep, steps }: VisitPlan): string | null {
  for (const [i, step] of steps.entries()) {
    const problem = stepProblem(step);
    if (problem !== null) return `Step ${i + 1} ${problem}`;
  }
  const names = steps.flatMap((step) => (step.keep === null ? [] : [step.keep]));
  if (keep === null && names.length === 0) return 'No page is kept: keep one after a step';
  const unnamed = steps.findIndex((step) => step.keep?.trim() === '');
  if (unnamed >= 0) return `The page kept after step ${unnamed + 1} needs a name`;
  const double = [...(keep ? [keep] : []), ...names].find((name, i, all) => all.indexOf(name) !== i);
  return double === undefined ? null : `Two pages are kept as "${double}"`;
}

/** A step in words. */
export function describeStep({ act, selector, words, frame, text, width }: VisitStep): string {
  const what = words === '' ? selector : `“${words}”`;
  const where = frame === '' ? '' : ` in the frame ${frame}`;
  switch (act) {
    case 'wait':
      return `Wait for ${what}${where}`;
    case 'press':
      return `Press ${what}${where}`;
    case 'type':
      return `Type “${text}” into ${what}${where}`;
    case 'choose':
      return `Choose “${text}” in ${what}${where}`;
    case 'hover':
      return `Hover over ${what}${where}`;
    case 'scroll':
      return what === '' ? 'Scroll to the end' : `Scroll to ${what}${where}`;
    case 'width':
      return `At ${width ?? 0} px`;
    case 'anew':
      return 'Begin anew, as a visitor who was never there';
  }
}
