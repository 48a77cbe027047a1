import { inner, message, type Message } from '../message/message.js';
import { roleTold } from '../veneer/own-role.js';
import { colorOfValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import type { Becomes, MatchChoices } from './proposal.js';
import { isOfRow } from './regroup.js';

/** A choice that no longer holds, by the row or property it was made for. */
export interface StaleChoice {
  readonly row: string;
  readonly words: Message;
}

/**
 * Choices that no longer hold: of colours that are no longer painted, of roles and swatches that the palette has no longer, of
 * properties that no longer feed the scope.
 * @param rows ids of all rows, as found and as grouped by these choices.
 * @param properties ids of those that feed the scope.
 */
export function staleChoices(
  rows: ReadonlySet<string>,
  { locked, equal, apart = [], merged = [], properties, shapes = {} }: MatchChoices,
  palette: Palette,
  feeding: readonly string[],
): StaleChoice[] {
  const stale = new Map<string, Message>();
  const gone = (row: string): void =>
    void (rows.has(row) || stale.set(row, message('match.found-here-no-longer', { row })));
  for (const [row, becomes] of Object.entries(locked)) {
    gone(row);
    const lost = lostBy(becomes, palette);
    if (lost && !stale.has(row)) stale.set(row, message('match.was-given-what-palette', { row, lost }));
  }
  for (const row of Object.keys(shapes)) gone(row);
  for (const { row } of apart) gone(row);
  for (const row of [...merged, ...equal].flat()) gone(row);
  for (const id of properties ?? [])
    if (!feeding.includes(id)) stale.set(id, message('match.feeds-no-longer', { property: id.split(' ')[0] }));
  return [...stale].map(([row, words]) => ({ row, words }));
}

/** What the palette has lost of a value; `null` where it has it. */
function lostBy(becomes: Becomes, palette: Palette): Message | null {
  if (becomes.kind === 'leave' || colorOfValue(becomes.value, palette)) return null;
  const { value } = becomes;
  if (value.kind === 'literal') return message('match.cannot-read');
  return value.kind === 'role'
    ? message('match.fills-no-role', { role: inner(roleTold(value.role)) })
    : message('match.lost-its-swatch');
}

/** The choices that still hold. Of a list of rows that loses one, nothing stays where fewer than two are left. */
export function withoutStale(choices: MatchChoices, stale: readonly Pick<StaleChoice, 'row'>[]): MatchChoices {
  const gone = new Set(stale.map(({ row }) => row));
  const left = (lists: readonly (readonly string[])[]): (readonly string[])[] =>
    lists.map((rows) => rows.filter((row) => !gone.has(row))).filter((rows) => rows.length > 1);
  const { apart, merged, properties, shapes } = choices;
  return {
    ...choices,
    locked: Object.fromEntries(Object.entries(choices.locked).filter(([row]) => !gone.has(row))),
    equal: left(choices.equal),
    ...(shapes ? { shapes: Object.fromEntries(Object.entries(shapes).filter(([row]) => !gone.has(row))) } : {}),
    ...(apart ? { apart: apart.filter(({ row }) => !gone.has(row)) } : {}),
    ...(merged ? { merged: left(merged) } : {}),
    ...(properties ? { properties: properties.filter((id) => !gone.has(id)) } : {}),
  };
}

/** The choices without what was set apart from a row, or merged into it; what was settled of its parts goes with them. */
export function withRowAsFound(choices: MatchChoices, row: string): MatchChoices {
  const isPart = (id: string): boolean => id !== row && isOfRow(id, row);
  return {
    ...choices,
    locked: Object.fromEntries(Object.entries(choices.locked).filter(([id]) => !isPart(id))),
    equal: choices.equal.filter((rows) => !rows.some(isPart)),
    apart: (choices.apart ?? []).filter((entry) => !isOfRow(entry.row, row)),
    merged: (choices.merged ?? []).filter((rows) => !rows.some((id) => isOfRow(id, row))),
  };
}
