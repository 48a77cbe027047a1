import { message, type Message } from '../message/message.js';
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
export function stepProblem({ act, selector, words, frame, width }: VisitStep): Message | null {
  if (AIMED.has(act) && selector === '' && words === '') return message('visit.needs-selector-or-words');
  if (act === 'width' && width === null) return message('visit.needs-width');
  for (const text of [selector, frame])
    if (text !== '' && !isSelector(text)) return message('visit.no-css-selector', { text: text.slice(0, 80) });
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
export function planProblem({ keep, steps }: VisitPlan): Message | null {
  for (const [i, step] of steps.entries()) {
    const problem = stepProblem(step);
    if (problem !== null) return message('visit.step', { step: i + 1, problem });
  }
  const names = steps.flatMap((step) => (step.keep === null ? [] : [step.keep]));
  if (keep === null && names.length === 0) return message('visit.no-page-kept-keep');
  const unnamed = steps.findIndex((step) => step.keep?.trim() === '');
  if (unnamed >= 0) return message('visit.page-kept-after-step', { step: unnamed + 1 });
  const double = [...(keep ? [keep] : []), ...names].find((name, i, all) => all.indexOf(name) !== i);
  return double === undefined ? null : message('visit.two-pages-are-kept', { double });
}

/** A step in words. */
export function describeStep({ act, selector, words, frame, text, width }: VisitStep): Message {
  const aim = words === '' ? selector : `“${words}”`;
  const what = frame === '' ? aim : message('visit.in-frame', { what: aim, frame });
  switch (act) {
    case 'wait':
      return message('visit.wait-for', { what });
    case 'press':
      return message('visit.press', { what });
    case 'type':
      return message('visit.type-into', { text, what });
    case 'choose':
      return message('visit.choose', { text, what });
    case 'hover':
      return message('visit.hover-over', { what });
    case 'scroll':
      return aim === '' ? message('visit.scroll-end') : message('visit.scroll-to', { what });
    case 'width':
      return message('visit.at-width', { width: width ?? 0 });
    case 'anew':
      return message('visit.begin-anew-as-visitor');
  }
}
