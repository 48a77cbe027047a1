import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import { MIGRATIONS } from './migrations.js';

export type Db = Database.Database;

/** The data cannot be opened; the message says what to do. */
export class DataError extends Error {
  override readonly name = 'DataError';

  constructor(readonly code: 'not-writable' | 'newer-schema', message: string) {
    super(message);
  }
}

/**
 * Opens the database and brings its schema up to date, each step in one transaction.
 * @throws {DataError} `not-writable`, or `newer-schema` when a newer version of the program wrote it.
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
    throw new DataError('not-writable', `The data folder ${dirname(file)} cannot be written: ${error instanceof Error ? error.message : String(error)}`);
  }
  migrate(db, file);
  return db;
}

function migrate(db: Db, file: string): void {
  const version = db.pragma('user_version', { simple: true }) as number;
  if (version > MIGRATIONS.length) {
    db.close();
    throw new DataError('newer-schema', `${file} was written by a newer version of Upper Veneer (schema ${version}, this one knows ${MIGRATIONS.length})`);
  }
  for (let next = version; next < MIGRATIONS.length; next += 1) {
    db.transaction(() => {
      db.exec(MIGRATIONS[next]);
      db.pragma(`user_version = ${next + 1}`);
    })();
  }
}
