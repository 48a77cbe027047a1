import Papa from 'papaparse';
import type { DayCount } from './counts.js';

/** What a file of counts gave, and what of it could not be read, with where. */
export interface CountsReading {
  readonly counts: readonly DayCount[];
  readonly problems: readonly { readonly where: string; readonly reason: string }[];
}

/** Longest text that is read, UTF-16 units, and most lines. */
const LONGEST = 2_000_000;
const MOST_LINES = 20_000;
const MOST_COUNTED = 1_000_000_000;
const COLUMNS = ['day', 'variation', 'seen', 'pressed'] as const;

/** Reads counts from CSV (RFC 4180) with the columns day, variation, seen and pressed, in any order. @param variations those of the trial. */
export function readCounts(text: string, variations: readonly string[]): CountsReading {
  if (text.length > LONGEST) return failed('the file', `is longer than ${LONGEST.toLocaleString('en')} characters`);
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, '').trim(), {
    skipEmptyLines: true,
    preview: MOST_LINES + 2,
  });
  const [head = [], ...lines] = data;
  const at = COLUMNS.map((name) => head.findIndex((own) => own.trim().toLowerCase() === name));
  const missing = COLUMNS.filter((_, i) => at[i] === -1);
  if (missing.length > 0) return failed('line 1', `has no column ${missing.join(', ')}`);
  if (lines.length > MOST_LINES) return failed('the file', `has more than ${MOST_LINES.toLocaleString('en')} lines`);
  const counts: DayCount[] = [];
  const problems: CountsReading['problems'][number][] = [];
  const known = new Set<string>();
  lines.forEach((line, i) => {
    const [day, variation, seen, pressed] = at.map((column) => (line[column] ?? '').trim());
    const own = variations.find((name) => name.toLowerCase() === variation.toLowerCase());
    const reason = !isDay(day)
      ? `"${day.slice(0, 40)}" is no day, such as 2026-05-04`
      : own === undefined
        ? `"${variation.slice(0, 40)}" is no variation of this trial`
        : !isCount(seen) || !isCount(pressed)
          ? 'seen and pressed must be whole numbers'
          : Number(pressed) > Number(seen)
            ? `${pressed} pressed of ${seen} who saw it`
            : known.has(`${day} ${own}`)
              ? `${day} and ${own} stand here twice`
              : null;
    if (reason !== null || own === undefined) {
      problems.push({ where: `line ${i + 2}`, reason: reason ?? '' });
      return;
    }
    known.add(`${day} ${own}`);
    counts.push({ day, variation: own, seen: Number(seen), pressed: Number(pressed) });
  });
  return { counts, problems };
}

function failed(where: string, reason: string): CountsReading {
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
