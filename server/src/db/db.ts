import type Database from 'better-sqlite3';

/** The database of a running server. */
export type Db = Database.Database;
