import { message, type Message } from '../message/message.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { SelectorError, parseSelectorList } from './parse-selector.js';

/** Why a text cannot stand before a rule's block; `null` when a browser would take it, and it ends where it ends. */
export function selectorProblem(text: string): Message | null {
  const shown = text.length > 60 ? `${text.slice(0, 59)}…` : text;
  const problem = wholenessProblem(text);
  if (problem !== null) return message('css.quoted-problem', { shown, problem });
  if (/[{}]/.test(text)) return message('selector.holds-brace', { shown });
  try {
    parseSelectorList(text);
    return null;
  } catch (error) {
    if (error instanceof SelectorError) return error.told;
    throw error;
  }
}
