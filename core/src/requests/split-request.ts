import type { RequestItem } from './request.js';

/** What is guessed of a client's text: its wishes, and which parts and pages each speaks of. */
export type GuessedItem = Pick<RequestItem, 'words' | 'partIds' | 'pageIds'>;

interface Named {
  readonly id: number;
  readonly name: string;
}

/** Words that name no part by themselves. */
const COMMON = new Set(['and', 'the', 'of', 'with', 'page', 'site', 'for', 'a']);
const MOST_ITEMS = 60;
const LONGEST = 400;

/**
 * Splits a client's text into wishes: a line each where it has several, else a sentence each; a line that only leads to others, by its
 * colon, is none. Parts and pages are guessed by the words of their names (common practice); where none is named, neither is settled.
 */
export function splitRequest(text: string, parts: readonly Named[], pages: readonly Named[]): GuessedItem[] {
  const lines = text
    .split('\n')
    .map((line) => withoutMark(line.trim()))
    .filter((line) => line !== '' && !(line.endsWith(':') && text.includes('\n')));
  const wishes = lines.length > 1 ? lines : lines.flatMap(sentencesIn);
  return wishes.slice(0, MOST_ITEMS).map((words) => ({
    words: words.slice(0, LONGEST),
    partIds: namedIn(words, parts),
    pageIds: namedIn(words, pages),
  }));
}

/** A line without the mark of a list before it. */
function withoutMark(line: string): string {
  return line.replace(/^(?:[-*•–—]|\d{1,3}[.)])\s/, '').trim();
}

function sentencesIn(line: string): string[] {
  return line
    .split(/(?<=[.!?;])\s/)
    .map((sentence) => sentence.trim().replace(/[.;]$/, ''))
    .filter((sentence) => sentence !== '');
}

function namedIn(words: string, named: readonly Named[]): number[] {
  const said = new Set(wordsOf(words));
  return named
    .filter(({ name }) => wordsOf(name).some((word) => !COMMON.has(word) && said.has(word)))
    .map(({ id }) => id);
}

/** Words in small letters, without the mark of the plural. */
function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]/u)
    .filter((word) => word.length > 1)
    .map((word) => (word.length > 3 && word.endsWith('s') ? word.slice(0, -1) : word));
}
