import { message, type Message } from '../message/message.js';
import Papa from 'papaparse';
import type { DayCount } from './counts.js';

/** What a file of counts gave, and what of it could not be read, with where. */
export interface CountsReading {
  readonly counts: readonly DayCount[];
  readonly problems: readonly { readonly where: Message | string; readonly reason: Message }[];
}

/** Longest text that is read, UTF-16 units, and most lines. */
const LONGEST = 2_000_000;
const MOST_LINES = 20_000;
const MOST_COUNTED = 1_000_000_000;
const COLUMNS = ['day', 'variation', 'seen', 'pressed'] as const;

/** Reads counts from CSV (RFC 4180) with the columns day, variation, seen and pressed, in any order. @param variations those of the trial. */
export function readCounts(text: string, variations: readonly string[]): CountsReading {
  if (text.length > LONGEST) return failed(message('file.file'), message('file.longer-than', { bound: LONGEST }));
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, '').trim(), {
    skipEmptyLines: true,
    preview: MOST_LINES + 2,
  });
  const [head = [], ...lines] = data;
  const at = COLUMNS.map((name) => head.findIndex((own) => own.trim().toLowerCase() === name));
  const missing = COLUMNS.filter((_, i) => at[i] === -1);
  if (missing.length > 0)
    return failed(message('file.line', { line: 1 }), message('counts.has-no-column', { missing }));
  if (lines.length > MOST_LINES)
    return failed(message('file.file'), message('counts.has-more-than-lines', { bound: MOST_LINES }));
  const counts: DayCount[] = [];
  const problems: CountsReading['problems'][number][] = [];
  const known = new Set<string>();
  lines.forEach((line, i) => {
    const [day, variation, seen, pressed] = at.map((column) => (line[column] ?? '').trim());
    const own = variations.find((name) => name.toLowerCase() === variation.toLowerCase());
    const problem = !isDay(day)
      ? message('counts.no-day-such-as', { day: day.slice(0, 40) })
      : own === undefined
        ? noVariation(variation)
        : !isCount(seen) || !isCount(pressed)
          ? message('counts.seen-pressed-must-be')
          : Number(pressed) > Number(seen)
            ? message('counts.pressed-who-saw', { pressed, seen })
            : known.has(`${day} ${own}`)
              ? message('counts.stand-here-twice', { day, own })
              : null;
    if (problem !== null || own === undefined) {
      problems.push({ where: message('file.line', { line: i + 2 }), reason: problem ?? noVariation(variation) });
      return;
    }
    known.add(`${day} ${own}`);
    counts.push({ day, variation: own, seen: Number(seen), pressed: Number(pressed) });
  });
  return { counts, problems };
}

function noVariation(variation: string): Message {
  return message('counts.no-variation-this-trial', { variation: variation.slice(0, 40) });
}

function failed(where: Message | string, reason: Message): CountsReading {
  return { counts: [], problems: [{ where, reason }] };
}

function isDay(text: string): boolean {
  return (
    /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text)
  );
}

function isCount(text: string): boolean {
  return /^\d{1,10}$/.test(text) && Number(text) <= MOST_COUNTED;
}
