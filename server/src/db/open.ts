import { errorText } from '@upper-veneer/words';
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import type { Db } from './db.js';
import { MIGRATIONS } from './migrations.js';

/** The data cannot be opened; the message says what to do. */
export class DataError extends Error {
  override readonly name = 'DataError';

  constructor(
    readonly code: 'not-writable' | 'newer-schema' | 'damaged' | 'full',
    message: string,
  ) {
    super(message);
  }
}

/**
 * Opens the database and brings its schema up to date, each step in one transaction.
 * @throws {DataError} `not-writable`; `newer-schema` when a newer version of the program wrote it; `damaged` when it is no database, or a broken one; `full`.
 */
export function openDatabase(file: string): Db {
  let db: Db;
  try {
    mkdirSync(dirname(file), { recursive: true });
    db = new Database(file);
    db.pragma('journal_mode = WAL');
    db.pragma('synchronous = FULL');
    db.pragma('foreign_keys = ON');
    db.exec('CREATE TABLE IF NOT EXISTS write_check (x INTEGER); DROP TABLE write_check;');
  } catch (error) {
    throw dataErrorOf(error, file);
  }
  try {
    migrate(db, file);
  } catch (error) {
    db.close();
    throw error instanceof DataError || !isOfTheFile(error) ? error : dataErrorOf(error, file);
  }
  return db;
}

/** Whether an error is about the file, not about what was asked of it. */
function isOfTheFile(error: unknown): boolean {
  return (
    error instanceof Error &&
    'code' in error &&
    /^SQLITE_(?:NOTADB|CORRUPT|FULL|READONLY|IOERR|CANTOPEN|PERM)|^E(?:NOSPC|ROFS|ACCES)/.test(String(error.code))
  );
}

/** What SQLite could not do, as who runs the program can mend it. Source: https://www.sqlite.org/rescode.html */
function dataErrorOf(error: unknown, file: string): DataError {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  const reason = errorText(error);
  if (/^SQLITE_(?:NOTADB|CORRUPT)/.test(code))
    return new DataError(
      'damaged',
      `${file} is damaged or no database (${reason}); it was not touched. Put a copy of it back, or move it away to begin anew`,
    );
  if (/^SQLITE_FULL|ENOSPC/.test(code))
    return new DataError('full', `The disk that holds ${dirname(file)} is full; make room and start again`);
  return new DataError(
    'not-writable',
    `The data folder ${dirname(file)} cannot be written: ${reason}. Set DATA_DIR to a folder that can be written`,
  );
}

function migrate(db: Db, file: string): void {
  const version = db.pragma('user_version', { simple: true }) as number;
  if (version > MIGRATIONS.length) {
    throw new DataError(
      'newer-schema',
      `${file} was written by a newer version of Upper Veneer (schema ${version}, this one knows ${MIGRATIONS.length})`,
    );
  }
  for (let next = version; next < MIGRATIONS.length; next += 1) {
    const step = MIGRATIONS[next];
    // Only outside a transaction can they be put off; what they watch over is checked before it ends.
    db.pragma(`foreign_keys = ${typeof step === 'string' ? 'ON' : 'OFF'}`);
    db.transaction(() => {
      if (typeof step === 'string') db.exec(step);
      else step(db);
      const broken = db.pragma('foreign_key_check') as unknown[];
      if (broken.length > 0)
        throw new DataError('damaged', `${file} holds ${broken.length} rows that lead nowhere; it was left as it is`);
      db.pragma(`user_version = ${next + 1}`);
    })();
  }
  db.pragma('foreign_keys = ON');
}
