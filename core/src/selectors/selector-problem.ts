import { wholenessProblem } from '../syntax/whole-text.js';
import { SelectorError, parseSelectorList } from './parse-selector.js';

/** Why a text cannot stand before a rule's block; `null` when a browser would take it, and it ends where it ends. */
export function selectorProblem(text: string): string | null {
  const shown = text.length > 60 ? `${text.slice(0, 59)}…` : text;
  const problem = wholenessProblem(text);
  if (problem !== null) return `"${shown}" ${problem}`;
  if (/[{}]/.test(text)) return `"${shown}" holds a brace`;
  try {
    parseSelectorList(text);
    return null;
  } catch (error) {
    if (error instanceof SelectorError) return error.message;
    throw error;
  }
}
