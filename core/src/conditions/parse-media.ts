import { parse, type MediaQuery } from '@csstools/media-query-list-parser';

/** Longest list that is read, UTF-16 units; longer ones hold for nothing. */
const MAX_LENGTH = 20_000;
/** Parentheses nested deeper than this are not read. */
const MAX_DEPTH = 200;

/** The queries of a list, malformed ones among them; none for a text without any. */
export function parseMediaQueries(text: string): readonly MediaQuery[] {
  if (text.trim() === '') return [];
  return parse(isReadableMedia(text) ? text : 'not all', { preserveInvalidMediaQueries: true });
}

/** Whether a list is within what is read: one that is not holds for nothing, which whoever comes by it is to say. */
export function isReadableMedia(text: string): boolean {
  if (text.length > MAX_LENGTH) return false;
  let depth = 0;
  for (const char of text) {
    if (char === '(' || char === '[' || char === '{') depth += 1;
    else if (char === ')' || char === ']' || char === '}') depth -= 1;
    if (depth > MAX_DEPTH) return false;
  }
  return true;
}
