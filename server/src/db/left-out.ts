import type { LeftOutFile } from '@upper-veneer/contract';
import { isTold, say, type Message } from '@upper-veneer/words';
import type { Db } from './db.js';

/** As it is stored: a text as it is, a message as JSON with its words beside it. */
interface StoredRow {
  readonly path: string;
  readonly reason: string;
}

/** Rows that are kept a site; the last import that left more out says how many in its own answer. */
const MOST_ROWS = 2000;

export type LeftOut = ReturnType<typeof createLeftOut>;

/** What an import left out, with why. */
export function createLeftOut(db: Db) {
  const statements = {
    bySite: db.prepare<[number], StoredRow>('SELECT path, reason FROM left_out WHERE site_id = ? ORDER BY position'),
    drop: db.prepare<[number]>('DELETE FROM left_out WHERE site_id = ?'),
    insert: db.prepare<[number, number, string, string]>(
      'INSERT INTO left_out (site_id, position, path, reason) VALUES (?, ?, ?, ?)',
    ),
  };
  return {
    bySite: (siteId: number): LeftOutFile[] =>
      statements.bySite.all(siteId).map(({ path, reason }) => ({ path, reason: readReason(reason) })),
    replace: (siteId: number, rows: readonly LeftOutFile[]): void => {
      statements.drop.run(siteId);
      rows
        .slice(0, MOST_ROWS)
        .forEach(({ path, reason }, i) => statements.insert.run(siteId, i, path, writeReason(reason)));
    },
  };
}

/** The words stay with it, for a version that no longer has the code. */
function writeReason(reason: Message | string): string {
  return typeof reason === 'string' ? reason : JSON.stringify({ told: reason, said: say(reason) });
}

/** What was not written so, such as a text of an archive that begins like it, is a text. */
function readReason(text: string): Message | string {
  if (!text.startsWith('{"told":')) return text;
  try {
    const { told, said } = JSON.parse(text) as { readonly told?: unknown; readonly said?: unknown };
    if (isTold(told)) return told;
    return typeof said === 'string' ? said : text;
  } catch {
    return text;
  }
}
